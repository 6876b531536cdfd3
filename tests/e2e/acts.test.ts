import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { Client, admin, objectIn } from '../support/api';
import { ADMIN, openBrowser, press, signedIn, visit, waitForText } from '../support/browser';

/* Edits as acts: named, undone whole or in part with a word about what stays, a colleague's with their knowledge; and what stands before going live. */

jest.setTimeout(180_000);

let browser: Browser;
let page: Page;
let boss: Client;
let colleague: Client;
let theirs: Page;

const FIRST = 'berth-anchor-lantern-77';

beforeAll(async () => {
  browser = await openBrowser();
  boss = await admin();
  const made = await boss.post<{ id: string; password: string }>('/administrators', {
    signIn: 'second',
    name: 'Kim Second',
    role: 'administrator',
  });
  const fresh = await Client.signedIn(['second', made.body.password]);
  expect((await fresh.put('/account/password', { old: made.body.password, password: FIRST })).status).toBe(200);
  colleague = await Client.signedIn(['second', FIRST]);
  page = await signedIn(browser, ...ADMIN);
  theirs = await signedIn(browser, 'second', FIRST);
});
afterAll(() => browser.close());

const names = (on: Page) => on.$$eval('[data-testid=act] b', (es) => es.map((e) => (e as HTMLElement).innerText));

describe('acts', () => {
  it('moving somebody is one act with a name, however many objects it changes', async () => {
    // Other tests may have left the draft as live is: two of my own, so that there are several in any case.
    for (const id of ['p-2110', 'p-2111'])
      await boss.post('/edits', { edits: [{ kind: 'person', id, set: { note: 'counted' }, seen: {} }] });
    const before = (await boss.get<{ count: number }>('/edits')).body.count;
    expect(before).toBeGreaterThan(1);
    const moved = await colleague.post('/people/p-2118/move', { site: 'vastra-kajen', digits: { 'e-2118': '3090' } });
    expect(moved.status).toBe(200);
    await visit(page, '/go-live');
    expect(await names(page)).toContainEqual(expect.stringMatching(/^moved .+ to Västra Kajen$/));
    // The same count of the same thing everywhere.
    await waitForText(page, `${before + 1} edits (`, '[data-testid=ribbon]');
    await waitForText(page, `${before + 1} edits, `, 'main');
    await waitForText(page, `Go live with ${before + 1} edits`);
  });

  it('undoing a part says what would be left half, and offers the whole', async () => {
    await page.click('[aria-label^="Undo only 3090"]');
    await waitForText(page, /leaves the other .* as edited: half of it stays/, '[role=alertdialog]');
    await press(page, 'Leave it as it is');
    await page.waitForFunction(() => !document.querySelector('[role=alertdialog]'));
    expect((await objectIn(boss, 'draft', 'extensions', 'e-2118'))?.digits).toBe('3090');
    // A dialog that just closed may take a moment until the page takes clicks again.
    for (let tries = 0; tries < 5; tries++) {
      await page.click('[aria-label^="Undo only 3090"]');
      const shown = await page.waitForSelector('[role=alertdialog]', { timeout: 3000 }).catch(() => null);
      if (shown) break;
    }
    await press(page, 'Undo all of it');
    // It is a colleague's: that is asked before, and told after.
    await waitForText(page, 'Kim Second did this', '[role=alertdialog]');
    await press(page, 'Undo it and tell them');
    await page.waitForFunction(
      () =>
        ![...document.querySelectorAll('[data-testid=act] b')].some((e) => /^moved/.test((e as HTMLElement).innerText)),
    );
    expect((await objectIn(boss, 'draft', 'extensions', 'e-2118'))?.digits).toBe('2118');
    expect((await objectIn(boss, 'draft', 'people', 'p-2118'))?.site).toBe('north-quay');
    await visit(theirs, '/');
    await waitForText(theirs, /undid your edit: moved .+ to Västra Kajen\./);
    await press(theirs, 'Close');
    await visit(theirs, '/');
    await new Promise((done) => setTimeout(done, 500));
    expect(await theirs.evaluate(() => document.body.innerText)).not.toContain('undid your edit');
  });

  it('what others changed beside it stays when an act is undone', async () => {
    const set = (who: Client, fields: object) =>
      who.post<{ batch: string }>('/edits', { edits: [{ kind: 'person', id: 'p-2117', set: fields, seen: {} }] });
    const mine = await set(boss, { note: 'mine' });
    await set(colleague, { spelling: 'theirs' });
    expect((await boss.post(`/history/${mine.body.batch}/undo`)).status).toBe(200);
    expect(await objectIn(boss, 'draft', 'people', 'p-2117')).toMatchObject({ note: '', spelling: 'theirs' });
    await colleague.post('/edits/undo');
  });
});

describe('before it is live', () => {
  it('an emergency call that would not get out is let through by nobody', async () => {
    await boss.post('/edits', {
      edits: [{ kind: 'site', id: 'vastra-kajen', set: { emergencyTrunks: [] }, seen: {} }],
    });
    await visit(page, '/go-live');
    await waitForText(page, 'Emergency calls of Västra Kajen have no trunk.', '[data-testid=gate]');
    await waitForText(page, 'Nobody can let that through');
    expect(await page.$('[data-testid=go-live]')).toBeNull();
    // The same by the API, whatever reason is given.
    const { draftVersion } = (await boss.get<{ draftVersion: number }>('/health')).body;
    const refused = await boss.post('/live', { draftVersion, override: 'because' });
    expect([refused.status, refused.body.error?.code]).toEqual([422, 'emergency-not-out']);
    await page.click('[data-testid=gate] a');
    await waitForText(page, 'Västra Kajen', 'h1');
    await waitForText(page, 'does not get out', '[data-testid=picture]');
    await boss.post('/edits/undo');
  });

  it('another error is let through with a reason, and that is kept', async () => {
    // It dials what no rule takes: an error, and not about emergency calls.
    const made = await boss.post('/edits', {
      edits: [
        {
          kind: 'outsideNumber',
          id: 'lost',
          rowVersion: null,
          value: { id: 'lost', name: 'Lost', site: 'north-quay', dial: '12345', class: 'staff' },
        },
      ],
    });
    expect(made.status).toBe(200);
    const { draftVersion } = (await boss.get<{ draftVersion: number }>('/health')).body;
    const refused = await boss.post('/live', { draftVersion });
    expect([refused.status, refused.body.error?.code]).toEqual([422, 'outside-nowhere']);
    await visit(page, '/go-live');
    await page.waitForSelector('[data-testid=gate]');
    expect(await page.$eval('[data-testid=go-live]', (e) => (e as HTMLButtonElement).disabled)).toBe(true);
    await page.type('#live-reason', 'tried tonight, mended tomorrow');
    await page.click('[data-testid=go-live]');
    await page.waitForSelector('[data-testid=went-live]');
    await visit(page, '/revisions');
    await waitForText(page, 'tried tonight, mended tomorrow');
  });

  it('what an edit would bring is said at its field while it is typed', async () => {
    await visit(page, '/extensions/e-2118');
    await page.click('[data-field=digits]', { count: 3 });
    await page.type('[data-field=digits]', '112');
    await waitForText(page, /is an emergency number/, '[data-testid=foreseen]');
    await page.click('[data-field=digits]', { count: 3 });
    await page.type('[data-field=digits]', '21010');
    await waitForText(page, /wait/, '[data-testid=foreseen]');
    await page.click('[data-field=digits]', { count: 3 });
    await page.type('[data-field=digits]', '2118');
    expect((await objectIn(boss, 'draft', 'extensions', 'e-2118'))?.digits).toBe('2118');
  });
});
