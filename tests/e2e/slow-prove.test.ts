import { afterAll, afterEach, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { Client, admin, type Document } from '../support/api';
import { ADMIN, openBrowser, press, signedIn, visit, waitForText } from '../support/browser';
import { undoTo } from '../support/jobs';
import { DELAYS, onSlowLine } from '../support/slow-line';

/* Reasons, notes and times typed over a slow line while others edit: nothing typed is lost, nothing done twice. */

jest.setTimeout(120_000);

let browser: Browser;
let page: Page;
let boss: Client;
let before: Document;
const { slower, typeInto, valueOf, until } = onSlowLine(() => page);
beforeAll(async () => {
  browser = await openBrowser();
  page = await signedIn(browser, ...ADMIN);
  boss = await admin();
  before = (await boss.get<Document>('/plan')).body;
});
afterAll(() => browser.close());
afterEach(async () => {
  await slower(0);
  await page.evaluate(() => window.localStorage.clear());
  await undoTo(boss, before);
});

async function rings(id: string, ringSeconds: number): Promise<void> {
  const { status } = await boss.post('/edits', { edits: [{ kind: 'extension', id, set: { ringSeconds }, seen: {} }] });
  expect(status).toBe(200);
}

/** Something is there to go live, whatever stood in the draft. */
const edited2112 = () => rings('e-2112', 57);

/** Another edits something else meanwhile, and the page shows it. */
async function editedMeanwhile(ringSeconds: number): Promise<void> {
  await rings('e-2111', ringSeconds);
  const { draftVersion } = (await boss.get<{ draftVersion: number }>('/health')).body;
  await page.waitForSelector(`[data-draft-version="${draftVersion}"]`);
}

/** Two presses so quick that the first is not answered. */
const pressedTwice = (selector: string) =>
  page.$eval(selector, (e) => {
    (e as HTMLElement).click();
    (e as HTMLElement).click();
  });

const settle = (delay: number) => new Promise((done) => setTimeout(done, delay * 2 + 400));

interface Muted {
  problems: { muted: { id: string; reason: string } | null }[];
}
const muted = async () =>
  (await boss.get<Muted>('/problems?muted=true&most=100')).body.problems.flatMap((p) => p.muted ?? []);

interface Going {
  id: string;
  state: string;
  note: string;
  at: string | null;
}
const waiting = async () =>
  (await boss.get<{ goings: Going[] }>('/going-live')).body.goings.filter((g) => g.state === 'planned');

describe.each(DELAYS)('with %i ms more for every request', (delay) => {
  it('why a problem may stay is typed on while another edits; is there on coming back; and is noted once', async () => {
    const REASON = '[data-testid=mute] input:not([type=date])';
    await slower(0);
    await visit(page, '/problems');
    await page.waitForSelector('[data-testid=problem]');
    const asks = await page.$eval('button[aria-label^="Leave it as it is"]', (e) => e.getAttribute('aria-label')!);
    await page.click(`button[aria-label=${JSON.stringify(asks)}]`);
    await page.waitForSelector(REASON);
    await slower(delay);
    await typeInto(REASON, `known since ${delay}`);
    await editedMeanwhile(41);
    await page.waitForSelector(REASON);
    expect(await valueOf(REASON)).toBe(`known since ${delay}`);
    await page.goto(page.url().replace('/problems', '/numbers'), { waitUntil: 'domcontentloaded' });
    await slower(0);
    await visit(page, '/problems');
    await page.waitForSelector(REASON);
    expect(await valueOf(REASON)).toBe(`known since ${delay}`);
    await page.focus(REASON);
    await page.keyboard.press('End');
    await slower(delay);
    await page.keyboard.type(' and no harm');
    await pressedTwice('[data-testid=mute] button[type=submit]');
    await until(async () => (await muted()).length > 0);
    await settle(delay);
    const noted = await muted();
    expect(noted.map((m) => m.reason)).toEqual([`known since ${delay} and no harm`]);
    await page.waitForFunction(
      (of: string) => !document.querySelector(`button[aria-label=${of}]`),
      {},
      JSON.stringify(asks),
    );
    await boss.delete(`/problems/muted/${noted[0]!.id}`);
    await slower(0);
    await visit(page, '/problems');
    await page.waitForSelector('[data-testid=problem]');
    expect(await page.$(REASON)).toBeNull();
  });

  it('a time to go live stays as typed while another edits and something is left for later; planned once', async () => {
    const [AT, NOTE, REASON] = ['#later-at', '#later-note', '#later-reason'];
    const typed = async () => [
      await valueOf(AT),
      await valueOf(NOTE),
      (await page.$(REASON)) ? await valueOf(REASON) : null,
    ];
    const at = `2031-05-06T07:${String(10 + (delay % 49)).padStart(2, '0')}`;
    await edited2112();
    await slower(0);
    await visit(page, '/go-live');
    await page.waitForSelector('[data-testid=go-live]');
    await press(page, 'At a time…');
    await page.waitForSelector(AT);
    await slower(delay);
    await page.$eval(
      AT,
      (e, value) => {
        Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!.call(e, value);
        e.dispatchEvent(new Event('input', { bubbles: true }));
      },
      at,
    );
    // Where an error stands against it, why it goes live all the same is asked.
    const asksWhy = (await page.$(REASON)) !== null;
    if (asksWhy) await typeInto(REASON, `mended on Monday ${delay}`);
    const wanted = [at, `before the season ${delay}`, asksWhy ? `mended on Monday ${delay}` : null];
    await typeInto(NOTE, `before the season ${delay}`);
    await editedMeanwhile(42);
    await page.waitForSelector(NOTE);
    expect(await typed()).toEqual(wanted);
    // What is left for later changes what goes, not when.
    await page.click('[aria-label^="Leave for later: changed “Rings for” of 2111"]');
    await waitForText(page, '2111', '[data-testid=left-for-later]');
    await page.waitForSelector(NOTE);
    expect(await typed()).toEqual(wanted);
    await page.goto(page.url().replace('/go-live', '/numbers'), { waitUntil: 'domcontentloaded' });
    await slower(0);
    await visit(page, '/go-live');
    await page.waitForSelector(NOTE);
    expect(await typed()).toEqual(wanted);
    await page.focus(NOTE);
    await page.keyboard.press('End');
    await slower(delay);
    await page.keyboard.type(', at night');
    await pressedTwice('[data-testid=plan-it]');
    await until(async () => (await waiting()).length > 0);
    await settle(delay);
    const planned = await waiting();
    expect(planned.map((g) => g.note)).toEqual([`before the season ${delay}, at night`]);
    expect(new Date(planned[0]!.at!).getTime()).toBe(new Date(at).getTime());
    await waitForText(page, `before the season ${delay}, at night`, '[data-testid=goings]');
    // What was sent is not typed any more: the usual way to go stands there again.
    await page.waitForSelector('[data-testid=go-live]');
    await boss.delete(`/going-live/${planned[0]!.id}`);
  });

  it('a note stays as typed while another edits and something is left for later', async () => {
    await edited2112();
    await slower(0);
    await visit(page, '/go-live');
    await page.waitForSelector('#live-note');
    await slower(delay);
    await typeInto('#live-note', `half a note ${delay}`);
    await editedMeanwhile(43);
    expect(await valueOf('#live-note')).toBe(`half a note ${delay}`);
    await page.click('[aria-label^="Leave for later: changed “Rings for” of 2111"]');
    await waitForText(page, '2111', '[data-testid=left-for-later]');
    await page.waitForSelector('#live-note');
    expect(await valueOf('#live-note')).toBe(`half a note ${delay}`);
    await slower(0);
    await page.$eval('#live-note', (e) => (e as HTMLTextAreaElement).select());
    await page.keyboard.press('Backspace');
  });
});
