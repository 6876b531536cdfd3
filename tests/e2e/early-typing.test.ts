import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { Client, admin, objectIn } from '../support/api';
import { ADMIN, BASE, newPage, openBrowser, signedIn, waitForText } from '../support/browser';

/* A page is seen before its code has come: what is typed, ticked and sent until then is neither lost nor put in an address. */

jest.setTimeout(120_000);

let browser: Browser;
let boss: Client;
beforeAll(async () => {
  browser = await openBrowser();
  boss = await admin();
});
afterAll(async () => {
  await boss.post('/edits/undo', { kind: 'person', id: 'p-3018' });
  await browser.close();
});

/** Holds the code of pages back until it is let go; tells every address that was asked for. */
async function holding(page: Page): Promise<{ hold: () => void; letGo: () => void; asked: string[] }> {
  const asked: string[] = [];
  let held: (() => void)[] | null = null;
  await page.setCacheEnabled(false);
  await page.setRequestInterception(true);
  page.on('request', (r) => {
    asked.push(r.url());
    const go = () => void r.continue().catch(() => {});
    if (held && new URL(r.url()).pathname.endsWith('.js')) held.push(go);
    else go();
  });
  return {
    asked,
    hold: () => (held = []),
    letGo: () => {
      for (const go of held ?? []) go();
      held = null;
    },
  };
}

/** Opens a path without waiting for its code; what stood there before may have the same fields. */
async function see(page: Page, path: string, selector: string): Promise<void> {
  await page.evaluate(() => (document.documentElement.dataset.old = ''));
  void page.goto(BASE + path).catch(() => {});
  await page.waitForSelector(`html:not([data-old]) ${selector}`);
  await new Promise((done) => setTimeout(done, 300));
}

const works = (page: Page, selector: string) =>
  page.$eval(selector, (e) => Object.keys(e).some((k) => k.startsWith('__reactProps$')));

describe('before the code of a page has come', () => {
  it('name and password are typed and sent: the account is signed in, and no address has the password', async () => {
    const context = await browser.createBrowserContext();
    const page = await newPage(context);
    const { hold, letGo, asked } = await holding(page);
    hold();
    await see(page, '/sign-in', '#password');
    await page.type('#name', ADMIN[0]);
    await page.type('#password', ADMIN[1]);
    await page.keyboard.press('Enter');
    await new Promise((done) => setTimeout(done, 300));
    expect(await works(page, '#password')).toBe(false);
    letGo();
    await page.waitForFunction(() => location.pathname === '/');
    await waitForText(page, 'Today', 'h1');
    expect(asked.filter((url) => url.includes(ADMIN[1]) || url.includes('?name='))).toEqual([]);
    await context.close();
  });

  it('a field that is left then is in the draft, one that is being typed stays, a list chooses what it means', async () => {
    const page = await signedIn(browser, ...ADMIN);
    const { hold, letGo } = await holding(page);
    hold();
    await see(page, '/people/p-3018', '[data-field=email]');
    expect(await works(page, '[data-field=email]')).toBe(false);
    await page.click('[data-field=email]', { count: 3 });
    await page.keyboard.type('early@lanternfold.example');
    await page.click('[data-field=name]', { count: 3 });
    await page.keyboard.type('Early Bi');
    letGo();
    await page.waitForFunction(() =>
      Object.keys(document.querySelector('[data-field=name]')!).some((k) => k.startsWith('__reactProps$')),
    );
    await new Promise((done) => setTimeout(done, 500));
    await page.keyboard.type('rd');
    expect(await page.$eval('[data-field=name]', (e) => (e as HTMLInputElement).value)).toBe('Early Bird');
    await page.keyboard.press('Tab');
    await page.waitForFunction(
      () => document.querySelector('[data-testid=on-its-way]')?.getAttribute('data-waiting') === '0',
    );
    const now = await objectIn(boss, 'draft', 'people', 'p-3018');
    expect(now).toMatchObject({ name: 'Early Bird', email: 'early@lanternfold.example' });

    hold();
    await see(page, '/sites/new', '#site-country');
    await page.click('#site-country', { count: 3 });
    await page.keyboard.type('Sweden');
    await page.click('#site-name');
    await page.keyboard.type('Early Pier');
    expect(await works(page, '#site-country')).toBe(false);
    letGo();
    // The zone comes proposed from the country that was chosen.
    await page.waitForFunction(
      () => (document.querySelector('#site-zone') as HTMLInputElement).value === 'Stockholm (Europe)',
    );
    const stands = await page.$$eval('#site-name, #site-country', (es) => es.map((e) => (e as HTMLInputElement).value));
    expect(stands).toEqual(['Early Pier', 'Sweden']);
    await page.close();
  });

  it('typed on and on while the page takes its fields over: every character is there, in its place', async () => {
    const page = await signedIn(browser, ...ADMIN);
    const { hold, letGo } = await holding(page);
    for (const pause of [3, 11, 29]) {
      hold();
      await see(page, '/people/p-3018', '[data-field=email]');
      await page.click('[data-field=name]', { count: 3 });
      const text = `Bird abcdefghijklmnopqrstuvwxyz of quay ${pause}`;
      for (const [i, letter] of [...text].entries()) {
        if (i === 9) letGo();
        await page.keyboard.type(letter);
        await new Promise((done) => setTimeout(done, pause));
      }
      await page.waitForFunction(() =>
        Object.keys(document.querySelector('[data-field=name]')!).some((k) => k.startsWith('__reactProps$')),
      );
      await new Promise((done) => setTimeout(done, 300));
      expect(await page.$eval('[data-field=name]', (e) => (e as HTMLInputElement).value)).toBe(text);
      await page.keyboard.press('Tab');
      await page.waitForFunction(
        () => document.querySelector('[data-testid=on-its-way]')?.getAttribute('data-waiting') === '0',
      );
      expect(await objectIn(boss, 'draft', 'people', 'p-3018')).toMatchObject({ name: text });
    }
    await page.close();
  });

  it('a tick is a tick', async () => {
    const page = await signedIn(browser, ...ADMIN);
    const { hold, letGo } = await holding(page);
    hold();
    await see(page, '/extensions/new', 'input[name=mailbox]');
    await page.click('input[name=mailbox]');
    expect(await works(page, 'input[name=mailbox]')).toBe(false);
    letGo();
    // Without a mailbox there is no PIN to be typed.
    await page.waitForFunction(() => document.querySelector('#new-pin') === null);
    expect(await page.$eval('input[name=mailbox]', (e) => (e as HTMLInputElement).checked)).toBe(false);
    await page.close();
  });
});
