import { mkdirSync } from 'node:fs';
import type { Page } from 'puppeteer-core';
import { ADMIN, openBrowser, press, signedIn, visit, waitForText } from './browser';

/* Takes a picture of each main view from the demo data. Arguments: folder, theme, and names to take only some. */

/** A person of the demo who has a page of her own. */
const ILSE = ['ilse.brandvik@lanternfold.example', 'harbour-thistle-58'] as const;

const VIEWS: Record<string, string | ((page: Page) => Promise<void>)> = {
  today: '/',
  people: async (page) => {
    await visit(page, '/people?team=team-bookings');
    await clickText(page, 'Choose these 18');
    await clickText(page, 'Edit 18…');
    await page.type('#bulk-extension-ringSeconds', '40');
    await clickText(page, 'List every change');
    await page.waitForSelector('[data-testid=change-lines]');
  },
  person: '/people/p-2105',
  hours: '/hours/bookings-hours',
  attendant: async (page) => {
    await visit(page, '/attendants/main-attendant');
    await page.click('[data-key="2"]');
    await page.waitForSelector('svg rect');
  },
  board: async (page) => {
    const ago = (seconds: number) => new Date(Date.now() - seconds * 1000).toISOString();
    await page.evaluate(
      (body: string) =>
        fetch('/api/v1/queues/bookings-queue/now', {
          method: 'PUT',
          headers: { 'content-type': 'application/json' },
          body,
        }),
      JSON.stringify({
        waiting: [{ since: ago(97) }, { since: ago(31) }],
        agents: [
          { extension: 'e-2106', state: 'speaking', since: ago(140) },
          { extension: 'e-2107', state: 'wrap-up', since: ago(9) },
          { extension: 'e-2108', state: 'speaking', since: ago(44) },
        ],
      }),
    );
    await visit(page, '/queues/board?queue=bookings-queue');
  },
  rehearsal: async (page) => {
    await visit(
      page,
      '/rehearsal?from=outside%3A%2B447700900999&dial=%2B441632960183&at=fri+17%3A10&did=k9%3A2+k14%3A1',
    );
    for (let i = 0; i < 4; i++) await clickText(page, 'Skip to what comes next');
  },
  outbound: async (page) => {
    await visit(page, '/outbound');
    await page.type('#try', '9 00 46 31 390 0610');
    await page.waitForSelector('[data-testid=rung][data-taken=true]');
  },
  trace: '/trace?from=outside%3A%2B46846500417&dial=01632+960100&at=fri+17%3A10',
  calls: '/calls',
  call: async (page) => {
    await visit(page, '/calls?number=01632+960100&state=answered');
    const rows = await page.$$('main [data-row]');
    for (const row of rows)
      if ((await row.evaluate((e) => (e as HTMLElement).innerText)).includes('Bookings desk')) {
        await (await row.$('a'))!.click();
        break;
      }
    await page.waitForSelector('[data-testid=timeline]');
  },
  atlas: async (page) => {
    await visit(page, '/atlas?phone=2104');
    await page.waitForSelector('[data-testid=regions]');
  },
  book: async (page) => {
    await visit(page, '/book?site=vastra-kajen');
    await page.waitForSelector('[data-testid=chapter]');
  },
  promises: async (page) => {
    await visit(page, '/promises');
    await waitForText(page, 'It reaches', 'main');
  },
  problems: async (page) => {
    await visit(page, '/problems');
    await waitForText(page, 'can never fit', '[data-testid=problems]');
  },
  impact: async (page) => {
    await visit(page, '/impact');
    await page.waitForSelector('[data-testid=groups]');
  },
  drills: async (page) => {
    await visit(page, '/drills');
    await page.waitForFunction(
      () => document.querySelector('[data-testid=groups]')?.textContent?.includes('not drilled') === false,
    );
  },
  'go-live': async (page) => {
    await visit(page, '/go-live');
    await waitForText(page, 'would end elsewhere', '[data-testid=real-calls]');
    await waitForText(page, 'Read the impact', '[data-testid=calls-that-change]');
  },
};

async function clickText(page: Page, text: string): Promise<void> {
  await press(page, text);
  await new Promise((done) => setTimeout(done, 200));
}

async function main(): Promise<void> {
  const [folder = 'docs/screenshots', theme = 'light', ...names] = process.argv.slice(2);
  const width = Number(process.env.POLYDROME_SHOT_WIDTH ?? 1280);
  mkdirSync(folder, { recursive: true });
  const browser = await openBrowser();
  try {
    const page = await signedIn(browser, ...ADMIN, theme as 'light' | 'dark', { width, height: 800 });
    for (const [name, view] of Object.entries(VIEWS)) {
      if (names.length > 0 && !names.includes(name)) continue;
      if (typeof view === 'string') await visit(page, view);
      else await view(page);
      await new Promise((done) => setTimeout(done, 300));
      await page.screenshot({ path: `${folder}/${name}.png` });
      console.log(name);
    }
    if (names.length > 0 && !names.includes('own')) return;
    const own = await signedIn(browser, ...ILSE, theme as 'light' | 'dark', { width, height: 800 });
    await visit(own, '/own');
    await own.screenshot({ path: `${folder}/own.png` });
  } finally {
    await browser.close();
  }
}

main().catch((e: unknown) => {
  console.error(e);
  process.exitCode = 1;
});
