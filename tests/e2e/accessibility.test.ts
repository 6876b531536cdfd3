import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { admin } from '../support/api';
import { ADMIN, openBrowser, signedIn, visit, type Theme } from '../support/browser';

jest.setTimeout(180_000);
const AXE = readFileSync('node_modules/axe-core/axe.min.js', 'utf8');
const ILSE = ['ilse.brandvik@lanternfold.example', 'harbour-thistle-58'] as const;
/** Whichever call was the last. */
const ONE_CALL = '/calls/(the last)';
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
  '/atlas?phone=2104&under=9',
  '/rehearsal?from=outside:%2B447700900999&dial=%2B441632960183&did=k3:2',
  '/time-switches',
  '/time-switches/crew-duty',
  '/ring-groups',
  '/ring-groups/bookings-desk',
  '/reach-plans',
  '/reach-plans/reach-engineer',
  '/queues',
  '/queues/bookings-queue',
  '/queues/bookings-queue/staffing',
  '/queues/board?queue=bookings-queue',
  '/call/bookings',
  '/call/ilse-brandvik',
  '/places',
  '/places/codes',
  '/places/conferences/harbour-masters',
  '/blocked?calling=withheld',
  '/history',
  '/calls',
  ONE_CALL,
  '/calls/missed',
  '/calls/charts',
  '/calls/traffic?trunk=kestrel',
  '/calls/replay',
  '/calls/import',
  '/calls/erase',
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
  '/promises',
  '/promises/emergency-own-site',
  '/trace?from=2105&dial=2106&beside=live',
  '/atlas?phone=2104&withPhone=2105',
  '/book?site=vastra-kajen',
  '/impact',
  '/drills',
  '/problems',
  '/problems?muted=true',
  '/reach',
  '/reach?to=e-2104',
  '/plan-text',
  '/go-live',
  '/revisions',
  '/revisions/2',
  '/settings',
  '/nothing/stands/here',
];

/** One page of each make is looked at in the dark too and walked through by Tab alone: the others are made of the same parts. */
const WALKED = new Set(
  process.env.POLYDROME_SOAK
    ? [...VIEWS, '/own']
    : [
        '/',
        '/extensions',
        '/extensions/e-2104',
        '/people/p-2105/leave',
        '/hours/bookings-hours',
        '/attendants/main-attendant',
        '/queues/bookings-queue/staffing',
        '/call/bookings',
        '/calls/charts',
        '/calls/import',
        '/outbound',
        '/trunks/kestrel',
        '/trace?from=2104&dial=90046313900610',
        '/settings',
        '/own',
      ],
);

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
    `axe.run(document, { runOnly: ${rules}, resultTypes: ['violations'] }).then((r) => r.violations)`,
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
  // So few that a long list, drawn in part, comes after the hand.
  const AT_ONCE = 4;
  await page.evaluate(() => {
    document.body.tabIndex = -1;
    document.body.focus();
    document.addEventListener('keyup', () => {
      const e = document.activeElement!;
      if (e.hasAttribute('data-reached') || e === document.body) document.body.setAttribute('data-round', '');
      e.setAttribute('data-reached', '');
    });
  });
  const keys = await page.createCDPSession();
  const tab = { key: 'Tab', code: 'Tab', windowsVirtualKeyCode: 9 };
  for (let i = 0; i < MOST; i += AT_ONCE) {
    // They come in their order; once round begins anew, which is looked for now and then.
    await Promise.all(
      Array.from({ length: AT_ONCE }, () => [
        keys.send('Input.dispatchKeyEvent', { type: 'rawKeyDown', ...tab }),
        keys.send('Input.dispatchKeyEvent', { type: 'keyUp', ...tab }),
      ]).flat(),
    );
    const round = await page.evaluate(async (most) => {
      const frame = () =>
        new Promise<void>((done) => {
          requestAnimationFrame(() => setTimeout(done));
        });
      // A list that is drawn in part draws on before its last row is left, however busy the machine is.
      const isLeft = () => {
        const row = document.activeElement?.closest('[aria-rowindex]');
        const list = row?.closest('[aria-rowcount]');
        if (!row || !list) return false;
        const at = (e: Element) => Number(e.getAttribute('aria-rowindex'));
        const last = Math.max(...[...list.querySelectorAll('[aria-rowindex]')].map(at));
        return last < Number(list.getAttribute('aria-rowcount')) && at(row) + most >= last;
      };
      await frame();
      for (let n = 0; n < 300 && isLeft(); n++) await frame();
      return document.body.hasAttribute('data-round');
    }, AT_ONCE);
    if (round) break;
  }
  await keys.detach();
  return page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('a[href], button, input, select, textarea')]
      .filter((e) => !e.hasAttribute('data-reached') && !e.hasAttribute('disabled') && e.tabIndex >= 0)
      .filter((e) => e.checkVisibility({ visibilityProperty: true }) && (e as HTMLInputElement).type !== 'radio')
      .map((e) => e.outerHTML.slice(0, 120)),
  );
}

async function lastCall(): Promise<string> {
  const { body } = await (await admin()).get<{ calls: { key: string }[] }>('/calls');
  return `/calls/${body.calls[0]!.key}`;
}

describe.each([
  ['as an administrator', ADMIN, VIEWS],
  ['as a person', ILSE, ['/own']],
] as [string, readonly [string, string], string[]][])('WCAG 2 A and AA in both themes, %s', (_who, account, views) => {
  let page: Page;
  beforeAll(async () => {
    page = await signedIn(browser, ...account);
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

  it.each(views)('%s', async (path) => {
    await visit(page, path === ONE_CALL ? await lastCall() : path);
    expect(await violations(page, 'light')).toEqual([]);
    if (WALKED.has(path)) {
      await turn('dark');
      expect(await violations(page, 'dark')).toEqual([]);
      await turn('light');
    }
    // Nothing moves sideways in a narrow window or on a phone, and the consequences are folded there.
    for (const width of [1024, 390]) {
      await page.setViewport({ width, height: 800 });
      await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
      const sideways = await page.evaluate(() =>
        [document.documentElement, document.querySelector('main')!]
          .filter((e) => e.scrollWidth > e.clientWidth)
          .map((e) => `${e.tagName} ${e.scrollWidth} > ${e.clientWidth}`),
      );
      const beside = await page.evaluate(() =>
        [...document.querySelectorAll('aside')].some((e) => e.checkVisibility()),
      );
      expect({ width, sideways, beside }).toEqual({ width, sideways: [], beside: false });
    }
    await page.setViewport({ width: 1280, height: 800 });
    expect(await unnamed(page)).toEqual([]);
    if (WALKED.has(path)) expect(await unreached(page)).toEqual([]);
  });
});

describe('the consequences in a window that has no room for them', () => {
  it.each([1060, 390])('open over the page and fold again by the same button, %i pixels wide', async (width) => {
    const page = await signedIn(browser, ...ADMIN);
    await page.setViewport({ width, height: 800 });
    await visit(page, '/numbers/n-441632960150');
    const isShown = () => page.$eval('aside', (e) => e.checkVisibility());
    expect(await isShown()).toBe(false);
    for (const shown of [true, false]) {
      await page.click('[aria-label="Show or hide consequences"]');
      await page.waitForFunction((s: boolean) => document.querySelector('aside')!.checkVisibility() === s, {}, shown);
    }
    await page.close();
  });
});
