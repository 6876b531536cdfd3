import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { Client, admin, objectIn, rowVersion } from '../support/api';
import { ADMIN, openBrowser, press, signedIn, visit, waitForText } from '../support/browser';

/* Typing over a slow line: whatever comes back late, nothing that was typed since is lost, and nothing is done twice. */

jest.setTimeout(120_000);
const DELAYS = [200, 500, 2000] as const;
/** A page that is filled while edits travel: the same person for each delay would hide what the last one left. */
const PERSON = { 200: 'p-3015', 500: 'p-3016', 2000: 'p-3017' } as const;

let browser: Browser;
let page: Page;
let boss: Client;
beforeAll(async () => {
  browser = await openBrowser();
  page = await signedIn(browser, ...ADMIN);
  boss = await admin();
});
afterAll(async () => {
  for (const id of Object.values(PERSON)) await boss.post('/edits/undo', { kind: 'person', id });
  await browser.close();
});

/** Every request takes so much longer from here on. */
async function slower(latency: number): Promise<void> {
  await page.emulateNetworkConditions(latency === 0 ? null : { latency, download: -1, upload: -1 });
  const begun = Date.now();
  await page.evaluate(() => fetch('/api/v1/health', { cache: 'no-store' }));
  // A delay that is none would prove nothing.
  expect(Date.now() - begun).toBeGreaterThanOrEqual(latency);
}

/** Replaces what stands in a field at once, without leaving it. */
async function typeInto(selector: string, text: string): Promise<void> {
  await page.focus(selector);
  await page.$eval(selector, (e) => (e as HTMLInputElement).select());
  await page.keyboard.type(text);
}

const valueOf = (selector: string) => page.$eval(selector, (e) => (e as HTMLInputElement).value);

async function until(what: () => Promise<boolean>): Promise<void> {
  for (let i = 0; i < 150; i++) {
    if (await what()) return;
    await new Promise((done) => setTimeout(done, 100));
  }
  throw new Error('waited in vain');
}

describe.each(DELAYS)('with %i ms more for every request', (delay) => {
  const id = PERSON[delay];

  it('field after field of one object is saved, while the first is on its way', async () => {
    await visit(page, `/people/${id}`);
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

  it('a form that was left half filled is as it was; added by two quick presses, it adds one', async () => {
    await slower(0);
    await visit(page, '/extensions/new');
    await slower(delay);
    await page.type('#new-name', `Quick ${delay}`);
    await page.type('#new-pin', '258025');
    // Leaving at once, before anything could have answered.
    await page.goto(page.url().replace('/extensions/new', '/numbers'), { waitUntil: 'domcontentloaded' });
    await slower(0);
    await visit(page, '/extensions/new');
    await slower(delay);
    expect([await valueOf('#new-name'), await valueOf('#new-pin')]).toEqual([`Quick ${delay}`, '258025']);
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
