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
  '/people/p-2105/leave',
  '/people/p-2105/same-as?other=p-2104',
  '/teams/team-bookings',
  '/numbers',
  '/numbers/add',
  '/sites/new',
  '/history',
  '/administrators',
  '/inbound',
  '/outbound',
  '/trunks/kestrel',
  '/classes',
  '/classes/staff',
  '/trace?from=2104&dial=90046313900610',
  '/go-live',
  '/revisions/2',
  '/settings',
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

async function violations(page: Page): Promise<string[]> {
  await page.evaluate(AXE);
  const found = (await page.evaluate(
    'axe.run(document, { runOnly: ["wcag2a", "wcag2aa"] }).then((r) => r.violations)',
  )) as Violation[];
  return found.flatMap((v) =>
    v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 160)} ${n.any[0]?.message.slice(0, 160) ?? ''}`),
  );
}

describe.each<Theme>(['light', 'dark'])('WCAG 2 A and AA in the %s theme', (theme) => {
  let page: Page;
  beforeAll(async () => {
    page = await signedIn(browser, ...ADMIN, theme);
  });

  it.each(VIEWS)('%s', async (path) => {
    await visit(page, path);
    expect(await violations(page)).toEqual([]);
    // Nothing moves sideways in a narrow window or on a phone.
    for (const width of [1024, 390]) {
      await page.setViewport({ width, height: 800 });
      await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
      const wide = await page.evaluate(() => document.documentElement.scrollWidth);
      expect(wide).toBeLessThanOrEqual(width);
    }
    await page.setViewport({ width: 1280, height: 800 });
  });
});
