import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { Client, admin, objectIn } from '../support/api';
import { ADMIN, BASE, fill, openBrowser, signedIn, visit, waitForText } from '../support/browser';
import { killed, processOf } from '../support/processes';
import { until } from '../support/until';

/* The process that renders pages dies, and the one that answers the API: what is typed stays, and all goes on by itself. */

jest.setTimeout(120_000);
let browser: Browser;
let page: Page;
let boss: Client;

beforeAll(async () => {
  browser = await openBrowser();
  page = await signedIn(browser, ...ADMIN);
  boss = await admin();
});
afterAll(() => browser.close());

const pagesAnswer = () =>
  until(() =>
    fetch(`${BASE}/sign-in`).then(
      (r) => r.ok,
      () => false,
    ),
  );

describe('the process that renders pages is killed', () => {
  it('the API goes on, edits are kept, and the next page comes by itself', async () => {
    await visit(page, '/people/p-3013');
    killed('polydrome pages');
    const [health, asked] = await Promise.all([boss.get('/health'), boss.get('/ask?text=2101 > 2104')]);
    expect([health.status, asked.status]).toEqual([200, 200]);
    await fill(page, '[data-field=name]', 'Typed Without Pages');
    await page.keyboard.press('Tab');
    await waitForText(page, 'edited, not live yet');
    expect(await objectIn(boss, 'draft', 'people', 'p-3013')).toMatchObject({ name: 'Typed Without Pages' });
    await page.goto(`${BASE}/numbers`, { waitUntil: 'domcontentloaded' });
    await waitForText(page, '+44 1632 960101', 'body', 40_000);
    await boss.post('/edits/undo', { kind: 'person', id: 'p-3013' });
  });

  it('a page asked for meanwhile is refused plainly, not left hanging', async () => {
    killed('polydrome pages');
    const begun = Date.now();
    const got = await fetch(`${BASE}/people`, { headers: { accept: 'text/html' }, redirect: 'manual' });
    // It may have been started again already.
    expect([503, 307]).toContain(got.status);
    expect(Date.now() - begun).toBeLessThan(5000);
    await pagesAnswer();
  });
});

describe('the web process is killed', () => {
  it('what was typed meanwhile is kept and saved when it is back', async () => {
    await pagesAnswer();
    await visit(page, '/people/p-3014');
    const before = killed('.build/web.mjs');
    await fill(page, '[data-field=name]', 'Typed Without Web');
    await page.keyboard.press('Tab');
    const isBack = () =>
      boss.get('/health').then(
        (r) => r.status === 200,
        () => false,
      );
    await until(isBack);
    expect(processOf('.build/web.mjs')).not.toBe(before);
    expect(await page.$eval('[data-field=name]', (e) => (e as HTMLInputElement).value)).toBe('Typed Without Web');
    await page.focus('[data-field=name]');
    await page.keyboard.press('Tab');
    await waitForText(page, 'edited, not live yet');
    await until(async () => (await objectIn(boss, 'draft', 'people', 'p-3014'))?.name === 'Typed Without Web');
    await boss.post('/edits/undo', { kind: 'person', id: 'p-3014' });
  });
});
