import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { newPage, openBrowser, waitForText } from '../support/browser';
import { Hand } from '../support/hand';
import { FIRST_PORT, start, stopped, type Started } from '../support/started';
import { until } from '../support/until';

/* Somebody who runs a phone system beside other work begins with nothing, and ends with twenty people, a trunk and a main number that is answered, live. */

jest.setTimeout(240_000);

const PORT = FIRST_PORT + 40;
const BASE = `http://127.0.0.1:${PORT}`;
const environment = {
  POLYDROME_PORT: String(PORT),
  POLYDROME_DB_PORT: String(PORT + 6),
  POLYDROME_DATA: mkdtempSync(join(tmpdir(), 'polydrome-own-')),
};
const PASSWORD = 'berth and ladder 40';
const FIRST_NAMES = ['Sanna', 'Ole', 'Ida', 'Jon', 'Eva', 'Nils', 'Pia', 'Lars', 'Mia', 'Kai'];

let own: Started;
let browser: Browser;
let page: Page;

beforeAll(async () => {
  own = start(environment);
  await until(
    () => /runs at|Port|failed/.test(own.said()),
    () => own.said(),
    180,
  );
  browser = await openBrowser();
  page = await newPage(browser);
  await page.setViewport({ width: 1280, height: 800 });
});
afterAll(async () => {
  await browser.close();
  await stopped(own);
});

const call = (path: string) =>
  page.evaluate((p) => fetch(`/api/v1${p}`).then((r) => r.json() as Promise<Record<string, unknown>>), path);

describe('an organisation of one’s own', () => {
  it('begins with a code that the start command prints, and with nobody of the demo', async () => {
    expect(own.said()).toMatch(
      /Begin at http:\/\/127\.0\.0\.1:\d+\/welcome with this code: [A-Z0-9]{4}(-[A-Z0-9]{4}){3}/,
    );
    expect(own.said()).not.toContain('quay-lantern-42');
    const signIn = await fetch(`${BASE}/api/v1/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ name: 'admin', password: 'quay-lantern-42' }),
    });
    expect(signIn.status).toBe(401);
  });

  it('takes no other code, and no weak password, and then nothing is there', async () => {
    const begin = (code: string, password: string) =>
      fetch(`${BASE}/api/v1/first`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({
          code,
          owner: { name: 'Somebody', signIn: 'somebody', password },
          organisation: { name: 'Theirs', language: 'en', dayOrder: 'day first' },
          site: { name: 'Theirs', country: 'SE', zone: 'Europe/Stockholm', address: '', area: null },
        }),
      }).then(async (r) => [r.status, ((await r.json()) as { error: { path: string } }).error.path]);
    expect(await begin('AAAA-BBBB-CCCC-DDDD', PASSWORD)).toEqual([403, 'code']);
    const code = /code: (\S+)/.exec(own.said())![1]!;
    expect(await begin(code, 'short')).toEqual([422, 'owner.password']);
    // Refused by the plan after the owner was made: the owner goes again, and the code still holds.
    const wrong = await fetch(`${BASE}/api/v1/first`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        code,
        owner: { name: 'Somebody', signIn: 'somebody', password: PASSWORD },
        organisation: { name: 'Theirs', language: 'en', dayOrder: 'day first' },
        site: { name: 'Theirs', country: 'SE', zone: 'Nowhere/Town', address: '', area: null },
      }),
    });
    expect(wrong.status).toBeGreaterThanOrEqual(400);
    expect(wrong.status).toBeLessThan(500);
    const first = (await (await fetch(`${BASE}/api/v1/first?country=SE`)).json()) as { open: boolean };
    expect(first).toMatchObject({ open: true, proposal: { emergency: ['112'], zone: 'Europe/Stockholm' } });
  });

  it('gets from nothing to twenty people, a trunk and an answered main number, live', async () => {
    const hand = new Hand(page);
    // A slow line: everything takes a moment longer.
    const line = await page.createCDPSession();
    await line.send('Network.emulateNetworkConditions', {
      offline: false,
      latency: 200,
      downloadThroughput: -1,
      uploadThroughput: -1,
    });
    const begun = Date.now();
    await page.goto(`${BASE}/extensions`, { waitUntil: 'networkidle0' });
    // Whatever was asked for, the first page comes first.
    expect(new URL(page.url()).pathname).toBe('/welcome');
    await hand.into('#begin-code', /code: (\S+)/.exec(own.said())![1]!.toLowerCase());
    await hand.into('#begin-name', 'Maren Oduya');
    await hand.into('#begin-signIn', 'maren');
    await hand.into('#begin-password', PASSWORD);
    await hand.into('#begin-organisation', 'Quaywright Boats');
    await hand.into('#begin-site', 'Boatyard');
    await hand.find('#begin-country', 'Sweden');
    await waitForText(page, /Emergency numbers there: 112/);
    await hand.into('#begin-area', '31');
    await hand.into('#begin-address', 'Kajgatan 4, Göteborg');
    await hand.press('Begin');
    await waitForText(page, 'You own this Polydrome');
    await hand.press('Go on without one');
    await hand.done('site');

    await hand.press('Add numbers');
    await hand.into('textarea', '031-390 06 00 to 0629');
    await hand.press('Add 30 numbers');
    await page.waitForFunction(() => location.pathname === '/numbers');
    await hand.today();
    await hand.done('numbers');

    await hand.press('Import people');
    await page.waitForSelector('#import-paste');
    const rows = Array.from({ length: 20 }, (_, i) => {
      const name = `${FIRST_NAMES[i % 10]} ${i < 10 ? 'Quist' : 'Rask'}`;
      return `${2000 + i}\t${name}\tperson${i}@quaywright.example\t${40 + i}`;
    });
    await hand.paste('#import-paste', ['Extension\tName\tE-mail\tShoe size', ...rows].join('\n'));
    await hand.press('Check these rows');
    await waitForText(page, 'One column is not read: “Shoe size”', '[data-testid=unread-columns]');
    await hand.press('Write 20 rows to the draft');
    await page.waitForSelector('[data-testid=import-done]', { timeout: 60_000 });
    await hand.today();
    await hand.done('people');

    await hand.press('Add the trunk');
    await hand.into('#trunk-name', 'Kestrel Voice');
    await hand.into('#trunk-channels', '10');
    await hand.into('#trunk-host', 'sip.kestrel.example');
    await hand.into('#trunk-account', '46313900600');
    await hand.into('#trunk-password', 'from-the-letter');
    await hand.press('Add trunk');
    await page.waitForFunction(() => /^\/trunks\/(?!new)/.test(location.pathname));
    await hand.today();
    for (const step of ['trunk', 'outbound', 'check']) await hand.done(step);

    await hand.press('Lead the main number');
    await hand.into('[data-field=belongsTo]', '2000');
    await waitForText(page, '2000 Sanna Quist', '[role=option]');
    await hand.key('ArrowDown');
    await hand.key('Enter');
    await page.waitForFunction(
      () => document.querySelector('[data-testid=on-its-way]')?.getAttribute('data-waiting') === '0',
    );
    await hand.today();
    await hand.done('inbound');
    await waitForText(page, /now rings 2000 Sanna Quist/, '[data-step=inbound]');

    await hand.press('Read and go live');
    await hand.press('Go live with 5 edits');
    await page.waitForFunction(async () => {
      const plan = (await (await fetch('/api/v1/revisions')).json()) as { revisions: unknown[] };
      return plan.revisions.length === 1;
    });
    const minutes = (Date.now() - begun) / 60_000;
    const traced = await call('/trace?from=outside:%2B46701740605&dial=%2B46313900600&at=now&of=live');
    expect(traced).toMatchObject({ outcome: 'routed', lands: { digits: '2000' } });
    const help = await call('/trace?from=2007&dial=112&at=now&of=live');
    expect(help).toMatchObject({ outcome: 'routed', shownNumber: '+46313900600' });
    const out = await call('/trace?from=2007&dial=0313900650&at=now&of=live');
    expect(out).toMatchObject({ outcome: 'routed', digitsSent: '+46313900650' });
    console.log(
      `from nothing to live: ${hand.clicks} clicks, ${hand.keys} keys, ${hand.pages} pages; ${minutes.toFixed(1)} minutes by machine`,
    );
    // Two seconds a click and half a second a key are a slow hand: it stays within the quarter of an hour.
    expect(hand.clicks * 2 + hand.keys / 2).toBeLessThan(15 * 60);
    await page.goto(BASE, { waitUntil: 'networkidle0' });
    await line.detach();
    // What is built leads no more.
    expect(await page.$('[data-testid=order-of-work]')).toBeNull();
  });

  it('has one owner: the code is used up, and the password is kept nowhere in the browser', async () => {
    expect(await call('/first')).toEqual({ open: false, proposal: null });
    const kept = await page.evaluate(() => JSON.stringify({ ...localStorage, ...sessionStorage }));
    expect(kept).not.toContain(PASSWORD);
    expect(kept).not.toContain('from-the-letter');
    await page.goto(`${BASE}/welcome`, { waitUntil: 'networkidle0' });
    expect(new URL(page.url()).pathname).toBe('/');
  });

  it('is never wiped by a start, nor taken for the demo', async () => {
    const fresh = start({ ...environment, POLYDROME_PORT: String(PORT + 1) }, ['--fresh']);
    expect(await fresh.ended).toBe(1);
    expect(fresh.said()).toMatch(/never wiped/);
    const demo = start({ ...environment, POLYDROME_PORT: String(PORT + 1) }, ['--demo']);
    expect(await demo.ended).toBe(1);
    expect(demo.said()).toMatch(/holds an organisation of your own/);
  });
});
