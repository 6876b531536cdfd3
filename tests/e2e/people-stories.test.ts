import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, ElementHandle, Page } from 'puppeteer-core';
import { Client, admin, type Document } from '../support/api';
import { ADMIN, fill, openBrowser, press, signedIn, visit, waitForText, unfold } from '../support/browser';

/* Whole pieces of work as an administrator does them, in the real interface. */

jest.setTimeout(300_000);

let browser: Browser;
let page: Page;
let boss: Client;
let before: Document;
const plan = async () => (await boss.get<Document>('/plan')).body;
const byLabel = async (label: string) =>
  (await page.waitForSelector(`::-p-aria(${label})`, { timeout: 60_000 })) as ElementHandle<HTMLElement>;

beforeAll(async () => {
  boss = await admin();
  before = await plan();
  browser = await openBrowser();
  page = await signedIn(browser, ...ADMIN);
});
afterAll(async () => {
  await browser.close();
});

/** Presses Ctrl Z outside every field. */
async function undo(): Promise<void> {
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.down('Control');
  await page.keyboard.press('z');
  await page.keyboard.up('Control');
}

describe('a new site abroad with forty people from a spreadsheet', () => {
  it('takes a few minutes: site with its numbers, sheet with a wrong cell mended in place, numbers given, all of it in the draft', async () => {
    await visit(page, '/sites/new');
    await fill(page, '#site-country', 'Norway');
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      () => (document.querySelector('#site-zone') as HTMLInputElement).value === 'Oslo (Europe)',
    );
    expect(await page.$eval('#site-language', (e) => (e as HTMLInputElement).value)).toBe('Norwegian Bokmål');
    await page.type('#site-name', 'Oslo');
    const range = await page.$eval('#site-from', (e) => (e as HTMLInputElement).value);
    await page.type('#site-numbers', '+47 21 93 00 00 to 0059');
    await press(page, 'Add site');
    await waitForText(page, 'Oslo', 'h1');

    const file = join(mkdtempSync(join(tmpdir(), 'polydrome-')), 'oslo.csv');
    const first = Number(range);
    const rows = Array.from(
      { length: 40 },
      (_, i) =>
        `${first + 1 + i};Ansatt ${i + 1};Oslo;${i === 7 ? 'not an address' : `ansatt${i + 1}@lanternfold.example`};ja;Oslo kontor`,
    );
    writeFileSync(file, `\ufeffAnknytning;Namn;Standort;E-post;Voicemail;Abteilung\r\n${rows.join('\r\n')}\r\n`);
    await visit(page, '/people/import');
    await (await byLabel('Make teams that do not exist')).click();
    const input = (await page.$('#import-file')) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(file);
    await waitForText(page, 'CSV in UTF-8 with semicolons', '[data-testid=recognised]');
    await waitForText(page, /39\s*new/, '[data-testid=import-counts]');
    await waitForText(page, 'is no e-mail address', '[data-testid=wrong-row]');
    await fill(page, '[data-testid=wrong-row] input', 'ansatt8@lanternfold.example');
    await page.keyboard.press('Enter');
    await waitForText(page, /40\s*new/, '[data-testid=import-counts]');
    await press(page, 'Write 40 rows to the draft');
    await waitForText(page, '40 added', '[data-testid=import-done]');

    const site = (await plan()).sites!.find((s) => s.name === 'Oslo')!;
    await visit(page, `/numbers?site=${site.id}&use=free`);
    await page.waitForFunction(() => document.querySelectorAll('[data-row]').length > 5);
    for (const row of (await page.$$('[data-row] input[type=checkbox]')).slice(0, 5)) await row.click();
    await press(page, 'Assign 5…');
    await page.select('[aria-label="How to match"]', 'order');
    // Who gets which is shown as soon as it is known; until then nothing can be given.
    await page.waitForSelector('[aria-label="Assign numbers"][data-shows=order]');
    await press(page, 'Give these 5');
    await page.waitForFunction(() => !document.querySelector('[aria-label="Assign numbers"]'));
    const after = await plan();
    const people = after.extensions!.filter((e) => e.site === site.id);
    expect(people).toHaveLength(40);
    expect(after.numbers!.filter((n) => people.some((e) => e.id === n.belongsTo))).toHaveLength(5);
    expect(after.teams!.some((t) => t.name === 'Oslo kontor')).toBe(true);
  });

  it('and can be taken back whole, act by act', async () => {
    for (const left of ['40 people', 'no people', 'no site']) {
      const was = (await boss.get<{ draftVersion: number }>('/health')).body.draftVersion;
      await undo();
      for (let tries = 0; tries < 100; tries++) {
        if ((await boss.get<{ draftVersion: number }>('/health')).body.draftVersion > was) break;
        await new Promise((done) => setTimeout(done, 100));
      }
      expect(left).toBeTruthy();
    }
    expect(await plan()).toEqual(before);
  });
});

describe('a leaver', () => {
  it('hands number and mailbox to a colleague, and nothing of theirs is left', async () => {
    await visit(page, '/people/p-2118');
    await waitForText(page, '2118');
    await press(page, 'Leaves…');
    await waitForText(page, 'leaves', 'h1');
    const name = String(before.people!.find((p) => p.id === 'p-2118')!.name);
    const heir = String(before.people!.find((p) => p.id === 'p-2117')!.name);
    await page.type('#heir', heir);
    await page.keyboard.press('Tab');
    await page.waitForFunction(() =>
      [...document.querySelectorAll('[data-testid=leave-item] select')].some(
        (s) => (s as HTMLSelectElement).value === 'hand over',
      ),
    );
    await press(page, `Let ${name} leave`);
    await waitForText(page, 'People', 'h1');
    const after = await plan();
    expect(JSON.stringify(after)).not.toContain('"p-2118"');
    expect(after.extensions!.find((e) => e.id === 'e-2118')!.person).toBe('p-2117');
    expect(after.mailboxes!.find((m) => m.id === 'm-2118')!.owners).toEqual(['p-2117']);
    await undo();
    await waitForText(page, /Undone: |is undone/);
    expect(await plan()).toEqual(before);
  });
});

describe('a bulk edit', () => {
  it('by team: every change is listed first, made with progress, and one undo takes it back whole', async () => {
    await visit(page, '/people');
    await page.select('select[aria-label=Team]', 'team-engineering');
    const count = before.people!.filter((p) => (p.teams as string[]).includes('team-engineering')).length;
    await press(page, `Choose these ${count}`);
    await press(page, `Edit ${count}…`);
    await page.type('#bulk-extension-ringSeconds', '45');
    await page.select('#bulk-mailbox-announceTime', 'false');
    await page.type('#bulk-person-language', 'Norwegian Bo');
    await page.keyboard.press('Tab');
    await page.waitForFunction(
      () => (document.querySelector('#bulk-person-language') as HTMLInputElement).value === 'Norwegian Bokmål',
    );
    await press(page, 'List every change');
    await waitForText(page, /Language: (none|the site’s) → Norwegian Bokmål/, '[data-testid=change-lines]');
    // Taken back before it is made: the list is not that of what is set any more.
    await page.click('[aria-label="Choose nothing for Language"]');
    await page.waitForSelector('[data-testid=change-lines]', { hidden: true });
    await press(page, 'List every change');
    await waitForText(page, `${count * 2} objects change`, '[data-testid=change-lines]');
    await waitForText(page, /Rings for: 25 → 45/, '[data-testid=change-lines]');
    await press(page, `Make these ${count * 2} changes`);
    await waitForText(page, `${count * 2} changed, as one edit`);
    expect((await plan()).extensions!.filter((e) => e.ringSeconds === 45)).toHaveLength(count);
    await undo();
    await waitForText(page, /Undone: |is undone/);
    expect(await plan()).toEqual(before);
  });
});

describe('two administrators at once', () => {
  it('one changes a person whom the other lets leave: the list is made anew, nothing is lost', async () => {
    await visit(page, '/people/p-2119/leave');
    const person = before.people!.find((p) => p.id === 'p-2119')!;
    const stale = await boss.post('/edits', {
      edits: [{ kind: 'person', id: 'p-2119', rowVersion: 99_999, value: person }],
    });
    const { rowVersion } = stale.body.error as unknown as { rowVersion: number };
    const other = await boss.post('/edits', {
      edits: [{ kind: 'person', id: 'p-2119', rowVersion, value: { ...person, note: 'stays until May' } }],
    });
    expect(other.status).toBe(200);
    await press(page, `Let ${String(person.name)} leave`);
    await waitForText(page, 'The draft has changed since the list was made');
    expect((await plan()).people!.some((p) => p.id === 'p-2119')).toBe(true);
    await undo();
    await waitForText(page, /Undone: |is undone/);
    expect(await plan()).toEqual(before);
  });
});

describe('second factor and history on the screen', () => {
  it('the history shows who did what, and its undo takes an edit back', async () => {
    await visit(page, '/people/p-2120');
    await unfold(page, 'Language, spelling and note');
    await fill(page, '[data-field=spelling]', 'Spelt');
    await page.keyboard.press('Tab');
    await waitForText(page, 'edited, not live yet');
    await visit(page, '/history?object=p-2120');
    await waitForText(page, /Name in Latin letters: none → Spelt/, '[data-testid=history-entry]');
    await press(page, 'Undo');
    await waitForText(page, 'undone', '[data-testid=history-act]');
    expect(await plan()).toEqual(before);
  });
});
