import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { ADMIN, openBrowser, signedIn, visit, type Theme } from '../support/browser';

jest.setTimeout(180_000);
const AXE = readFileSync('node_modules/axe-core/axe.min.js', 'utf8');
const VIEWS = [
  '/',
  '/extensions',
  '/extensions/e-2104',
  '/extensions/new',
  '/people',
  '/people/p-2105',
  '/people/join',
  '/people/import',
  '/import/serviceCode',
  '/people/p-2105/leave',
  '/people/p-2105/move',
  '/people/p-2105/same-as?other=p-2104',
  '/teams',
  '/teams/team-bookings',
  '/numbers',
  '/numbers/add',
  '/numbers/n-441632960150',
  '/sites',
  '/sites/north-quay',
  '/sites/new',
  '/mailboxes',
  '/mailboxes/m-2105',
  '/hours',
  '/hours/bookings-hours',
  '/holidays/holidays-de',
  '/attendants',
  '/attendants/begin',
  '/attendants/main-attendant',
  '/prompts',
  '/prompts/greeting-vastra',
  '/rehearsal?from=outside:%2B447700900999&dial=%2B441632960183&did=k3:2',
  '/time-switches',
  '/time-switches/crew-duty',
  '/places',
  '/places/codes',
  '/places/conferences/harbour-masters',
  '/blocked?calling=withheld',
  '/history',
  '/administrators',
  '/inbound',
  '/inbound/in-main',
  '/inbound/in-vastra',
  '/outbound',
  '/outbound/rule/out-north-quay-5',
  '/trunks',
  '/trunks/new',
  '/trunks/kestrel',
  '/classes',
  '/classes/staff',
  '/trace',
  '/trace?from=2104&dial=90046313900610',
  '/go-live',
  '/revisions',
  '/revisions/2',
  '/settings',
  '/nothing/stands/here',
];

let browser: Browser;
beforeAll(async () => {
  browser = await openBrowser();
});
afterAll(() => browser.close());

interface Violation {
  id: string;
  nodes: { html: string; any: { message: string }[] }[];
}

/** What is against the rules; of the dark theme only colours are asked: all else is as in the light one. */
async function violations(page: Page, theme: Theme): Promise<string[]> {
  await page.evaluate(AXE);
  const rules = JSON.stringify(theme === 'dark' ? ['color-contrast'] : ['wcag2a', 'wcag2aa']);
  const found = (await page.evaluate(
    `axe.run(document, { runOnly: ${rules} }).then((r) => r.violations)`,
  )) as Violation[];
  return found.flatMap((v) =>
    v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 160)} ${n.any[0]?.message.slice(0, 160) ?? ''}`),
  );
}

/** Names that several buttons of the page have, and buttons without one: a screen reader can't tell those apart. */
const unnamed = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const names = [...document.querySelectorAll('main button')]
      .filter((e) => e.checkVisibility())
      .map((e) => (e.getAttribute('aria-label') ?? (e as HTMLElement).innerText).trim());
    return [...new Set(names.filter((n, i) => n === '' || names.indexOf(n) !== i))];
  });

/** What can be used on the page and is not reached by Tab alone; `MOST` tabs are enough for every page. */
async function unreached(page: Page): Promise<string[]> {
  const MOST = 1000;
  await page.evaluate(() => {
    document.body.tabIndex = -1;
    document.body.focus();
  });
  for (let i = 0; i < MOST; i++) {
    await page.keyboard.press('Tab');
    const over = await page.evaluate(() => {
      const e = document.activeElement!;
      const again = e.hasAttribute('data-reached');
      e.setAttribute('data-reached', '');
      return again || e === document.body;
    });
    if (over) break;
  }
  return page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('a[href], button, input, select, textarea')]
      .filter((e) => !e.hasAttribute('data-reached') && !e.hasAttribute('disabled') && e.tabIndex >= 0)
      .filter((e) => e.checkVisibility({ visibilityProperty: true }) && (e as HTMLInputElement).type !== 'radio')
      .map((e) => e.outerHTML.slice(0, 120)),
  );
}

describe('WCAG 2 A and AA in both themes', () => {
  let page: Page;
  beforeAll(async () => {
    page = await signedIn(browser, ...ADMIN);
  });
  /** The reader's system turns to another theme; the page follows. */
  const turn = async (theme: Theme) => {
    await page.emulateMediaFeatures([
      { name: 'prefers-color-scheme', value: theme },
      { name: 'prefers-reduced-motion', value: 'reduce' },
    ]);
    await page.waitForFunction((t: string) => document.documentElement.classList.contains(t), {}, theme);
    await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  };

  it.each(VIEWS)('%s', async (path) => {
    await visit(page, path);
    expect(await violations(page, 'light')).toEqual([]);
    await turn('dark');
    expect(await violations(page, 'dark')).toEqual([]);
    await turn('light');
    // Nothing moves sideways in a narrow window or on a phone.
    for (const width of [1024, 390]) {
      await page.setViewport({ width, height: 800 });
      await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
      const wide = await page.evaluate(() => document.documentElement.scrollWidth);
      expect(wide).toBeLessThanOrEqual(width);
    }
    await page.setViewport({ width: 1280, height: 800 });
    expect(await unnamed(page)).toEqual([]);
    expect(await unreached(page)).toEqual([]);
  });
});
