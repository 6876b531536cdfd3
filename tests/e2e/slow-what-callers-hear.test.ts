import { afterAll, afterEach, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { Client, admin, type Document } from '../support/api';
import { ADMIN, openBrowser, press, signedIn, visit, waitForText } from '../support/browser';
import { Hand } from '../support/hand';
import { undoTo } from '../support/jobs';
import { DELAYS, onSlowLine } from '../support/slow-line';

/* Keypad, prompt and guided start over a slow line: nothing typed or chosen is lost, nothing is done twice. */

jest.setTimeout(120_000);

let browser: Browser;
let page: Page;
let hand: Hand;
let boss: Client;
let before: Document;
const { slower, typeInto, valueOf, until, idle } = onSlowLine(() => page);
beforeAll(async () => {
  browser = await openBrowser();
  page = await signedIn(browser, ...ADMIN);
  hand = new Hand(page);
  boss = await admin();
  before = (await boss.get<Document>('/plan')).body;
});
afterAll(async () => {
  await browser.close();
});
afterEach(() => undoTo(boss, before));

interface Plan {
  attendants: { id: string; name: string }[];
  attendantKeys: { attendant: string; mode: string; key: string; does: string; leadsTo: string | null }[];
  prompts: {
    id: string;
    name: string;
    text: string;
    sound: string | null;
    versions: { language: string; text: string; sound: string | null }[];
  }[];
}
const plan = async () => (await boss.get<Plan>('/plan')).body;
const keysOf = async (attendant: string) =>
  Object.fromEntries(
    (await plan()).attendantKeys
      .filter((k) => k.attendant === attendant && k.mode === 'open')
      .map((k) => [k.key, k.leadsTo ?? k.does]),
  );
const chosen = (label: string) => page.$eval(`[aria-label="${label}"]`, (e) => (e as HTMLSelectElement).value);

describe.each(DELAYS)('with %i ms more for every request', (delay) => {
  it('key after key is set while the last is on its way; what was chosen stands at once, also when it is changed again', async () => {
    await slower(0);
    await visit(page, '/attendants/freight-attendant');
    await page.waitForSelector('[data-testid=keypad]');
    await slower(delay);
    for (const [key, does] of [
      ['5', 'end'],
      ['6', 'repeat'],
      ['7', 'ask name'],
    ] as const) {
      await page.click(`[data-key="${key}"]`);
      await page.waitForSelector(`[aria-label="What key ${key} does"]`);
      await page.select(`[aria-label="What key ${key} does"]`, does);
      expect(await chosen(`What key ${key} does`)).toBe(does);
    }
    // Before its first choice has come back, and then again.
    await page.select('[aria-label="What key 7 does"]', 'end');
    await page.select('[aria-label="What key 7 does"]', 'ask extension');
    expect(await chosen('What key 7 does')).toBe('ask extension');
    await page.click('[data-key="1"]');
    await hand.find('[aria-label="Where key 1 leads"]', '2101');
    await until(async () => {
      const keys = await keysOf('freight-attendant');
      return keys['7'] === 'ask extension' && keys['1'] === 'e-2101';
    });
    await idle();
    expect(await keysOf('freight-attendant')).toEqual({
      '1': 'e-2101',
      '2': 'e-2118',
      '5': 'end',
      '6': 'repeat',
      '7': 'ask extension',
      '*': 'back',
      'no key': 'e-4000',
    });
    expect(await page.$('[role=alert]')).toBeNull();
    // Cleared by two quick clicks, it is cleared once, and stays so.
    await page.click('[data-key="6"]');
    await press(page, 'Clear key 6');
    await page.waitForFunction(
      () => (document.querySelector('[aria-label="What key 6 does"]') as HTMLSelectElement | null)?.value === '',
    );
    await page.select('[aria-label="What key 6 does"]', 'end');
    expect(await chosen('What key 6 does')).toBe('end');
    await until(async () => (await keysOf('freight-attendant'))['6'] === 'end');
    await idle();
    expect(await chosen('What key 6 does')).toBe('end');
    expect(await page.$('[role=alert]')).toBeNull();
  });

  it('the text of a version is typed on while it is spoken: text and sound both stay, and the older sound is told', async () => {
    await slower(0);
    await visit(page, '/prompts/greeting-vastra');
    await press(page, 'English');
    const box = 'textarea[data-field=versions]';
    await page.waitForSelector(box);
    await slower(delay);
    await typeInto(box, `Welcome aboard ${delay}.`);
    await page.keyboard.press('Tab');
    await press(page, 'Speak the text again');
    await page.focus(box);
    await page.$eval(box, (e) => (e as HTMLTextAreaElement).setSelectionRange(999, 999));
    await page.keyboard.type(' Mind the gap.');
    const whole = `Welcome aboard ${delay}. Mind the gap.`;
    const was = (before.prompts as Plan['prompts']).find((p) => p.id === 'greeting-vastra')!.versions[0]!.sound;
    const version = async () => (await plan()).prompts.find((p) => p.id === 'greeting-vastra')!.versions[0]!;
    await until(async () => (await version()).sound !== was);
    expect(await valueOf(box)).toBe(whole);
    await page.focus(box);
    await page.keyboard.type(' Thank you.');
    await page.keyboard.press('Tab');
    await until(async () => (await version()).text === `${whole} Thank you.`);
    await idle();
    expect((await version()).sound).toMatch(/^[0-9a-f]{64}$/);
    expect((await version()).sound).not.toBe(was);
    expect(await valueOf(box)).toBe(`${whole} Thank you.`);
    await waitForText(page, `The sound says another text than the one above: “Welcome aboard ${delay}.”`);
    await press(page, 'Speak the text again');
    await page.waitForFunction(() => !document.querySelector('[data-testid=sound-says]'));
  });

  it('an attendant begun with its greeting is there again after leaving; made by two quick presses, it is one', async () => {
    await slower(0);
    await visit(page, '/attendants/begin');
    await slower(delay);
    await typeInto('#begin-name', `Slow line ${delay}`);
    await typeInto('#begin-text', 'For tickets press 1, for freight press 2.');
    await page.waitForFunction(() => document.querySelectorAll('[data-testid=spoken-key]').length === 3);
    await hand.find('[aria-label="Where key 1 leads"]', '2101');
    await press(page, 'Hear it');
    // The greeting goes on while the first part is spoken: what was heard is not what is made.
    await page.focus('#begin-text');
    await page.keyboard.press('End');
    await page.keyboard.type(' For the bridge press 9.');
    await new Promise((done) => setTimeout(done, delay * 2 + 600));
    const text = 'For tickets press 1, for freight press 2. For the bridge press 9.';
    expect(await valueOf('#begin-text')).toBe(text);
    await page.goto(page.url().replace('/attendants/begin', '/numbers'), { waitUntil: 'domcontentloaded' });
    await slower(0);
    await visit(page, '/attendants/begin');
    expect([await valueOf('#begin-name'), await valueOf('#begin-text')]).toEqual([`Slow line ${delay}`, text]);
    await slower(delay);
    await page.evaluate(() => {
      const button = [...document.querySelectorAll('button')].find((b) => b.textContent === 'Make this attendant')!;
      button.click();
      button.click();
    });
    await until(async () => (await plan()).attendants.some((a) => a.name === `Slow line ${delay}`));
    await page.waitForFunction(() => /^\/attendants\/[0-9a-f-]{36}$/.test(location.pathname));
    const made = await plan();
    const mine = made.attendants.filter((a) => a.name === `Slow line ${delay}`);
    expect(mine).toHaveLength(1);
    expect(made.attendantKeys.filter((k) => k.attendant === mine[0]!.id)).toMatchObject([
      { key: '1', leadsTo: 'e-2101' },
    ]);
    expect(made.prompts.filter((p) => p.text === text)).toMatchObject([{ sound: null }]);
    await idle();
  });
});
