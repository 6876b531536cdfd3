import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { Client, admin, objectIn, rowVersion } from '../support/api';
import { ADMIN, AUDITOR, fill, openBrowser, press, signedIn, visit, waitForText } from '../support/browser';
import { until } from '../support/until';

/* What a part-time generalist is asked: close for the storm, the main number elsewhere after five, a fax that no voice meets; by mouse and by keys alone. */

jest.setTimeout(180_000);

let browser: Browser;
let page: Page;
let boss: Client;
beforeAll(async () => {
  browser = await openBrowser();
  page = await signedIn(browser, ...ADMIN);
  boss = await admin();
});
afterAll(async () => {
  const { body } = await boss.get<{ notices: { id: string }[] }>('/notices');
  for (const n of body.notices) await boss.delete(`/notices/${n.id}`);
  await browser.close();
});

/** Where a call from outside ends, in the draft or live. */
async function lands(dial: string, at: string, of = 'live', calling = '+441632960998'): Promise<string> {
  const { body } = await boss.get<{ lands: { id: string; label: string } | null; outcome: string }>(
    `/trace?from=${encodeURIComponent(`outside:${calling}`)}&dial=${encodeURIComponent(dial)}&at=${encodeURIComponent(at)}&of=${of}`,
  );
  return body.lands?.id ?? body.outcome;
}

/** What the thing with the focus is called. */
const named = () =>
  page.evaluate(() => {
    const e = document.activeElement as HTMLElement | null;
    const label = e?.id ? document.querySelector(`label[for="${CSS.escape(e.id)}"]`) : null;
    return (e?.getAttribute('aria-label') ?? label?.textContent ?? e?.textContent ?? '').trim();
  });

/** Presses Tab until something is reached, as somebody without a mouse does. */
async function tabTo(name: string | RegExp): Promise<void> {
  for (let i = 0; i < 160; i++) {
    await page.keyboard.press('Tab');
    const now = await named();
    if (typeof name === 'string' ? now === name : name.test(now)) return;
  }
  throw new Error(`Tab never comes to ${String(name)}`);
}

/** Chooses from the box that has the focus by typing. */
async function typeChoice(text: string): Promise<void> {
  await page.keyboard.type(text, { delay: 20 });
  await page.waitForFunction(
    (t: string) =>
      [...document.querySelectorAll('[role=option]')].some(
        (o) => o.checkVisibility() && (o as HTMLElement).innerText.includes(t),
      ),
    {},
    text,
  );
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
}

describe('closed for the storm', () => {
  it('three acts with the mouse from Today: what, until when, go; then it stands there and in the trace', async () => {
    await visit(page, '/');
    await press(page, 'Notice now');
    await page.waitForSelector('[data-testid=notice-panel]');
    // What: these hours, closed.
    await page.click('#notice-of');
    await page.type('#notice-of', 'Västra');
    const option = await page.waitForSelector('::-p-xpath(//*[@role="option"][contains(., "Västra Kajen")])');
    await option!.click();
    // Until when.
    await page.select('#notice-ends', 'tomorrow');
    // Go.
    await press(page, 'Set the notice');
    await waitForText(page, /Västra Kajen[^]*is closed by notice until/, '[data-testid=notice]');
    await waitForText(page, 'set by Farida Okonjo', '[data-testid=notice]');
    const noon = new Date(Date.now() + 3_600_000).toISOString();
    const { body } = await boss.get<{ steps: { sentence: string }[] }>(
      `/trace?from=withheld&dial=${encodeURIComponent('+46313900600')}&at=${noon}&of=live`,
    );
    expect(body.steps.map((s) => s.sentence).join(' ')).toMatch(/Västra Kajen is closed by notice/);
  });

  it('is seen by who only looks, without the button that ends it; and ended with one press', async () => {
    const other = await signedIn(browser, ...AUDITOR);
    await visit(other, '/');
    await waitForText(other, 'is closed by notice', '[data-testid=notice]');
    expect(await other.$$eval('[data-testid=notice] button', (b) => b.length)).toBe(0);
    expect(await other.$$eval('button', (b) => b.filter((x) => x.textContent?.includes('Notice now')).length)).toBe(0);
    await other.browserContext().close();
    await press(page, 'End it');
    await page.waitForFunction(() => document.querySelectorAll('[data-testid=notice]').length === 0);
  });

  it('by keys alone from the page of the hours, led to a prompt and a mailbox, with a reason', async () => {
    await visit(page, '/hours/vastra-hours');
    await tabTo('Notice now');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-testid=notice-panel]');
    expect(await named()).toBe('It is');
    await tabTo(/^Callers go elsewhere/);
    await page.keyboard.press('Enter');
    await page.waitForSelector('#notice-leadsTo');
    await tabTo('Callers go to');
    await typeChoice('Lost property');
    await tabTo('First they hear');
    await typeChoice('Storm');
    await tabTo('Why, for colleagues');
    await page.keyboard.type('storm');
    await tabTo('Set the notice');
    await page.keyboard.press('Enter');
    await waitForText(
      page,
      /is closed by notice “storm”[^]*callers hear “Storm: terminals closed”, then go to[^]*Lost property/,
      '[data-testid=notice]',
    );
    expect(await lands('+46313900600', 'now')).toBe('m-lost-property');
    await tabTo('End it');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => document.querySelectorAll('[data-testid=notice]').length === 0);
    expect(await lands('+46313900600', 'now')).not.toBe('m-lost-property');
  });

  it('going live says of a notice that leads to what the draft takes out', async () => {
    const { body } = await boss.post<{ id: string }>('/notices', {
      of: { kind: 'hours', id: 'vastra-hours' },
      open: false,
      from: null,
      until: null,
      leadsTo: 'storm-told',
      prompt: null,
      reason: 'storm',
    });
    const told = await rowVersion('announcement', 'storm-told');
    const out = { kind: 'announcement', id: 'storm-told', rowVersion: told, value: null };
    expect((await boss.post('/edits', { edits: [out] })).status).toBe(200);
    await visit(page, '/go-live');
    await waitForText(
      page,
      'The notice at Västra Kajen leads to Storm, told and ended, which goes',
      '[data-testid=losing]',
    );
    expect((await boss.post('/edits/undo')).status).toBe(200);
    await boss.delete(`/notices/${body.id}`);
    await visit(page, '/go-live');
    expect(await page.$('[data-testid=losing]')).toBeNull();
  });

  it('what is typed and not sent is there again; what is wrong stands at its field', async () => {
    await visit(page, '/hours/vastra-hours');
    await press(page, 'Notice now');
    await page.waitForSelector('#notice-ends');
    await page.select('#notice-ends', 'time');
    await page.waitForSelector('#notice-time');
    await press(page, 'Set the notice');
    await waitForText(page, 'Say on which day it ends.', '[role=alert]');
    await fill(page, '#notice-day', '31/12/2199');
    await fill(page, '#notice-time', '25');
    await press(page, 'Set the notice');
    await waitForText(page, 'A time of day, such as 18:30.', '[role=alert]');
    await visit(page, '/');
    await visit(page, '/hours/vastra-hours');
    await press(page, 'Notice now');
    await page.waitForSelector('#notice-time');
    expect(await page.$eval('#notice-day', (e) => (e as HTMLInputElement).value)).toBe('31/12/2199');
    await press(page, 'Cancel');
  });
});

describe('the main number to sales after five', () => {
  afterAll(async () => {
    for (let i = 0; i < 12; i++) {
      const { body } = await boss.get<{ routeRules: { id: string; route: string }[] }>('/plan?of=draft');
      if (!body.routeRules.some((r) => r.route === 'in-main')) return;
      await boss.post('/edits/undo');
    }
  });

  it('with the mouse: one rule, and the strip, the question on the page and the draft agree', async () => {
    const byDay = await lands('+441632960100', '2027-02-03T12:00', 'draft');
    await visit(page, '/inbound/in-main');
    await press(page, 'Add a time rule');
    await page.select('[aria-label="Hours of the new rule"]', 'head-office');
    await page.click('[aria-label="Where the new rule leads"]');
    await page.type('[aria-label="Where the new rule leads"]', 'Lost property');
    const option = await page.waitForSelector('::-p-xpath(//*[@role="option"][contains(., "Mailbox Lost property")])');
    await option!.click();
    await page.waitForSelector('[aria-label="Hours of rule 1"]');
    await until(
      async () => (await lands('+441632960100', '2027-02-03T18:30', 'draft')) === 'm-lost-property',
      'the draft leads there',
    );
    expect(await lands('+441632960100', '2027-02-03T12:00', 'draft')).toBe(byDay);
    expect(await lands('+441632960100', '2027-02-03T18:30')).not.toBe('m-lost-property');
    await waitForText(page, 'Lost property', '[data-testid=week-strip]');
    const rules = await page.$$eval('[aria-label="which rule decides"] [role=img]', (e) =>
      e.map((x) => x.getAttribute('aria-label')!),
    );
    expect(rules.some((r) => r.includes('rule 1: Head office are closed'))).toBe(true);
    await fill(page, '#ask-here', 'sun 18:05');
    await waitForText(page, 'Lost property', '[data-testid=ask-here]');
    await fill(page, '#ask-here', 'tue 12:00');
    await page.waitForFunction(
      () => !document.querySelector('[data-testid=ask-here]')!.textContent!.includes('Lost property'),
    );
  });

  it('the week after shows the other week, also by the key w, and each stretch opens its trace', async () => {
    const day = () => page.$eval('[aria-label="A day of the week to show"]', (e) => (e as HTMLInputElement).value);
    const before = await day();
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await page.keyboard.press('w');
    await page.waitForFunction(
      (was: string) =>
        document.querySelector<HTMLInputElement>('[aria-label="A day of the week to show"]')!.value !== was,
      {},
      before,
    );
    const href = await page.$eval('[aria-label="as drafted"] a', (a) => a.getAttribute('href')!);
    expect(href).toMatch(/^\/trace\?from=outside%3A/);
    await press(page, 'This week');
  });

  it('by keys alone: another rule above it, a place made on the spot, moved down again', async () => {
    await visit(page, '/inbound/in-main');
    await tabTo('Add a time rule');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[aria-label="Hours of the new rule"]');
    await tabTo('Hours of the new rule');
    await page.keyboard.type('Bookings, w');
    await tabTo('When the new rule fits');
    await page.keyboard.type('are on a h');
    await tabTo('Make a place for Where the new rule leads');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[aria-label="Make a place"]');
    expect(await named()).toBe('A new');
    await tabTo('Called');
    await page.keyboard.type('Holiday desk');
    await tabTo('Make it');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[aria-label="Hours of rule 2"]');
    const { body } = await boss.get<{ mailboxes: { id: string; name: string }[] }>('/plan?of=draft');
    const made = body.mailboxes.find((m) => m.name === 'Holiday desk')!;
    expect(await page.$eval('[aria-label="Where rule 2 leads"]', (e) => (e as HTMLInputElement).value)).toContain(
      'Holiday desk',
    );
    // On a holiday the office is closed as well: the rule above decides until the other one is moved before it.
    expect(await lands('+441632960100', '2026-12-25T12:00', 'draft')).toBe('m-lost-property');
    await tabTo(/^Move Rule 2 up/);
    await page.keyboard.press('Enter');
    await until(
      async () => (await lands('+441632960100', '2026-12-25T12:00', 'draft')) === made.id,
      'the rule is above',
    );
  });

  it('a route is duplicated out of use, and used again with one press', async () => {
    await visit(page, '/inbound/in-vastra');
    await press(page, 'Duplicate');
    await waitForText(page, 'Not in use.');
    const id = page.url().split('/').at(-1)!;
    expect(await objectIn(boss, 'draft', 'inboundRoutes', id)).toMatchObject({ enabled: false });
    const { body } = await boss.get<{ routeRules: { route: string }[] }>('/plan?of=draft');
    expect(body.routeRules.filter((r) => r.route === id)).toHaveLength(2);
    await press(page, 'Use it again');
    await page.waitForFunction(() => !document.body.innerText.includes('Not in use.'));
    await boss.post('/edits/undo');
    await boss.post('/edits/undo');
  });
});

describe('a fax that no voice meets', () => {
  it('a switch for fax that leads to a mailbox is an error that says so, and none once it is silent', async () => {
    await visit(page, '/time-switches/customs-manifests');
    await page.click('[data-field=closed] input, input[data-field=closed]');
    await page.keyboard.down('Control');
    await page.keyboard.press('a');
    await page.keyboard.up('Control');
    await page.keyboard.type('Lost property');
    const option = await page.waitForSelector('::-p-xpath(//*[@role="option"][contains(., "Mailbox Lost property")])');
    await option!.click();
    await waitForText(
      page,
      'Customs manifests is for fax, and a call can come to Lost property, which greets and records.',
    );
    await boss.post('/edits/undo');
    await visit(page, '/time-switches/customs-manifests');
    await page.waitForSelector('[data-testid=week-strip]');
    expect(await page.evaluate(() => document.body.innerText.includes('is for fax, and a call'))).toBe(false);
  });

  it('set by hand with the mouse and by keys, it says who set it and until when', async () => {
    await visit(page, '/time-switches/crew-duty');
    await page.select('[aria-label="How long it stays as it is set"]', 'today');
    await press(page, 'closed');
    await waitForText(page, /Set closed by hand by Farida Okonjo[^]*until/, '[data-testid=set-by-hand]');
    expect(await lands('+441632960180', 'now')).toBe('kestrel');
    await tabTo('by hours');
    await page.keyboard.press('Enter');
    await waitForText(page, 'It goes by its hours', '[data-testid=set-by-hand]');
  });
});

describe('holidays, codes and blocked callers', () => {
  it('a calendar takes in the holidays of its region, but those that are left out', async () => {
    await visit(page, '/holidays/holidays-de');
    await page.waitForSelector('[data-testid=official-dates]');
    const first = await page.$eval('[data-testid=official-dates] input', (e) => e.getAttribute('aria-label')!);
    await page.click('[data-testid=official-dates] input');
    await page.click('[data-testid=official-dates] > button');
    await waitForText(page, 'Every public holiday of Germany');
    const date = first.split(', ').at(-1)!;
    await until(async () => {
      const found = (await objectIn(boss, 'draft', 'holidayCalendars', 'holidays-de')) as unknown as {
        dates: { date: string; closed: boolean }[];
      };
      return found.dates.length > 20 && found.dates.find((d) => d.date === date)!.closed === false;
    }, 'the dates are in the draft');
    await boss.post('/edits/undo');
  });

  it('the number space opens by block, with what is taken and what is free', async () => {
    await visit(page, '/places');
    await page.click('[aria-label^="61 and on"]');
    await waitForText(page, 'Harbour masters', '[data-testid=number-block]');
    await waitForText(page, '6101–6139', '[data-testid=number-block]');
    await page.keyboard.press('ArrowRight');
    expect(await named()).toMatch(/^62 and on/);
  });

  it('a caller is blocked from the trace of the call, and let through again', async () => {
    await visit(
      page,
      `/trace?from=${encodeURIComponent('outside:+441632960777')}&dial=${encodeURIComponent('+441632960182')}&at=now`,
    );
    await press(page, 'Block this caller');
    await page.waitForSelector('#block-calling');
    expect(await page.$eval('#block-calling', (e) => (e as HTMLInputElement).value)).toBe('+441632960777');
    await press(page, 'Block');
    await waitForText(page, '+44 1632 960777', '[data-row]');
    expect(await lands('+441632960182', 'now', 'live', '+441632960777')).toBe('refused');
    expect(await lands('+441632960182', 'now')).toBe('e-2000');
    await page.click('[aria-label^="Let +44 1632 960777 through"]');
    await waitForText(page, 'Nobody is blocked.');
  });
});
