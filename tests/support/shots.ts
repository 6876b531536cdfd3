import { mkdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle, Page } from 'puppeteer-core';
import { ADMIN, openBrowser, press, signedIn, visit, waitForText } from './browser';

/* Takes a picture of each main view from the demo data. Arguments: folder, theme, and names to take only some. */

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
  import: async (page) => {
    await visit(page, '/people/import');
    const input = (await page.$('#import-file')) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(sheet());
    await page.waitForSelector('[data-testid=wrong-row]');
  },
  leave: '/people/p-2105/leave',
  numbers: '/numbers',
  number: '/numbers/n-441632960109',
  hours: '/hours/bookings-hours',
  route: async (page) => {
    await visit(page, '/inbound/in-vastra');
    await page.waitForSelector('[data-testid=week-strip] a');
  },
  'time-switch': async (page) => {
    await visit(page, '/time-switches/crew-duty');
    await page.waitForSelector('[data-testid=week-strip] [role=img]');
  },
  places: async (page) => {
    await visit(page, '/places');
    await page.click('[aria-label^="61 and on"]');
    await page.waitForSelector('[data-testid=number-block]');
  },
  attendant: async (page) => {
    await visit(page, '/attendants/main-attendant');
    await page.click('[data-key="2"]');
    await page.waitForSelector('svg rect');
  },
  prompt: async (page) => {
    await visit(page, '/prompts/greeting-vastra');
    await page.waitForSelector('svg rect');
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
  trunk: '/trunks/kestrel',
  trace: '/trace?from=outside%3A%2B46846500417&dial=01632+960100&at=fri+17%3A10',
  ask: async (page) => {
    await visit(page, '/extensions');
    await page.type('[data-testid=ask-line]', '2160 > 9 01632 960150');
    await waitForText(page, 'draft', '#ask-answers');
  },
  'go-live': '/go-live',
};

async function clickText(page: Page, text: string): Promise<void> {
  await press(page, text);
  await new Promise((done) => setTimeout(done, 200));
}

/** A sheet of joiners, some of them made wrong. */
function sheet(): string {
  const path = join(tmpdir(), 'joiners.csv');
  writeFileSync(
    path,
    'Ext;Name;Site;E-mail;Team;DID;Voicemail\n' +
      '3040;Åsa Wennerholm;Västra Kajen;asa.wennerholm@lanternfold.example;Bookings;031-390 06 40;yes\n' +
      '3041;Tove Ekdahl;Västra Kajen;tove at lanternfold;Bookings;031-390 06 41;yes\n' +
      '3042;Nils Farrow;Västra Kajen;nils.farrow@lanternfold.example;Divers;;yes\n' +
      '3001;Otis Marchetti;Västra Kajen;;Terminal desks;;yes\n' +
      '3043;Car ramp 2;Västra Kajen;;;;no\n',
  );
  return path;
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
  } finally {
    await browser.close();
  }
}

main().catch((e: unknown) => {
  console.error(e);
  process.exitCode = 1;
});
