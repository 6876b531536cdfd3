import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { Client, admin, database } from '../support/api';
import { ADMIN, AUDITOR, BASE, openBrowser, press, signedIn, visit, waitForText } from '../support/browser';
import { mainNumberElsewhere } from '../support/main-number';
import { DELAYS, onSlowLine } from '../support/slow-line';

/* Calls as an administrator meets them: a foreign log and what the plan would lose, a missed call and why, the busy hour of a trunk. */

jest.setTimeout(180_000);

let browser: Browser;
let page: Page;
let boss: Client;
const { slower, typeInto, valueOf, until } = onSlowLine(() => page);
beforeAll(async () => {
  browser = await openBrowser();
  page = await signedIn(browser, ...ADMIN);
  boss = await admin();
});
afterAll(async () => {
  await browser.close();
  const connection = await database();
  await connection.query("DELETE FROM call_record WHERE started < '2026-01-01'");
  await connection.end();
});

const textOf = (selector: string) => page.$eval(selector, (e) => (e as HTMLElement).innerText);

/** A log of another system: sixty calls, of them one to each of twelve numbers that the plan does not own. */
function foreignLog(): string {
  const rows = ['Begin,Rings for,Chat,From,Number,Handset'];
  for (let i = 0; i < 60; i++) {
    const lost = i % 5 === 0;
    const number = lost ? `01632 9607${String(10 + i / 5).padStart(2, '0')}` : `01632 96010${i % 5}`;
    rows.push(
      `14/05/2025 09:${String(i).padStart(2, '0')},12,${lost ? '0' : '1:05'},07700 900321,${number},${lost ? '' : '2104'}`,
    );
  }
  return rows.join('\n');
}

describe('a recorded call', () => {
  it('is heard by whoever has a role that lets them, which stands with it; others are told what they lack', async () => {
    const { body } = await boss.get<{ calls: { key: string }[] }>('/calls?queue=bookings-queue&state=answered');
    const path = `/calls/${body.calls[0]!.key}`;
    await visit(page, path);
    await waitForText(page, 'Your role does not let you hear them', '[data-testid=recording]');
    const role = await boss.post<{ id: string }>('/roles', {
      name: `Hears calls ${Date.now()}`,
      grants: ['look', 'seeCalls', 'hearRecordings'].map((right) => ({ right, areas: 'all', sites: 'all' })),
    });
    const signIn = `hears.${Date.now()}`;
    const made = await boss.post<{ password: string }>('/administrators', {
      signIn,
      name: 'Vera Stone',
      role: role.body.id,
    });
    const first = await Client.signedIn([signIn, made.body.password]);
    const password = 'lamp-tide-orchard-19';
    expect((await first.put('/account/password', { old: made.body.password, password })).status).toBe(200);
    const hers = await signedIn(browser, signIn, password);
    await visit(hers, path);
    await hers.click('[data-testid=recording] [aria-label^="Play the recording"]');
    await hers.waitForSelector('[data-testid=recording] [aria-label^="Pause the recording"]');
    await hers.waitForFunction(() => !document.querySelector('[aria-label^="Pause the recording"]'), {
      timeout: 60_000,
    });
    await visit(hers, path);
    await waitForText(hers, /Vera Stone heard it/, '[data-testid=recording]');
    await hers.browserContext().close();
  });
});

describe('the log of the system before', () => {
  it('is brought in by hand, and its replay lists the twelve numbers that the plan would lose', async () => {
    const file = join(mkdtempSync(join(tmpdir(), 'polydrome-log-')), 'old system.csv');
    writeFileSync(file, foreignLog());
    await visit(page, '/calls');
    await press(page, 'Bring in a log');
    const input = await page.waitForSelector('#log-file');
    await (input as unknown as { uploadFile: (path: string) => Promise<void> }).uploadFile(file);
    // Two of its columns are called as nobody expects.
    await waitForText(page, 'Not read: “Rings for”, “Chat”, “Handset”', '[data-testid=unread-columns]');
    await page.select('select[aria-label="What “Rings for” is"]', 'ringing');
    await waitForText(page, /^Not read: “Chat”, “Handset”/, '[data-testid=unread-columns]');
    await page.select('select[aria-label="What “Chat” is"]', 'talk');
    await page.select('select[aria-label="What “Handset” is"]', 'phone');
    await until(async () => (await page.$('[data-testid=unread-columns]')) === null);
    await waitForText(page, '60 rows, 60 calls; from 14 May 2025, 09:00', '[data-testid=log-found]');
    await press(page, 'Keep 60 calls');
    await waitForText(page, '60 calls added, 0 there already.', '[data-testid=log-done]');
    await press(page, 'Replay them');
    await page.waitForSelector('[data-testid=replay-unexplained]');
    const lost = await textOf('[data-testid=replay-unexplained]');
    for (let i = 0; i < 12; i++) expect(lost).toContain(`+4416329607${10 + i} is no number of the plan.`);
    expect(lost.match(/is no number of the plan/g)).toHaveLength(12);
    // Left and come back to, the file is put away: it was brought in.
    await visit(page, '/calls/import');
    expect(await page.$('[data-testid=log-found]')).toBeNull();
  });

  it('a file that was chosen and not yet kept is there again when one comes back', async () => {
    const file = join(mkdtempSync(join(tmpdir(), 'polydrome-log-')), 'later.csv');
    writeFileSync(file, foreignLog());
    await visit(page, '/calls/import');
    const input = await page.waitForSelector('#log-file');
    await (input as unknown as { uploadFile: (path: string) => Promise<void> }).uploadFile(file);
    await waitForText(page, '60 rows', '[data-testid=log-found]');
    await page.select('select[aria-label="What “Handset” is"]', 'phone');
    await waitForText(page, 'Not read: “Rings for”, “Chat”', '[data-testid=unread-columns]');
    await visit(page, '/hours');
    await visit(page, '/calls/import');
    await waitForText(page, '60 rows', '[data-testid=log-found]');
    expect(await valueOf('select[aria-label="What “Handset” is"]')).toBe('phone');
    await press(page, 'put away');
    await until(async () => (await page.$('[data-testid=log-found]')) === null);
  });
});

describe('a missed call', () => {
  it('is found among those to call back, opened, and says why it ended there', async () => {
    await visit(page, '/calls/missed');
    await page.waitForSelector('main [role=row] a');
    const who = await textOf('main [data-row] [role=cell]:nth-child(2)');
    await page.click('main [data-row] [role=cell]:nth-child(2) a');
    await page.waitForSelector('[data-testid=call-compared]');
    await waitForText(page, who.trim(), 'h1');
    const compared = await textOf('[data-testid=call-compared]');
    expect(compared).toMatch(/live then/i);
    expect(compared).toMatch(/as it happened/);
    // Step by step, in sentences of the engine.
    const steps = await textOf('[data-testid=call-steps]');
    expect(steps).toMatch(/is one of our numbers and active|is in no inventory/);
    expect(await page.$('[data-testid=timeline] svg')).not.toBeNull();
  });

  it('its caller is blocked in one act, and let through in another', async () => {
    const blocked = async () =>
      (await boss.get<{ blocked: { calling: string; reason: string }[] }>('/blocked-callers')).body.blocked;
    const before = (await blocked()).length;
    await visit(page, '/calls/missed');
    const button = await page.waitForSelector('main [data-row] button[aria-label^="Block +"]');
    const name = await button!.evaluate((e) => e.getAttribute('aria-label')!);
    await button!.click();
    await until(async () => (await blocked()).length === before + 1);
    expect((await blocked())[0]).toMatchObject({
      calling: name.replace(/[^0-9+]/g, ''),
      reason: expect.stringMatching(/^Called \d+ times in vain$/),
    });
    const again = await page.waitForSelector(`main button[aria-label="Blocked; let ${name.slice(6)} through again"]`);
    await again!.click();
    await until(async () => (await blocked()).length === before);
  });
});

describe('the traffic of a trunk', () => {
  it('tells its busy hour, and how many channels it needs', async () => {
    await visit(page, '/calls/traffic');
    await page.select('#calls-trunk', 'kestrel');
    await waitForText(page, 'Traffic of Kestrel Voice', 'h1');
    const from = new URL(page.url()).searchParams.get('from')!;
    const { body } = await boss.get<{ busyHour: { from: string; erlangs: number }; needed: { channels: number } }>(
      `/calls/traffic?trunk=kestrel&from=${from}`,
    );
    await waitForText(page, body.busyHour.from, '[data-testid=traffic-figures]');
    await waitForText(
      page,
      `${body.busyHour.erlangs.toFixed(2)} erlangs on the mean day`,
      '[data-testid=traffic-figures]',
    );
    await waitForText(page, `${body.needed.channels} channel`, '[data-testid=traffic-sizing]');
  });

  it('a bar of a chart opens its calls, and the table beside it does', async () => {
    await visit(page, '/calls/charts');
    const link = await page.waitForSelector('[data-chart=weekday] table tbody a');
    const [label, count] = await page.$eval('[data-chart=weekday] table tbody tr', (e) => {
      const cells = [...e.children].map((c) => (c as HTMLElement).innerText.replace(/,/g, ''));
      return [cells[0]!, cells.slice(1).reduce((n, c) => n + Number(c), 0)] as const;
    });
    await link!.click();
    await waitForText(page, `on ${label}s`, '[data-testid=call-filters]');
    // All that fit are fetched by scrolling, and are as many as the chart has.
    await until(async () => {
      await page.$eval('[data-testid=ledger-scroller]', (e) => (e.scrollTop = e.scrollHeight));
      await page.$$eval('main button', (all) => all.find((b) => b.textContent === 'Older calls')?.click());
      return (await textOf('main')).includes(`${count.toLocaleString('en')} calls`);
    });
  });
});

describe('the draft before it goes live', () => {
  let takeBack: () => Promise<void>;
  beforeAll(async () => {
    takeBack = await mainNumberElsewhere(boss);
  });
  afterAll(() => takeBack());

  it('says on the page of its edits how many of the last calls would end elsewhere, and which', async () => {
    await visit(page, '/go-live');
    await waitForText(page, /[1-9][0-9,]* of [0-9,]+ calls from .* would end elsewhere/, '[data-testid=real-calls]');
    await page.click('[data-testid=real-calls] a');
    await page.waitForSelector('[data-testid=replay-group]');
    await waitForText(page, 'changed “Leads to” of Main number (you)', '[data-testid=replay-groups]');
    await page.click('::-p-xpath(//*[@data-testid="replay-group"][contains(., "of Main number (you)")]//a)');
    await page.waitForSelector('[data-testid=first-difference]');
    await waitForText(page, /by this plan/, '[data-testid=first-difference]');
  });
});

describe('whoever may not see numbers', () => {
  it('sees calls without them, and can’t look for one', async () => {
    const context = await signedIn(browser, ...AUDITOR);
    await context.goto(`${BASE}/calls`, { waitUntil: 'networkidle0' });
    await context.waitForSelector('main [data-row]');
    expect(
      await context.$eval('main', (e) =>
        /\+4[469] ?7|\+4[69] [0-9]{2}/.test(
          (e as HTMLElement).innerText.replace(
            /\+44 1632 960|\+46 31 390 06|\+49 40 66969|\+44 808|\+44 7700 90010/g,
            '',
          ),
        ),
      ),
    ).toBe(false);
    expect(await context.$$eval('main a', (all) => all.some((a) => a.textContent === 'Bring in a log'))).toBe(false);
    await context.type('#calls-number', '+447700900300');
    await waitForText(context, 'does not see outside numbers', '[role=alert]');
    await context.close();
  });
});

describe.each(DELAYS)('with %i ms more for every request', (delay) => {
  it('what is typed into the filter stands, field after field, and what was asked last is shown', async () => {
    await slower(0);
    await visit(page, '/calls');
    await slower(delay);
    await typeInto('#calls-number', '01632 960147');
    await page.select('#calls-state', 'missed');
    await typeInto('#calls-from', '1/10/2026');
    await page.keyboard.press('Tab');
    await page.select('#calls-way', 'in');
    await until(async () => {
      const rows = await page.$$eval('main [data-row]', (all) => all.map((r) => (r as HTMLElement).innerText));
      return rows.length > 0 && rows.every((r) => /missed|failed/.test(r) && r.includes('960147'));
    });
    expect([await valueOf('#calls-number'), await valueOf('#calls-state'), await valueOf('#calls-from')]).toEqual([
      '01632 960147',
      'missed',
      expect.stringMatching(/0?1\/10\/2026/),
    ]);
    // The address keeps it: whoever comes back finds it.
    const address = page.url();
    await slower(0);
    await visit(page, '/hours');
    await page.goto(address, { waitUntil: 'networkidle0' });
    expect(await valueOf('#calls-number')).toBe('01632 960147');
    expect(await valueOf('#calls-state')).toBe('missed');
  });
});
