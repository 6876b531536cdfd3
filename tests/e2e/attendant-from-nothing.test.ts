import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { Client, admin, type Document } from '../support/api';
import { ADMIN, openBrowser, press, signedIn, unfold, visit, waitForText } from '../support/browser';
import { Hand } from '../support/hand';
import { undoTo } from '../support/jobs';
import { until } from '../support/until';

/* The main attendant of the company from nothing, by hand: two levels, opening hours, three languages; then called in each. */

jest.setTimeout(180_000);

let browser: Browser;
let page: Page;
let hand: Hand;
let boss: Client;
let before: Document;
beforeAll(async () => {
  browser = await openBrowser();
  page = await signedIn(browser, ...ADMIN);
  hand = new Hand(page);
  boss = await admin();
  before = (await boss.get<Document>('/plan')).body;
});
afterAll(async () => {
  await undoTo(boss, before);
  await browser.close();
});

interface Plan {
  attendants: { id: string; name: string; above: string | null; greetingOpen: string | null; language: string }[];
  attendantKeys: { attendant: string; mode: string; key: string; does: string; leadsTo: string | null }[];
  prompts: { id: string; sound: string | null; versions: { language: string; sound: string | null }[] }[];
}
const plan = async () => (await boss.get<Plan>('/plan')).body;

const keysOf = async (attendant: string, mode: string) =>
  Object.fromEntries(
    (await plan()).attendantKeys
      .filter((k) => k.attendant === attendant && k.mode === mode)
      .map((k) => [k.key, k.leadsTo ?? k.does]),
  );
const named = async (name: string) => until(async () => (await plan()).attendants.find((a) => a.name === name), name);

const ENGLISH =
  'Welcome to the ferries. For bookings press 1, for freight press 2, for sailing status press 3, for lost property press 4. For staff by name press 9. To hear this again press star. Press 0 for the desk.';
const SWEDISH = 'Välkommen till färjorna. För bokningar tryck 1, för frakt tryck 2, för avgångar tryck 3.';
const GERMAN = 'Willkommen bei den Fähren. Für Buchungen drücken Sie die 1, für Fracht drücken Sie die 2.';

async function setKey(key: string, does: string): Promise<void> {
  await page.click(`[data-key="${key}"]`);
  await page.waitForSelector(`[aria-label="What key ${key} does"]`);
  await page.select(`[aria-label="What key ${key} does"]`, does);
}

async function leadKey(key: string, to: string): Promise<void> {
  await page.click(`[data-key="${key}"]`);
  await hand.find(`[aria-label="Where key ${key} leads"]`, to);
}

describe('the main attendant from nothing', () => {
  let id: string;

  it('says before the first field how many attendants are left; beyond that none is made, and what was typed stays', async () => {
    const { limits } = (await boss.get<{ limits: Record<string, number | null> }>('/limits')).body;
    const used = (await plan()).attendants.length;
    await boss.put('/limits', { ...limits, attendants: used });
    await visit(page, '/attendants/begin');
    await waitForText(page, `${used} of ${used} used, none left`, '[data-testid=limits]');
    await hand.into('#begin-name', 'One too many');
    await hand.into('#begin-text', 'Hello.');
    await hand.press('Make this attendant');
    await waitForText(page, `Attendants: ${used} allowed, ${used} used, this would make ${used + 1}, 1 too many`);
    expect(await page.$eval('#begin-text', (e) => (e as HTMLTextAreaElement).value)).toBe('Hello.');
    expect((await plan()).attendants).toHaveLength(used);
    await boss.put('/limits', limits);
    await hand.press('Clear what was typed');
  });

  it('its greeting names seven keys; five are led at once, and all of it is one act', async () => {
    await visit(page, '/attendants/begin');
    await hand.into('#begin-name', 'Ferry line');
    await hand.into('#begin-digits', '6690');
    await hand.choose('#begin-hours', 'Bookings');
    await hand.into('#begin-text', ENGLISH);
    await page.waitForFunction(() => document.querySelectorAll('[data-testid=spoken-key]').length === 8);
    for (const [key, to] of [
      ['key 1', 'Bookings desk'],
      ['key 3', 'Sailing status'],
      ['key 4', 'Mailbox Lost property'],
      ['key 0', '2000'],
      ['no key', '2000'],
    ] as const)
      await hand.find(`[aria-label="Where ${key} leads"]`, to);
    await hand.press('Hear it');
    await page.waitForSelector('[aria-label="Play the greeting"]');
    await hand.press('Make this attendant');
    ({ id } = await named('Ferry line'));
    await page.waitForSelector('[data-testid=keypad]');
    expect(await keysOf(id, 'open')).toEqual({
      '0': 'e-2000',
      '1': 'bookings-desk',
      '3': 'sailing-status',
      '4': 'm-lost-property',
      'no key': 'e-2000',
    });
  });

  it('names, saying it again and a second level are keys; the level has a greeting that is typed there', async () => {
    await setKey('9', 'ask name');
    await setKey('*', 'repeat');
    await page.click('[data-key="2"]');
    await hand.press('Make a second level here');
    await waitForText(page, 'Ferry line, key 2', 'h1');
    const level = await named('Ferry line, key 2');
    expect(level.above).toBe(id);
    await leadKey('1', 'Freight desk');
    await leadKey('2', '2118');
    await setKey('*', 'back');
    await hand.into('#greeting-open-text', 'Freight. For Hamburg press 1, for customs press 2. To go back press star.');
    await hand.press('Make this greeting');
    await page.waitForSelector('[aria-label^="Play Ferry line, key 2, open"]');
    const greeting = (await named('Ferry line, key 2')).greetingOpen!;
    expect((await plan()).prompts.find((p) => p.id === greeting)!.sound).toMatch(/^[0-9a-f]{64}$/);
    expect(await keysOf(level.id, 'open')).toEqual({ '1': 'e-4000', '2': 'e-2118', '*': 'back' });
  });

  it('closed has keys and a greeting of its own', async () => {
    await visit(page, `/attendants/${id}`);
    await page.click('#mode-closed');
    await leadKey('3', 'Sailing status');
    await hand.into('#greeting-closed-text', 'Our desks are closed. For sailing status press 3.');
    await hand.press('Make this greeting');
    await page.waitForSelector('[aria-label^="Play Ferry line, closed"]');
    expect(await keysOf(id, 'closed')).toEqual({ '3': 'sailing-status' });
  });

  it('the greeting is said in Swedish and German too, each in its voice', async () => {
    const { greetingOpen } = await named('Ferry line');
    await visit(page, `/prompts/${greetingOpen}`);
    for (const [language, text] of [
      ['Swedish', SWEDISH],
      ['German', GERMAN],
    ] as const) {
      await hand.find('#new-version', language);
      await waitForText(page, language, '[role=tab][aria-selected=true]');
      await page.waitForFunction(
        () => (document.querySelector('textarea[data-field=versions]') as HTMLTextAreaElement | null)?.value === '',
      );
      await hand.into('textarea[data-field=versions]', text);
      await hand.press('Speak the text');
      await page.waitForSelector('[aria-label^="Play Ferry line, greeting"]');
    }
    const { sound, versions } = await until(async () => {
      const found = (await plan()).prompts.find((p) => p.id === greetingOpen)!;
      return found.versions.length === 2 && found.versions.every((v) => v.sound) && found;
    }, 'three sounds');
    expect(new Set([sound, ...versions.map((v) => v.sound)]).size).toBe(3);
  });

  it('a Swedish and a German attendant are like it, but for language and digits', async () => {
    for (const [language, digits] of [
      ['Swedish', '6691'],
      ['German', '6692'],
    ] as const) {
      await visit(page, `/attendants/${id}`);
      await hand.press('Duplicate');
      await waitForText(page, 'Ferry line, copy', 'h1');
      const at = page.url();
      await hand.find('[data-field=language]', language);
      await unfold(page, 'Name, site, digits, level and note');
      await page.click('[data-field=name]', { count: 3 });
      await page.keyboard.type(`Ferry line, ${language}`);
      await hand.into('[data-field=digits]', digits);
      await page.keyboard.press('Tab');
      await named(`Ferry line, ${language}`);
      expect(page.url()).toBe(at);
    }
    const copies = (await plan()).attendants.filter((a) => a.name.startsWith('Ferry line, ') && a.above === null);
    expect(copies.map((a) => a.language).sort()).toEqual(['de', 'sv']);
    for (const copy of copies) expect(await keysOf(copy.id, 'open')).toEqual(await keysOf(id, 'open'));
  });

  it.each([
    ['6690', ENGLISH],
    ['6691', SWEDISH],
    ['6692', GERMAN],
  ])(
    '%s is called, and heard in its language, through the second level to the desk in Hamburg',
    async (digits, text) => {
      await visit(page, `/rehearsal?from=2101&dial=${digits}&at=fri%2010:00&did=k2:2+k8:1`);
      await waitForText(page, text.slice(0, 24), '[data-testid=transcript]');
      for (const words of ['You press 2.', 'Freight. For Hamburg press 1', 'You press 1.', '4000']) {
        for (let i = 0; i < 8 && !(await transcript()).includes(words); i++) {
          await press(page, 'Skip to what comes next');
          await new Promise((done) => setTimeout(done, 150));
        }
        expect(await transcript()).toContain(words);
      }
    },
  );

  const transcript = () => page.$eval('[data-testid=transcript]', (e) => (e as HTMLElement).innerText);
});
