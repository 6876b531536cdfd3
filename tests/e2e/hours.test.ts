import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { Client, admin, objectIn } from '../support/api';
import { ADMIN, AUDITOR, openBrowser, press, signedIn, visit, waitForText } from '../support/browser';
import { until } from '../support/until';

/* The week of hours: typed, painted with the pointer, painted with keys; the three say the same. */

jest.setTimeout(120_000);

const ID = 'bookings-hours';
let browser: Browser;
let page: Page;
let boss: Client;
beforeAll(async () => {
  browser = await openBrowser();
  page = await signedIn(browser, ...ADMIN);
  boss = await admin();
});
afterAll(async () => {
  await boss.post('/edits/undo', { kind: 'hours', id: ID });
  await browser.close();
});

const weekly = async () => (await objectIn(boss, 'draft', 'hours', ID))!.weekly as string;
const typed = () => page.$eval('[data-field=weekly]', (e) => (e as HTMLInputElement).value);

/** Drags from one day and hour to another: the quarters at both ends are painted, too. */
async function paint(fromDay: number, fromHour: number, toDay: number, toHour: number): Promise<void> {
  await page.$eval('[data-testid=week-painter]', (e) => e.scrollIntoView({ block: 'center' }));
  const box = (await (await page.$('[data-testid=week-painter]'))!.boundingBox())!;
  const x = (hour: number) => box.x + (hour / 24) * box.width;
  const y = (day: number) => box.y + ((day + 0.5) / 7) * box.height;
  await page.mouse.move(x(fromHour + 0.1), y(fromDay));
  await page.mouse.down();
  await page.mouse.move(x(toHour - 0.1), y(toDay), { steps: 6 });
  await page.mouse.up();
}

describe('the week of hours', () => {
  it('is found in the list, with what it says and what asks it', async () => {
    await visit(page, '/hours');
    await waitForText(page, 'mon-fri 7-19, sat 8-13, sun 10-12, sun 13-16', '[data-row]');
    await waitForText(page, /(open|closed) until \w+ \d+ \w+, \d\d:\d\d/, '[data-row]');
    await waitForText(page, 'time rule', '[data-row]');
  });

  it('painted with the pointer over two days, it is typed and said so, and is in the draft', async () => {
    await visit(page, `/hours/${ID}`);
    await paint(0, 19, 1, 21);
    const after = 'mon-tue 7-21, wed-fri 7-19, sat 8-13, sun 10-12, sun 13-16';
    await until(async () => (await weekly()) === after);
    expect(await typed()).toBe(after);
    await waitForText(page, 'Mondays and Tuesdays 07:00 to 21:00', '[data-testid=week-said]');
    await waitForText(page, '74 hours a week', '[data-testid=week-said]');
    // Begun where it is open, it closes.
    await paint(0, 20, 1, 21);
    await until(async () => (await weekly()) === after.replace('7-21', '7-20'));
  });

  it('a hole is named, and closed with one press', async () => {
    await waitForText(page, 'Sunday 12:00 to 13:00 is a hole between two open times.', '[data-testid=week-fault]');
    await press(page, 'Close the hole');
    await until(async () => (await weekly()).endsWith('sun 10-16'));
    await page.waitForSelector('[data-testid=week-fault]', { hidden: true });
  });

  it('painted with keys alone', async () => {
    await page.focus('[data-testid=week-painter]');
    for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowUp');
    await page.keyboard.press('Home');
    for (let i = 0; i < 2; i++) await page.keyboard.press('ArrowDown');
    for (let i = 0; i < 19; i++) await page.keyboard.press('PageDown');
    await waitForText(page, 'Wednesday 19:00 to 19:15, closed', '[data-testid=week-painter-said]');
    await page.keyboard.down('Shift');
    for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
    await page.keyboard.up('Shift');
    await page.keyboard.press('Enter');
    await until(async () => (await weekly()).includes('mon-wed 7-20'));
    await waitForText(page, 'Wednesday 19:00 to 20:00 is open now', '[data-testid=week-painter-said]');
    expect(await page.evaluate(() => document.activeElement?.getAttribute('data-testid'))).toBe('week-painter');
  });

  it('fast strokes one after the other are all there, also on a slow line', async () => {
    await page.emulateNetworkConditions({ latency: 500, download: -1, upload: -1 });
    for (let day = 0; day < 5; day++) await paint(day, 22, day, 23);
    await page.emulateNetworkConditions(null);
    await until(async () => (await weekly()).includes('mon-fri 22-23'));
    expect(await typed()).toBe(await weekly());
  });

  it('typed, it is drawn; what cannot be read is said where it is, kept, and not in the draft', async () => {
    const before = await weekly();
    await page.click('[data-field=weekly]', { count: 3 });
    await page.keyboard.type('mon-fri 7-19, noday 8-13');
    await waitForText(page, '“noday” is no day at position 15', '[data-testid=week-said]');
    await page.keyboard.press('Tab');
    await new Promise((done) => setTimeout(done, 600));
    expect(await weekly()).toBe(before);
    expect(await typed()).toBe('mon-fri 7-19, noday 8-13');
    await page.click('[data-field=weekly]', { count: 3 });
    await page.keyboard.type('fri 22-2');
    await waitForText(page, 'Fridays 22:00 to 02:00 the next day', '[data-testid=week-said]');
    await page.keyboard.press('Enter');
    await until(async () => (await weekly()) === 'fri 22-2');
  });

  it('a date has times of its own, and the year shows it', async () => {
    await press(page, 'Add a date');
    const year = new Date().getFullYear();
    await page.type('[aria-label="Date 1"]', `24/12/${year}`);
    await page.type('[aria-label="Times of date 1"]', '8-13');
    await page.type('[aria-label="Name of date 1"]', 'Christmas Eve');
    await page.keyboard.press('Tab');
    await until(async () => {
      const { exceptions } = (await objectIn(boss, 'draft', 'hours', ID)) as { exceptions: object[] };
      return (
        JSON.stringify(exceptions) === JSON.stringify([{ date: `${year}-12-24`, open: '8-13', name: 'Christmas Eve' }])
      );
    });
    await waitForText(page, 'Christmas Eve: 8-13', '[data-testid=year-ribbon]');
  });

  it('two people paint at once: the later one sees both and chooses', async () => {
    const second = await signedIn(browser, ...ADMIN);
    await visit(second, `/hours/${ID}`);
    // The second has begun to type when the first one's edit is made: were it not so, the second would see it first.
    await second.click('[data-field=weekly]', { count: 3 });
    await second.keyboard.type('mon-fri 9-');
    await page.bringToFront();
    await page.click('[data-field=weekly]', { count: 3 });
    await page.keyboard.type('mon-fri 8-17');
    await page.keyboard.press('Tab');
    await until(async () => (await weekly()) === 'mon-fri 8-17');
    await second.bringToFront();
    await second.keyboard.type('18');
    await second.keyboard.press('Tab');
    await waitForText(second, 'mon-fri 8-17', '[data-testid=conflict]');
    await waitForText(second, 'mon-fri 9-18', '[data-testid=conflict]');
    await press(second, 'Keep mine in these fields');
    await until(async () => (await weekly()) === 'mon-fri 9-18');
    await second.close();
  });

  it('who may only look sees it and paints nothing', async () => {
    const auditor = await signedIn(browser, ...AUDITOR);
    await visit(auditor, `/hours/${ID}`);
    expect(await auditor.$eval('[data-field=weekly]', (e) => (e as HTMLInputElement).disabled)).toBe(true);
    const box = (await (await auditor.$('[data-testid=week-painter]'))!.boundingBox())!;
    const before = await weekly();
    await auditor.mouse.move(box.x + 10, box.y + 10);
    await auditor.mouse.down();
    await auditor.mouse.move(box.x + 90, box.y + 10, { steps: 3 });
    await auditor.mouse.up();
    expect(await auditor.$eval('[data-field=weekly]', (e) => (e as HTMLInputElement).value)).toBe(before);
    await auditor.close();
  });
});
