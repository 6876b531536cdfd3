import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { Client, admin } from '../support/api';
import { ADMIN, BASE, newPage, openBrowser, signedIn, visit, waitForText } from '../support/browser';
import { Hand } from '../support/hand';
import { mailTo, nextMail } from '../support/mail';
import { onSlowLine } from '../support/slow-line';
import { toneWav } from '../support/tones';

/* People on the page of their own, what they hear there, the board of queues, and the page for callers. */

jest.setTimeout(180_000);
const ILSE = ['ilse.brandvik@lanternfold.example', 'harbour-thistle-58'] as const;
let browser: Browser;
let boss: Client;
beforeAll(async () => {
  browser = await openBrowser();
  boss = await admin();
});
afterAll(() => browser.close());

const textOf = (page: Page, selector: string) => page.$eval(selector, (e) => (e as HTMLElement).innerText);
const ends = async () =>
  (
    await boss.get<{ lands: { kind: string }; then: { lands: { kind: string } }[] }>(
      '/trace?from=2104&dial=2102&of=live',
    )
  ).body;

describe('a person on the page of their own', () => {
  let page: Page;
  let hand: Hand;
  beforeAll(async () => {
    page = await signedIn(browser, ...ILSE);
    hand = new Hand(page);
  });

  it('sees no page of administrators', async () => {
    for (const path of ['/', '/people', '/settings']) {
      await page.goto(BASE + path);
      expect(new URL(page.url()).pathname).toBe('/own');
    }
  });

  it('sets a mobile as second step: it is told what it costs, stands on the line of time, and calls follow', async () => {
    await visit(page, '/own');
    await hand.press('Add a phone');
    await hand.into('#rings-e-2102-1', '07700 900123');
    await page.keyboard.press('Tab');
    await waitForText(page, 'mobile call that the organisation pays for', '[data-testid=step-said]');
    expect(await textOf(page, '[data-testid=time-line]')).toContain('after 45 s my mailbox');
    await hand.press('Use this');
    await waitForText(page, 'Calls find you that way');
    const { lands, then } = await ends();
    expect([lands, ...then.map((t) => t.lands)].map((l) => l.kind)).toEqual(['extension', 'outside', 'mailbox']);
    await page.reload();
    await waitForText(page, 'Ring my phone only');
    expect(await page.$eval('#rings-e-2102-1', (e) => (e as HTMLInputElement).value)).toBe('907700900123');
    await hand.press('Ring my phone only');
    await page.waitForFunction(() => !document.querySelector('#rings-e-2102-1'));
    expect((await ends()).then.map((t) => t.lands.kind)).toEqual(['mailbox']);
  });

  it('what can’t ring is said at its step, and what was typed stays', async () => {
    await visit(page, '/own');
    await hand.press('Add a phone');
    await hand.into('#rings-e-2102-1', '999');
    await hand.press('Use this');
    await waitForText(page, '999 is an emergency number');
    await page.reload();
    await page.waitForSelector('#rings-e-2102-1');
    expect(await page.$eval('#rings-e-2102-1', (e) => (e as HTMLInputElement).value)).toBe('999');
    await page.click('[aria-label="Take out step 2"]');
  });

  it('says that she is away with one press, and that she is back with another', async () => {
    await visit(page, '/own');
    await hand.press('Away');
    // The press is shown at once; where calls go is shown when the answer has come.
    await page.waitForFunction(() => !document.querySelector('[data-testid=ends]')?.textContent?.includes('2102'));
    expect((await ends()).lands.kind).toBe('mailbox');
    await hand.press('Reachable');
    await page.waitForFunction(() => document.querySelector('[aria-pressed=true]')?.textContent === 'Reachable');
  });

  it('hears a message, deletes it and brings it back', async () => {
    const { body } = await boss.file('/mailboxes/m-2102/messages?calling=%2B441632960432', toneWav(1, 500, 8000));
    await visit(page, '/own');
    const row = `[data-message="${body.id}"]`;
    await page.waitForSelector(row);
    expect(await textOf(page, row)).toContain('not heard');
    await page.click(`${row} [aria-label^="Play message"]`);
    await page.waitForFunction((r: string) => !document.querySelector(r)?.textContent?.includes('not heard'), {}, row);
    expect(await textOf(page, row)).toContain('heard Ilse Brandvik');
    const act = (words: string) => page.click(`${row} ::-p-xpath(.//button[normalize-space(.)="${words}"])`);
    await act('Delete');
    await page.waitForFunction((r: string) => !document.querySelector(r), {}, row);
    await hand.press('Bring it back');
    await page.waitForSelector(row);
  });

  it.each([2000])('on a line slower by %i ms what is typed in the next field meanwhile stays', async (delay) => {
    const { slower, until } = onSlowLine(() => page);
    await visit(page, '/own');
    await slower(delay);
    await page.click('#greeting-m-2102-text');
    await page.keyboard.type('I am on the ferry.');
    await hand.press('Speak and use it');
    await page.click('#forward-e-2102-to');
    await page.keyboard.type('2105');
    await until(async () => (await page.$('[aria-label="My greeting when nobody answers"]')) !== null);
    expect(await page.$eval('#forward-e-2102-to', (e) => (e as HTMLInputElement).value)).toBe('2105');
    expect(await page.$eval('#greeting-m-2102-text', (e) => (e as HTMLTextAreaElement).value)).toBe('');
    await slower(0);
    await hand.press('The usual one again');
    await page.waitForFunction(() => !document.querySelector('[aria-label^="My greeting when"]'));
  });

  it('moves nothing sideways on the smallest phone', async () => {
    await page.setViewport({ width: 320, height: 640 });
    await visit(page, '/own');
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
    await page.setViewport({ width: 1280, height: 800 });
  });
});

describe('administrators', () => {
  let page: Page;
  let hand: Hand;
  beforeAll(async () => {
    page = await signedIn(browser, ...ADMIN);
    hand = new Hand(page);
  });

  it('see how many messages there are, and for whom they are', async () => {
    await visit(page, '/mailboxes/m-bookings');
    await waitForText(
      page,
      'What callers said is for Nadia Hollis, Ruaridh Osei, Amara Lindqvist',
      '[data-testid=messages]',
    );
    expect(await page.$('[data-message]')).toBeNull();
  });

  it('invite somebody, who opens the page with the link of the mail', async () => {
    const to = 'tomasz.wren@lanternfold.example';
    const before = (await mailTo(to)).length;
    await visit(page, '/people/p-2103');
    await hand.press(`Send the link to ${to}`);
    await waitForText(page, `A mail is on its way to ${to}`);
    const path = new URL(/https?:\/\/\S+\/join\/\S+/.exec((await nextMail(to, before)).text!)![0]).pathname;
    const context = await browser.createBrowserContext();
    const other = await newPage(context);
    await other.goto(BASE + path);
    await waitForText(other, 'Good day, Tomasz Wren', 'h1');
    await other.type('#join-password', 'a ferry full of geese');
    await other.keyboard.press('Enter');
    await other.waitForFunction(() => location.pathname === '/own');
    await waitForText(other, 'Tomasz Wren', 'h1');
    await other.goto(BASE + path);
    await waitForText(other, 'This link opens nothing', 'h1');
    await context.close();
  });

  it('have a manager, who is told of a caller who gave up, by mail and on her page, and hears the message', async () => {
    const to = 'amara.lindqvist@lanternfold.example';
    await boss.post('/people/p-2104/invitation');
    const path = new URL(/https?:\/\/\S+\/join\/\S+/.exec((await nextMail(to, (await mailTo(to)).length)).text!)![0])
      .pathname;
    const context = await browser.createBrowserContext();
    const hers = await newPage(context);
    await hers.goto(BASE + path);
    await hers.waitForSelector('#join-password');
    await hers.type('#join-password', 'lighthouse keeper nine');
    await hers.keyboard.press('Enter');
    await hers.waitForFunction(() => location.pathname === '/own');
    await waitForText(hers, 'Queues you manage');
    const before = (await mailTo(to)).length;
    const { body } = await boss.file('/mailboxes/m-bookings/messages?calling=%2B441632960741', toneWav(1, 600, 8000));
    await boss.put('/queues/bookings-queue/now', {
      waiting: [],
      gaveUp: [{ calling: '+441632960741', waitedSeconds: 125, at: new Date().toISOString(), message: body.id }],
    });
    const mail = await nextMail(to, before);
    expect([mail.subject, mail.attachments.length]).toEqual(['Bookings: a caller gave up', 1]);
    // Without loading anew: it is said while she looks, and stands there.
    await waitForText(hers, 'Bookings: 01632 960741 gave up after 2 min 5 s.', '[role=status]', 40_000);
    await waitForText(hers, '01632 960741 gave up after 2 min 5 s.', '[data-testid=queue-told]');
    await hers.reload();
    const row = `[data-message="${body.id}"]`;
    await hers.waitForSelector(row);
    await hers.click(`${row} [aria-label^="Play message"]`);
    await hers.waitForFunction((r: string) => document.querySelector(r)?.textContent?.includes('heard Amara'), {}, row);
    await context.close();
    // On the board it is told to whoever acts there.
    await visit(page, '/queues/board?queue=bookings-queue');
    await waitForText(page, '01632 960741 gave up after 2 min 5 s.', '[data-testid=queue-told]');
  });

  it('pause an agent with a reason on the board, and see who wants to be called back', async () => {
    await boss.put('/queues/bookings-queue/now', { waiting: [{ since: new Date(Date.now() - 61_000).toISOString() }] });
    await Client.anonymous().post('/call-pages/bookings/callbacks', { number: '01632 960955', consent: true });
    await visit(page, '/queues/board?queue=bookings-queue');
    expect(await textOf(page, '[data-queue=bookings-queue]')).toMatch(/1:\d\d/);
    const row = '[data-agent=e-2108]';
    await page.click(`${row} ::-p-xpath(.//button[starts-with(normalize-space(.), "Pause")])`);
    await page.type('[aria-label="Why 2108 Petra Aldous is paused"]', 'dentist');
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      (r: string) => document.querySelector(r)?.textContent?.includes('paused: dentist'),
      {},
      row,
    );
    await page.click(`${row} ::-p-xpath(.//button[normalize-space(.)="Go on"])`);
    await page.waitForFunction((r: string) => !document.querySelector(r)?.textContent?.includes('paused'), {}, row);
    await waitForText(page, '01632 960955', '[data-testid=callbacks]');
    await hand.press('Was called');
    await page.waitForFunction(() => !document.querySelector('[data-testid=callbacks]'));
  });
});

describe('a caller on the public page of a queue', () => {
  it('asks to be called back at 320 wide, in its language, with what is missing said', async () => {
    const context = await browser.createBrowserContext();
    const page = await newPage(context);
    await page.setViewport({ width: 320, height: 640 });
    await page.goto(`${BASE}/call/bookings`);
    await waitForText(page, 'Bookings', 'h1');
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
    expect(await page.$eval('main', (e) => e.lang)).toBe('en');
    const hand = new Hand(page);
    await hand.press('Call me back');
    await waitForText(page, 'Tick this, else we may not keep the number.');
    await page.type('#wish-number', '01632 960956');
    await page.click('#wish-consent');
    await hand.press('Call me back');
    await waitForText(page, 'We call 01632 960956.');
    expect(await page.cookies()).toEqual([]);
    await context.close();
  });
});
