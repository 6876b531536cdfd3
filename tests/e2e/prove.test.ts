import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { admin, objectIn, type Client } from '../support/api';
import { ADMIN, openBrowser, press, signedIn, visit, waitForText } from '../support/browser';

/* What is promised, what an edit moves, what breaks: found, understood and mended by hand. */

jest.setTimeout(180_000);

let browser: Browser;
let page: Page;
let boss: Client;

beforeAll(async () => {
  browser = await openBrowser();
  boss = await admin();
  page = await signedIn(browser, ...ADMIN);
});
afterAll(() => browser.close());

const inMain = '[data-testid=verdict]';

describe('a promise', () => {
  it('is made, found broken with a call that opens as a trace, stands against going live, is mended', async () => {
    await visit(page, '/promises');
    await press(page, 'Add promise');
    await page.waitForSelector('#add-name');
    await page.type('#add-name', 'Staff never call mobiles');
    await press(page, 'Add promise');
    await page.waitForSelector(inMain);
    const id = new URL(page.url()).pathname.split('/').at(-1)!;
    await page.select('[aria-label="Add a kind of call"]', 'mobile');
    await waitForText(page, 'Each mobile call from any phone never reaches the outside.', '[data-testid=sentence]');
    await waitForText(page, /Broken in the draft\. It reaches .* \(the outside\)\./, inMain);
    await page.evaluate(() => {
      const box = document.querySelector<HTMLInputElement>('[data-field=firm]')!;
      box.click();
    });
    await page.waitForFunction(() => document.querySelector<HTMLInputElement>('[data-field=firm]')?.checked);
    // The call that breaks it, as a trace.
    const call = await page.$eval(`${inMain} a`, (a) => (a as HTMLAnchorElement).getAttribute('href')!);
    await visit(page, call);
    await page.waitForSelector('[data-testid=steps]');
    await waitForText(page, /carries the call/, '[data-testid=steps]');
    await visit(page, '/go-live');
    await waitForText(page, 'The firm promise “Staff never call mobiles” would be broken.', '[data-testid=gate]');
    await waitForText(page, 'Staff never call mobiles', '[data-testid=calls-that-change] ~ div');
    await page.click('[data-testid=gate] a[aria-label*="Staff never call mobiles"]');
    await page.waitForSelector(inMain);
    await page.click('[aria-label="Take mobile out"]');
    await page.select('[aria-label="Add a kind of call"]', 'satellite');
    await waitForText(page, /Holds in the draft: [0-9]+ ways? of calls|Broken/, inMain);
    expect(await objectIn(boss, 'draft', 'promises', id)).toMatchObject({ firm: true, dialKinds: ['satellite'] });
    await boss.post('/edits/undo', { kind: 'promise', id });
  });

  it('that is ready made is added by one press', async () => {
    await visit(page, '/promises');
    await page.click('[aria-label="Add “Premium numbers are called by nobody”"]');
    await page.waitForFunction(
      () => !document.querySelector('[aria-label="Add “Premium numbers are called by nobody”"]'),
    );
    await waitForText(page, 'Premium numbers are called by nobody', '[role=grid], [role=table], main');
    await boss.post('/edits/undo');
  });
});

describe('impact', () => {
  it('names the calls that an edit moves and opens one as a trace', async () => {
    await boss.post('/edits', { edits: [{ kind: 'extension', id: 'e-2112', set: { ringSeconds: 57 }, seen: {} }] });
    await visit(page, '/impact');
    await waitForText(page, 'extension 2112', '[data-testid=groups]');
    await page.click('::-p-xpath(//*[@data-testid="groups"]//tr[contains(., "extension 2112")]//a)');
    await page.waitForSelector('[data-testid=steps]');
    await boss.post('/edits/undo', { kind: 'extension', id: 'e-2112' });
    await visit(page, '/impact?from=draft&to=draft');
    await waitForText(page, 'There is no difference between the draft plan and the draft plan.');
  });
});

describe('a drill', () => {
  it('finds the site whose emergency list has one trunk, and the calls that change', async () => {
    await visit(page, '/drills');
    await waitForText(page, 'no 112 or 110 from Freight Hamburg', '[data-testid=groups]');
    await page.waitForFunction(
      () => !document.querySelector('[data-testid=groups]')!.textContent.includes('not drilled'),
    );
    await page.click('[aria-label="Calls that change without Elbkontor"]');
    await page.waitForSelector('[data-testid=groups] [data-testid=groups] a');
  });
});

describe('a trace', () => {
  it('goes on with what is assumed of where it came to, kept in the address', async () => {
    await visit(page, '/trace?from=2105&dial=2106');
    await waitForText(page, 'busy', '[data-testid=situation]');
    await page.click('::-p-xpath(//*[@data-testid="situation"]//a[.="busy"])');
    await page.waitForSelector('[aria-label^="No longer assume that 2106"]');
    expect(JSON.parse(new URL(page.url()).searchParams.get('with')!)).toEqual({ busy: ['e-2106'] });
    await waitForText(page, 'is on another call', '[data-testid=steps]');
    await page.click('[aria-label^="No longer assume that 2106"]');
    await page.waitForFunction(() => !document.querySelector('[aria-label^="No longer assume"]'));
  });
});
