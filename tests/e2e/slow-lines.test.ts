import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { Client, admin, objectIn, rowVersion } from '../support/api';
import { ADMIN, openBrowser, press, signedIn, unfold, visit, waitForText } from '../support/browser';
import { DELAYS, onSlowLine } from '../support/slow-line';

/* Typing over a slow line: whatever comes back late, nothing that was typed since is lost, and nothing is done twice. */

jest.setTimeout(120_000);
/** A page that is filled while edits travel: the same person for each delay would hide what the last one left. */
const PERSON = { 200: 'p-3015', 500: 'p-3016', 2000: 'p-3017' } as const;

let browser: Browser;
let page: Page;
let boss: Client;
const { slower, typeInto, valueOf, until, idle } = onSlowLine(() => page);
beforeAll(async () => {
  browser = await openBrowser();
  page = await signedIn(browser, ...ADMIN);
  boss = await admin();
});
afterAll(async () => {
  for (const id of Object.values(PERSON)) await boss.post('/edits/undo', { kind: 'person', id });
  await browser.close();
});

describe.each(DELAYS)('with %i ms more for every request', (delay) => {
  it('what is typed while a form is sent stays when it is answered', async () => {
    await visit(page, '/settings');
    await slower(delay);
    await typeInto('#limit-queues', String(delay));
    await press(page, 'Set limits');
    await typeInto('#limit-mailboxes', '9000');
    await until(async () => {
      const { limits } = (await boss.get<{ limits: Record<string, number | null> }>('/limits')).body;
      return limits.queues === delay;
    });
    await new Promise((done) => setTimeout(done, delay * 3 + 500));
    expect(await valueOf('#limit-mailboxes')).toBe('9000');
    expect(await valueOf('#limit-queues')).toBe(String(delay));
    expect((await boss.get<{ limits: Record<string, number | null> }>('/limits')).body.limits.mailboxes).toBeNull();
    await press(page, 'Clear what was typed');
    await slower(0);
    const { limits } = (await boss.get<{ limits: Record<string, number | null> }>('/limits')).body;
    await boss.put('/limits', { ...limits, queues: null });
  });

  const id = PERSON[delay];

  it('field after field of one object is saved, while the first is on its way', async () => {
    await visit(page, `/people/${id}`);
    await unfold(page, 'Language, spelling and note');
    await slower(delay);
    await typeInto('[data-field=name]', `Slow ${delay}`);
    await page.keyboard.press('Tab');
    await typeInto('[data-field=email]', `slow${delay}@lanternfold.example`);
    await page.keyboard.press('Tab');
    await typeInto('[data-field=note]', `typed at ${delay}`);
    // The answers of the first two come while this one is still being typed.
    await new Promise((done) => setTimeout(done, delay * 2 + 300));
    await page.keyboard.type(' and on');
    expect(await valueOf('[data-field=note]')).toBe(`typed at ${delay} and on`);
    await page.keyboard.press('Tab');
    const wanted = {
      name: `Slow ${delay}`,
      email: `slow${delay}@lanternfold.example`,
      note: `typed at ${delay} and on`,
    };
    await until(async () => {
      const now = await objectIn(boss, 'draft', 'people', id);
      return Object.entries(wanted).every(([field, value]) => now?.[field] === value);
    });
    for (const [field, value] of Object.entries(wanted)) expect(await valueOf(`[data-field=${field}]`)).toBe(value);
    expect(await page.$('[role=alert]')).toBeNull();
  });

  it('a field edited again before its answer keeps the later text', async () => {
    await typeInto('[data-field=name]', `First ${delay}`);
    await page.keyboard.press('Tab');
    await typeInto('[data-field=name]', `Second ${delay}`);
    await page.keyboard.press('Tab');
    await until(async () => (await objectIn(boss, 'draft', 'people', id))?.name === `Second ${delay}`);
    await new Promise((done) => setTimeout(done, delay + 200));
    expect(await valueOf('[data-field=name]')).toBe(`Second ${delay}`);
    expect((await objectIn(boss, 'draft', 'people', id))?.name).toBe(`Second ${delay}`);
  });

  it('what a colleague changed meanwhile is not wiped, and what was typed is not either', async () => {
    const now = (await objectIn(boss, 'draft', 'people', id))!;
    await page.focus('[data-field=note]');
    await page.keyboard.press('End');
    await page.keyboard.type(', mine');
    const edits = [
      { kind: 'person', id, rowVersion: await rowVersion('person', id), value: { ...now, spelling: `spelt ${delay}` } },
    ];
    expect((await boss.post('/edits', { edits })).status).toBe(200);
    await page.keyboard.press('Tab');
    // Saved beside the colleague's edit, or refused with both shown: never silently one instead of the other.
    await until(async () => {
      const after = (await objectIn(boss, 'draft', 'people', id))!;
      if (after.spelling !== `spelt ${delay}`) throw new Error('the colleague’s edit is gone');
      const asked = await page.$$eval('[role=alert], [role=alertdialog]', (es) => es.length);
      return asked > 0 || String(after.note).endsWith(', mine');
    });
    expect(await valueOf('[data-field=note]')).toMatch(/, mine$/);
  });

  it('host and then port of one carrier, eight ticks in a row: each stands as it was set', async () => {
    await slower(0);
    await visit(page, '/trunks/kestrel');
    await unfold(page, 'Timing');
    await slower(delay);
    await typeInto('[data-field=host]', `sbc${delay}.kestrel.example`);
    await page.keyboard.press('Tab');
    await typeInto('[data-field=answerSeconds]', '25');
    await page.keyboard.press('Tab');
    await until(async () => {
      const now = await objectIn(boss, 'draft', 'trunks', 'kestrel');
      return now?.host === `sbc${delay}.kestrel.example` && now.answerSeconds === 25;
    });
    await boss.post('/edits/undo', { kind: 'trunk', id: 'kestrel' });
    await slower(0);
    await visit(page, '/classes/lobby');
    await slower(delay);
    const boxes = await page.$$('[data-testid=rights] input:not([disabled])');
    const before = await Promise.all(boxes.slice(0, 8).map((b) => b.evaluate((e) => (e as HTMLInputElement).checked)));
    const names = await Promise.all(boxes.slice(0, 8).map((b) => b.evaluate((e) => e.getAttribute('aria-label')!)));
    for (const name of names) {
      await page.click(`[data-testid=rights] input[aria-label="${name}"]`);
      await new Promise((done) => setTimeout(done, 400));
    }
    const now = () =>
      page.$$eval('[data-testid=rights] input', (es) =>
        Object.fromEntries(es.map((e) => [e.getAttribute('aria-label'), (e as HTMLInputElement).checked])),
      );
    const wanted = await now();
    // A tick may switch another off or on with it (a PIN needs the right); each of the eight was really changed.
    expect(names.filter((n, i) => wanted[n] !== before[i]).length).toBeGreaterThanOrEqual(6);
    await idle();
    expect(await now()).toEqual(wanted);
    await slower(0);
    await visit(page, '/classes/lobby');
    expect(await now()).toEqual(wanted);
    await boss.post('/edits/undo', { kind: 'class', id: 'lobby' });
  });

  it('arrow after arrow on a ladder moves each time, the focus stays, and nothing else moves', async () => {
    await slower(0);
    await visit(page, '/outbound');
    await slower(delay);
    const names = () => page.$$eval('[data-testid=rung] b', (es) => es.map((e) => (e as HTMLElement).innerText));
    const before = await names();
    await page.focus(`[aria-label="Move ${before[0]} down"]`);
    for (let i = 0; i < 4; i++) {
      await page.keyboard.press('Enter');
      await new Promise((done) => setTimeout(done, 200));
      expect(await page.evaluate(() => document.activeElement?.getAttribute('aria-label'))).toBe(
        `Move ${before[0]} down`,
      );
    }
    const wanted = [...before.slice(1, 5), before[0], ...before.slice(5)];
    expect(await names()).toEqual(wanted);
    await idle();
    expect(await names()).toEqual(wanted);
    await slower(0);
    await visit(page, '/outbound');
    expect(await names()).toEqual(wanted);
    const acts = (await boss.get<{ acts: { name: string }[] }>('/edits')).body.acts;
    // Each move is one edit of one rule; that others stand elsewhere because of it is none.
    expect(acts.filter((a) => a.name.startsWith('moved'))).toHaveLength(4);
    for (let i = 0; i < 4; i++) expect((await boss.post('/edits/undo')).status).toBe(200);
  });

  it('a reference that was typed and not chosen is never what it seems', async () => {
    await slower(0);
    await visit(page, '/extensions/e-2104');
    await slower(delay);
    const before = await valueOf('[data-field=person]');
    await typeInto('[data-field=person]', 'xyzzy');
    await page.keyboard.press('Tab');
    await waitForText(page, 'is no single one of the list');
    expect(await valueOf('[data-field=person]')).toBe(before);
    // What can only mean one is that one, also when it is left at once.
    await typeInto('[data-field=person]', 'sorin vael');
    await page.keyboard.press('Tab');
    await until(async () => (await objectIn(boss, 'draft', 'extensions', 'e-2104'))?.person === 'p-2109');
    expect(await valueOf('[data-field=person]')).toMatch(/^Sorin/);
    await idle();
    await boss.post('/edits/undo', { kind: 'extension', id: 'e-2104' });
  });

  it('what was typed and left at once is in the draft, or is named where it waits', async () => {
    await slower(0);
    await visit(page, `/people/${id}`);
    await slower(delay);
    await typeInto('[data-field=email]', `not an address ${delay}`);
    // To another page of the application before the answer is there.
    await page.click('nav a[href="/"]');
    await page.waitForSelector('[data-testid=typed-not-in-draft]');
    expect(await page.$eval('[data-testid=typed-not-in-draft]', (e) => (e as HTMLElement).innerText)).toMatch(/E-mail/);
    await page.waitForSelector('[data-testid=typed-mark]');
    await slower(0);
    await visit(page, '/go-live');
    await page.waitForSelector('[data-testid=typed-not-in-draft]');
    await page.click('[data-testid=typed-not-in-draft] a');
    await page.waitForSelector('[data-field=email]');
    expect(await valueOf('[data-field=email]')).toBe(`not an address ${delay}`);
    await typeInto('[data-field=email]', `left${delay}@lanternfold.example`);
    await page.keyboard.press('Tab');
    await until(
      async () => (await objectIn(boss, 'draft', 'people', id))?.email === `left${delay}@lanternfold.example`,
    );
    await idle();
    expect(await page.$('[data-testid=typed-mark]')).toBeNull();
  });

  it('a form that was left half filled is as it was, but for its PIN; added by two quick presses, it adds one', async () => {
    await slower(0);
    await visit(page, '/extensions/new');
    await slower(delay);
    await page.type('#new-name', `Quick ${delay}`);
    await page.type('#new-pin', '258025');
    // Leaving at once, before anything could have answered.
    await page.goto(page.url().replace('/extensions/new', '/numbers'), { waitUntil: 'domcontentloaded' });
    const kept = await page.evaluate(() => JSON.stringify({ ...localStorage }));
    expect(kept).toContain(`Quick ${delay}`);
    expect(kept).not.toContain('258025');
    await slower(0);
    await visit(page, '/extensions/new');
    await page.waitForFunction(() => (document.querySelector('#new-name') as HTMLInputElement).value !== '');
    await slower(delay);
    expect([await valueOf('#new-name'), await valueOf('#new-pin')]).toEqual([`Quick ${delay}`, '']);
    await page.type('#new-pin', '258025');
    const count = async () =>
      (await boss.get<{ extensions: { name: string }[] }>('/plan')).body.extensions.filter(
        (e) => e.name === `Quick ${delay}`,
      ).length;
    await page.focus('#new-name');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Enter');
    await waitForText(page, `Quick ${delay} is in the draft`);
    expect(await count()).toBe(1);
    await new Promise((done) => setTimeout(done, delay + 200));
    expect(await count()).toBe(1);
    expect(await page.$('[role=alert]')).toBeNull();
    await boss.post('/edits/undo');
  });

  it('the form of a new site keeps its country, and what that proposes', async () => {
    await slower(0);
    await visit(page, '/sites/new');
    await slower(delay);
    await page.type('#site-name', `Far ${delay}`);
    await typeInto('#site-country', 'Norway');
    await page.keyboard.press('Enter');
    await waitForText(page, '113');
    await page.goto(page.url().replace('/sites/new', '/numbers'), { waitUntil: 'domcontentloaded' });
    await slower(0);
    await visit(page, '/sites/new');
    await page.waitForFunction(() => (document.querySelector('#site-country') as HTMLInputElement).value === 'Norway');
    await waitForText(page, '113');
    expect(await valueOf('#site-name')).toBe(`Far ${delay}`);
    await page.waitForFunction(() =>
      (document.querySelector('#site-zone') as HTMLInputElement).value.startsWith('Oslo'),
    );
    await press(page, 'Clear what was typed');
  });

  it('a refusal brings what was typed back under the hands', async () => {
    await slower(0);
    await visit(page, '/extensions/new');
    await slower(delay);
    await page.type('#new-name', `Refused ${delay}`);
    await page.type('#new-pin', '258025');
    await page.type('#new-email', 'nobody');
    await press(page, 'Add extension');
    await waitForText(page, 'is no e-mail address');
    await page.waitForFunction(() => document.activeElement?.id === 'new-email');
    expect(await valueOf('#new-name')).toBe(`Refused ${delay}`);
    await press(page, 'Clear what was typed');
    await slower(0);
  });
});
