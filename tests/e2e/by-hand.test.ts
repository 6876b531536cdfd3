import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { Client, admin, rowVersion, type Document } from '../support/api';
import { undoTo } from '../support/jobs';
import { ADMIN, openBrowser, signedIn, visit, waitForText } from '../support/browser';
import { Hand } from '../support/hand';

/* The demo company's hours, holidays, routes, switches, places and codes are taken out of the draft and built again by hand, in a quarter of an hour; then the week of six numbers is as it was. */

jest.setTimeout(600_000);

const LISTS = {
  routeRules: 'routeRule',
  inboundRoutes: 'inboundRoute',
  serviceCodes: 'serviceCode',
  timeSwitches: 'timeSwitch',
  hours: 'hours',
  holidayCalendars: 'holidays',
  announcements: 'announcement',
  directories: 'directory',
  faxes: 'fax',
  outsideNumbers: 'outsideNumber',
  parkPlaces: 'parkPlace',
} as const;

let browser: Browser;
let page: Page;
let boss: Client;
let hand: Hand;
let before: Document;
let begun: number;
/** where calls went before it was taken out */
let ends: string[];
const plan = async () => (await boss.get<Document>('/plan')).body;

beforeAll(async () => {
  browser = await openBrowser();
  page = await signedIn(browser, ...ADMIN);
  boss = await admin();
  hand = new Hand(page);
  before = await plan();
});
afterAll(async () => {
  await browser.close();
  await undoTo(boss, before);
});

const tableOf = (kind: string) => kind.replace(/[A-Z]/g, (c) => `_${c.toLowerCase()}`);

/** Through the rail, as one goes from list to list. */
async function list(path: string): Promise<void> {
  const link = await page.$(`nav a[href="${path}"]`);
  if (link && (await link.isVisible()) && !page.url().endsWith(path)) {
    await link.click();
    await page.waitForFunction((p: string) => location.pathname === p, { timeout: 60_000 }, path);
  } else await visit(page, path);
  hand.clicks++;
  hand.thoughts++;
}

/** Adds one in a list, and is on its page. */
async function add(path: string, act: string, fill: () => Promise<void>): Promise<void> {
  await list(path);
  await hand.press(act);
  await page.waitForSelector('#add-name');
  await fill();
  await hand.key('Enter');
  await page.waitForFunction((p: string) => location.pathname.startsWith(`${p}/`), { timeout: 60_000 }, path);
  await page.waitForSelector('h1');
  await page.waitForFunction(() => document.querySelector('#add-name') === null);
}

async function sheet(kind: string, rows: string[][]): Promise<void> {
  await list(`/import/${kind}`);
  await hand.choose('#import-site', 'North Quay');
  const text = rows.map((r) => r.join('\t')).join('\n');
  await hand.paste('#import-paste', text);
  // Typed, not pasted: each character is a key.
  hand.keys += text.length - 2;
  await hand.press('Check these rows');
  await hand.press('Write ', true);
  await page.waitForSelector('[data-testid=import-done]', { timeout: 60_000 }).catch(async (e: unknown) => {
    const said = await page.$eval('main', (m) => (m as HTMLElement).innerText);
    throw new Error(`${String(e)}: ${said}`);
  });
}

/** Where callers of six numbers end in the draft, at 34 moments of the next week. */
async function endsNow(): Promise<string[]> {
  const numbers = ['+441632960100', '+46313900600', '+448081570103', '+441632960180', '+441632960181', '+441632960182'];
  const day = new Date(begun + 86_400_000).toISOString().slice(0, 10);
  const out: string[] = [];
  for (const dial of numbers)
    for (let h = 0; h < 168; h += 5) {
      const at = new Date(Date.parse(`${day}T00:30:00Z`) + h * 3_600_000).toISOString();
      const { body } = await boss.get<{ lands: { label: string } | null; outcome: string }>(
        `/trace?from=withheld&dial=${encodeURIComponent(dial)}&at=${at}&of=draft`,
      );
      out.push(`${dial} ${at}: ${body.outcome} ${body.lands?.label}`);
    }
  return out;
}

/** A quarter of an hour of forms that other files try one by one: the whole of it belongs to the long test. */
const whole = process.env.POLYDROME_SOAK ? describe : describe.skip;

whole('when and where, from nothing', () => {
  it('is taken out whole, in one act', async () => {
    begun = Date.now();
    ends = await endsNow();
    const edits = [];
    // Attendants stand on hours and places, steps of reach plans on outside numbers: they go first.
    for (const n of before.numbers!)
      if (before.attendants!.some((a) => a.id === n.belongsTo))
        edits.push({
          kind: 'number',
          id: n.id,
          rowVersion: await rowVersion('number', n.id),
          value: { ...n, belongsTo: null },
        });
    for (const [kind, list] of [
      ['attendantKey', before.attendantKeys],
      ['attendant', before.attendants],
      ['reachStep', before.reachSteps],
    ] as const)
      for (const o of list!)
        edits.push({ kind, id: o.id, rowVersion: await rowVersion(tableOf(kind), String(o.id)), value: null });
    for (const [from, kind] of Object.entries(LISTS))
      for (const o of before[from] ?? []) {
        edits.push({ kind, id: o.id, rowVersion: await rowVersion(tableOf(kind), String(o.id)), value: null });
      }
    const gone = await boss.post('/edits', { edits });
    expect([gone.status, gone.body]).toEqual([200, gone.body]);
    const after = await plan();
    for (const from of Object.keys(LISTS)) expect([from, after[from] ?? []]).toEqual([from, []]);
  });

  it('holidays of three countries, chosen', async () => {
    for (const [name, country, region] of [
      ['Bank holidays, England', 'United Kingdom', 'England'],
      ['Public holidays, Sweden', 'Sweden', ''],
      ['Feiertage, Hamburg', 'Germany', 'Hansestadt Hamburg'],
    ]) {
      await add('/holidays', 'Add holiday calendar', async () => {
        await hand.into('#add-name', name!);
        await hand.find('#add-country', country!);
      });
      if (region) await hand.choose('#holidays-region', region);
      const take = await page.waitForSelector('::-p-xpath(//button[starts-with(normalize-space(.), "Take in")])');
      await take!.click();
      hand.clicks++;
      await page.waitForSelector('[data-testid=holiday]');
    }
  });

  it('hours, typed', async () => {
    for (const o of before.hours as unknown as { name: string; zone: string; weekly: string; holidays: string[] }[]) {
      await add('/hours', 'Add hours', async () => {
        await hand.into('#add-name', o.name);
        const place = o.zone.split('/')[1]!;
        const stands = await page.$eval('#add-zone', (e) => (e as HTMLInputElement).value);
        if (!stands.startsWith(place)) await hand.find('#add-zone', place);
      });
      await hand.into('[data-field=weekly]', o.weekly);
      await hand.key('Tab');
      for (const id of o.holidays) {
        const name = before.holidayCalendars!.find((h) => h.id === id)!.name as string;
        await hand.choose('[aria-label="Add to Holidays"]', name);
        await waitForText(page, name, '[aria-label="Holidays"]');
      }
    }
  });

  it('places and codes, each kind as the rows of a sheet', async () => {
    await sheet('outsideNumber', [
      ['Name', 'Dials', 'Class of service'],
      ['Crew duty, night mobile', '907700900123', 'Staff'],
    ]);
    await sheet('fax', [
      ['Name', 'Site', 'Digits', 'Mails to'],
      ['Customs fax, Hamburg', 'Freight Hamburg', '6472', 'customs@lanternfold.example'],
    ]);
    await sheet('directory', [
      ['Name', 'Digits', 'Prompt', 'Nobody found'],
      ['Staff by name', '6300', 'Spell a name', '2000'],
    ]);
    await sheet('announcement', [
      ['Name', 'Digits', 'Prompt', 'Then leads to'],
      ['Sailing status', '6400', 'Sailing status, winter', '2000'],
      ['Storm, told and ended', '', 'Storm: terminals closed', ''],
    ]);
    const four = [1, 2, 3, 4];
    await sheet('parkPlace', [
      ['Name', 'Digits', 'Returns after', 'Returns to'],
      ...four.map((n) => [`Park place ${n}`, `680${n}`, '90', '2000']),
    ]);
  });

  it('time switches, on a form', async () => {
    for (const [name, digits, hours, open, closed, fax] of [
      ['Crew duty line', '6500', 'Crew duty, by day', '2124', 'Crew duty, night', false],
      ['Customs manifests', '6501', 'Freight desk, Hamburg', 'Customs fax, Hamburg', '2171', true],
    ] as const) {
      await add('/time-switches', 'Add time switch', async () => {
        await hand.into('#add-name', name);
        await hand.choose('#add-hours', hours);
        await hand.find('#add-open', open);
        await hand.find('#add-closed', closed);
        await page.focus('#add-name');
      });
      if (fax) {
        await page.click('[data-field=fax]');
        hand.clicks++;
      }
      await hand.press('Name, site, digits and note', true);
      await hand.into('[data-field=digits]', digits);
      await hand.key('Tab');
    }
  });

  it('codes', async () => {
    const four = [1, 2, 3, 4];
    await sheet('serviceCode', [
      ['Digits', 'Name', 'Does', 'Time switch', 'Park place', 'Prompt', 'Pick-up group'],
      ['*1', 'Own mailbox', 'mailbox'],
      ['*2', 'Pick up in the team', 'pick up'],
      ['*22', 'Pick up at the terminal desks', 'pick up', '', '', '', '2135; 2136; 2137; 2138'],
      ['*31', 'Hide the number for this call', 'withhold number'],
      ['*41', 'Sign in at this desk', 'hot desk sign in'],
      ['*42', 'Sign out at this desk', 'hot desk sign out'],
      ['*65', 'Crew duty: day, night, by hours', 'time switch set', 'Crew duty line'],
      ['*64', 'Record the sailing status', 'record a prompt', '', '', 'Sailing status, winter'],
      ...four.map((n) => [`*8${n}`, `Park on ${n}`, 'park', '', `Park place ${n}`]),
      ...four.map((n) => [`#8${n}`, `Fetch from ${n}`, 'fetch', '', `Park place ${n}`]),
    ]);
  });

  it('inbound routes, and their time rules on their pages', async () => {
    const main = before.inboundRoutes!.find((r) => r.id === 'in-main')!;
    const first = before.extensions!.find((e) => e.id === main.leadsTo)!;
    for (const [name, map, leads] of [
      ['Main number', '+441632960100', String(first.digits)],
      ['Västra Kajen main', '+46313900600', '3000'],
      ['Bookings freephone', '+44808157010x', 'Queue Bookings'],
      ['Crew duty line', '+441632960180', 'Time switch Crew'],
      ['Customs manifests', '+441632960181', 'Time switch Customs'],
      ['Sailing status', '+441632960182', 'Announcement Sailing'],
    ] as const) {
      await add('/inbound', 'Add inbound route', async () => {
        await hand.into('#add-name', name);
        await hand.into('#add-calledMap', map);
        await hand.find('#add-leadsTo', leads);
        await page.focus('#add-name');
      });
      const rules = RULES[name] ?? [];
      for (const [i, [hours, when, to]] of rules.entries()) {
        await hand.press('Add a time rule');
        await hand.choose('[aria-label="Hours of the new rule"]', hours);
        await hand.choose('[aria-label="When the new rule fits"]', when);
        await hand.find('[aria-label="Where the new rule leads"]', to);
        await page.waitForSelector(`[aria-label="Hours of rule ${i + 1}"]`);
      }
    }
    // From the harbour authority: private digits that name the extension.
    await add('/inbound', 'Add inbound route', async () => {
      await hand.into('#add-name', 'From the harbour authority');
      await hand.into('#add-calledMap', '2x{3}|3x{3}|4x{3}');
      await hand.choose('#add-trunk', 'Harbour link');
      await page.focus('#add-name');
    });
    await hand.press('By the number that was dialled', true);
    await page.click('[data-field=dialledExtension]');
    hand.clicks++;
  });

  it('calls go where they went before, through the week, and it took a quarter of an hour', async () => {
    const after = await endsNow();
    expect(after.filter((end, i) => end !== ends[i])).toEqual([]);
    console.info(
      `when and where by hand: ${hand.clicks} clicks, ${hand.keys} keys, ${hand.minutes().toFixed(1)} minutes for a practised person`,
    );
    // A minute of the fifteen is the machine's.
    expect(hand.minutes()).toBeLessThan(14);
  });
});

const RULES: Record<string, [string, string, string][]> = {
  'Västra Kajen main': [
    ['Västra Kajen', 'are on a holiday', '2000'],
    ['Västra Kajen', 'are closed', 'Mailbox Västra Kajen'],
  ],
  'Bookings freephone': [
    ['Bookings, winter', 'are on a holiday', 'Mailbox North Quay'],
    ['Bookings, winter', 'are closed', 'Mailbox Joaquim Peel'],
  ],
};
