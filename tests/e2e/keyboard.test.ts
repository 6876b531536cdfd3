import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { ADMIN, openBrowser, signedIn, visit, waitForText } from '../support/browser';

jest.setTimeout(120_000);
let browser: Browser;
let page: Page;
beforeAll(async () => {
  browser = await openBrowser();
  page = await signedIn(browser, ...ADMIN);
});
afterAll(() => browser.close());

const keys = async (...list: string[]) => {
  for (const k of list) await page.keyboard.press(k as 'a');
};
const at = (path: string) => page.waitForFunction((p: string) => location.pathname + location.search === p, {}, path);

interface Row {
  id: string;
  /** its digits, as the pane's heading begins */
  label: string;
}

/** The first rows as the ledger shows them: other tests add and rename extensions. */
const rows = () =>
  page.$$eval('[data-row]', (rs) =>
    rs.slice(0, 3).map((r): Row => ({
      id: r.getAttribute('data-row')!,
      label: (r as HTMLElement).innerText.trim().split(/\s/)[0]!,
    })),
  );

/** Presses j or k and waits until the row is the current one. */
const moveTo = async (key: 'j' | 'k', row: Row) => {
  await keys(key);
  await page.waitForSelector(`[data-row="${row.id}"][aria-current=true]`);
};

describe('a ledger by keyboard', () => {
  it('j and k move, x selects, Enter opens, and the pane follows', async () => {
    await visit(page, '/extensions');
    const [first, second, third] = await rows();
    await moveTo('j', first!);
    await moveTo('j', second!);
    await moveTo('j', third!);
    await moveTo('k', second!);
    await waitForText(page, second!.label, 'aside');
    await keys('x');
    await waitForText(page, 'Copy 1 as CSV', 'button');
    await moveTo('j', third!);
    await keys('x');
    await waitForText(page, 'Copy 2 as CSV', 'button');
    await keys('Enter');
    await at(`/extensions/${third!.id}`);
  });

  it('n adds, d adds another like the row', async () => {
    await visit(page, '/extensions');
    const [first] = await rows();
    await moveTo('j', first!);
    await keys('d');
    await at(`/extensions/new?like=${first!.id}`);
    await waitForText(page, 'Add extension', 'h1');
    await visit(page, '/extensions');
    await keys('n');
    await at('/extensions/new');
  });

  it('a column sorts up, down and not at all; columns are chosen; all of it stands in the address', async () => {
    await visit(page, '/extensions');
    const first = (digits: string) =>
      page.waitForFunction(
        (d: string) => (document.querySelector('[data-row]') as HTMLElement).innerText.startsWith(d),
        {},
        digits,
      );
    const sort = () =>
      page.$$eval('[role=columnheader]', (hs) =>
        (hs.find((h) => (h as HTMLElement).innerText.startsWith('Digits')) as HTMLElement).click(),
      );
    await sort();
    await page.waitForFunction(() => location.search.includes('sort=digits'));
    await first('2000');
    await sort();
    await page.waitForFunction(() => location.search.includes('sort=-digits'));
    await first('5017');
    await sort();
    await page.waitForFunction(() => !location.search.includes('sort'));
    await page.$$eval('main button', (bs) =>
      (bs.find((b) => (b as HTMLElement).innerText.trim() === 'Columns') as HTMLElement).click(),
    );
    await waitForText(page, 'Rings', '[aria-label=Columns] label');
    await page.$$eval('[aria-label=Columns] label', (ls) =>
      (ls.find((l) => (l as HTMLElement).innerText.trim() === 'Rings') as HTMLElement).click(),
    );
    await page.waitForFunction(() => location.search.includes('rings'));
    // By an arrow the second column becomes the first, which stays in sight when the rest is moved sideways.
    await page.click('[aria-label="Move Name up"]');
    await page.waitForFunction(() => /columns=name(%2C|,)digits/.test(location.search));
    await page.keyboard.press('Escape');
    await page.reload({ waitUntil: 'networkidle0' });
    expect(await page.$$eval('[role=columnheader]', (hs) => hs.map((h) => (h as HTMLElement).innerText))).toContain(
      'Rings',
    );
    expect(
      await page.$$eval('[role=columnheader]', (hs) => hs.slice(0, 3).map((h) => (h as HTMLElement).innerText)),
    ).toEqual(['', 'Name', 'Digits']);
    await page.setViewport({ width: 390, height: 800 });
    const left = () =>
      page.$eval('[data-row] [role=cell]:nth-child(2)', (e) => Math.round(e.getBoundingClientRect().left));
    const before = await left();
    await page.$eval('[data-testid=ledger-scroller]', (e) => (e.scrollLeft = 200));
    await page.waitForFunction(() => document.querySelector('[data-testid=ledger-scroller]')!.scrollLeft === 200);
    // But for the line at the head of the row.
    expect(Math.abs((await left()) - before)).toBeLessThanOrEqual(3);
    await page.setViewport({ width: 1280, height: 800 });
  });

  it('copies what is shown as CSV, quoted where it must be (RFC 4180)', async () => {
    await visit(page, '/trunks?filter=harbour');
    // Headless Chromium keeps no clipboard; what would be put there is caught instead.
    await page.evaluate(() => {
      const at = window as unknown as { copied: string };
      navigator.clipboard.writeText = (text) => Promise.resolve(void (at.copied = text));
    });
    await page.$$eval('main button', (bs) =>
      (bs.find((b) => (b as HTMLElement).innerText === 'Copy as CSV') as HTMLElement).click(),
    );
    const text = await page.evaluate(() => (window as unknown as { copied: string }).copied);
    expect(text).toBe(
      'Name,Kind,Site,Channels,Numbers,Delivers,Wants\r\nHarbour link,SIP peer,North Quay,8,0,"4 digits, private",private\r\n',
    );
  });

  it('a long list is drawn in part and scrolls without gaps', async () => {
    await visit(page, '/numbers');
    const drawn = () => page.$$eval('[data-row]', (rs) => rs.length);
    expect(await drawn()).toBeLessThan(60);
    for (let i = 0; i < 140; i++) await keys('j');
    await page.waitForFunction(() => Number(document.querySelector('[data-row]')!.getAttribute('aria-rowindex')) > 90);
    const indexes = await page.$$eval('[data-row]', (rs) =>
      rs.map((r) => Number(r.getAttribute('aria-rowindex'))).sort((a, b) => a - b),
    );
    expect(indexes.every((n, i) => i === 0 || n === indexes[i - 1]! + 1)).toBe(true);
  });
});

describe('everywhere', () => {
  it('keys pressed in a field are typed, not obeyed', async () => {
    await visit(page, '/extensions');
    await page.focus('[aria-label="Filter Extensions"]');
    await keys('n', 'j', 'g', 'l');
    expect(await page.$eval('[aria-label="Filter Extensions"]', (e) => (e as HTMLInputElement).value)).toBe('njgl');
    expect(page.url()).toContain('/extensions');
    await waitForText(page, 'Nothing here has “njgl”.');
  });

  it('the focus is always visible', async () => {
    await visit(page, '/extensions/e-2101');
    for (let i = 0; i < 30; i++) {
      await keys('Tab');
      const outline = await page.evaluate(() => {
        const e = document.activeElement as HTMLElement;
        const own = getComputedStyle(e);
        const around = e.parentElement ? getComputedStyle(e.parentElement) : own;
        return (
          e === document.body || [own, around].some((s) => s.outlineStyle !== 'none' && parseFloat(s.outlineWidth) >= 2)
        );
      });
      expect([i, outline]).toEqual([i, true]);
    }
  });

  it('at 390 wide the menu opens the places', async () => {
    await page.setViewport({ width: 390, height: 800 });
    await visit(page, '/');
    await page.click('[aria-label=Menu]');
    await page.waitForSelector('nav[aria-label=Places]', { visible: true });
    await page.$$eval('nav button', (bs) =>
      (bs.find((b) => /who/i.test((b as HTMLElement).innerText)) as HTMLElement).click(),
    );
    await page.$$eval('nav a', (as) =>
      (as.find((a) => (a as HTMLElement).innerText.startsWith('People')) as HTMLElement).click(),
    );
    await at('/people');
    await page.waitForFunction(
      () =>
        !document.querySelector('nav[aria-label=Places]') ||
        getComputedStyle(document.querySelector('nav[aria-label=Places]')!).display === 'none',
    );
    await page.setViewport({ width: 1280, height: 800 });
  });
});
