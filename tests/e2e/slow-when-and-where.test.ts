import { afterAll, afterEach, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { Client, admin, objectIn, type Document } from '../support/api';
import { ADMIN, openBrowser, press, signedIn, unfold, visit, waitForText } from '../support/browser';
import { undoTo } from '../support/jobs';
import { DELAYS, onSlowLine } from '../support/slow-line';

/* Notices, blocked callers, holidays, callers and places made on the spot, over a slow line: nothing typed is lost, nothing done twice. */

jest.setTimeout(120_000);

let browser: Browser;
let page: Page;
let boss: Client;
let before: Document;
const { slower, typeInto, valueOf, until } = onSlowLine(() => page);
beforeAll(async () => {
  browser = await openBrowser();
  page = await signedIn(browser, ...ADMIN);
  boss = await admin();
  before = (await boss.get<Document>('/plan')).body;
});
afterAll(async () => {
  await browser.close();
});

const noticed = async () => (await boss.get<{ notices: { id: string; reason: string }[] }>('/notices')).body.notices;
const blocked = async () =>
  (await boss.get<{ blocked: { id: string; calling: string | null; reason: string }[] }>('/blocked-callers')).body
    .blocked;

/** Two presses so quick that the first is not answered. */
async function pressTwice(words: string): Promise<void> {
  await page.evaluate((text) => {
    const button = [...document.querySelectorAll('button')].find((b) => b.textContent?.trim() === text)!;
    button.click();
    button.click();
  }, words);
}

const settle = (delay: number) => new Promise((done) => setTimeout(done, delay * 2 + 400));

afterEach(() => undoTo(boss, before));

describe.each(DELAYS)('with %i ms more for every request', (delay) => {
  it('a notice left half filled is as it was; set by two quick presses, it is one', async () => {
    await slower(0);
    await visit(page, '/hours/vastra-hours');
    await press(page, 'Notice now');
    await page.waitForSelector('#notice-ends');
    await press(page, 'Callers go elsewhere, hear something, or it begins later …');
    await page.waitForSelector('#notice-reason');
    await slower(delay);
    await typeInto('#notice-reason', `flood ${delay}`);
    await page.goto(page.url().replace('/hours/vastra-hours', '/numbers'), { waitUntil: 'domcontentloaded' });
    await slower(0);
    await visit(page, '/hours/vastra-hours');
    await press(page, 'Notice now');
    await page.waitForSelector('#notice-reason');
    expect(await valueOf('#notice-reason')).toBe(`flood ${delay}`);
    await slower(delay);
    await page.select('#notice-ends', 'tomorrow');
    await pressTwice('Set the notice');
    await until(async () => (await noticed()).length > 0);
    await settle(delay);
    const made = await noticed();
    expect(made.map((n) => n.reason)).toEqual([`flood ${delay}`]);
    await waitForText(page, `flood ${delay}`, '[data-testid=notice]');
    await boss.delete(`/notices/${made[0]!.id}`);
  });

  it('a caller is blocked once by two quick presses; a refused number stays as it was typed', async () => {
    await slower(0);
    await visit(page, '/blocked');
    await press(page, 'Block a caller');
    await page.waitForSelector('#block-calling');
    await slower(delay);
    await typeInto('#block-calling', `no number ${delay}`);
    await press(page, 'Block');
    await page.waitForSelector('[role=form] [role=alert]');
    expect(await valueOf('#block-calling')).toBe(`no number ${delay}`);
    await typeInto('#block-calling', `+46 70 174 0${delay.toString().padStart(4, '0').slice(0, 3)}`);
    await typeInto('#block-reason', `nuisance ${delay}`);
    await page.focus('#block-calling');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Enter');
    await until(async () => (await blocked()).some((b) => b.reason === `nuisance ${delay}`));
    await settle(delay);
    const made = (await blocked()).filter((b) => b.reason === `nuisance ${delay}`);
    expect(made).toHaveLength(1);
    for (const b of made) await boss.delete(`/blocked-callers/${b.id}`);
  });

  it('date after date of a holiday calendar is typed while the last is on its way', async () => {
    await slower(0);
    const [calendar] = (await boss.get<Document>('/plan')).body.holidayCalendars!;
    const id = String(calendar!.id);
    await visit(page, `/holidays/${id}`);
    await slower(delay);
    const days = [1, 2, 3].map((n) => `2028-11-0${n}`);
    for (const [i, day] of days.entries()) {
      await press(page, 'Add a date');
      const rows = await page.$$('[data-testid=holiday]');
      const [date, name] = await rows.at(-1)!.$$('input:not([type=checkbox])');
      await date!.click();
      await page.keyboard.type(day);
      await page.keyboard.press('Tab');
      await name!.focus();
      await page.keyboard.type(`Harbour day ${i + 1}`);
    }
    await page.keyboard.press('Tab');
    const wanted = days.map((date, i) => ({ date, name: `Harbour day ${i + 1}` }));
    await until(async () => {
      const dates = (await objectIn(boss, 'draft', 'holidayCalendars', id))?.dates as { date: string; name: string }[];
      return wanted.every((w) => dates.some((d) => d.date === w.date && d.name === w.name));
    });
    await settle(delay);
    const names = await page.$$eval('[data-testid=holiday] input', (es) =>
      es.map((e) => (e as HTMLInputElement).value),
    );
    for (const { name } of wanted) expect(names).toContain(name);
    expect(await page.$('[role=alert]')).toBeNull();
    await slower(0);
  });

  it('a list of callers typed on while its first lines are read is whole in the end', async () => {
    await slower(0);
    await visit(page, '/inbound/in-main');
    await unfold(page, 'Only from some callers');
    await slower(delay);
    const box = '[data-field=callingNumbers]';
    await typeInto(box, '+46 31 390 06 10');
    await page.keyboard.press('Tab');
    // Back before the first answer.
    await page.focus(box);
    await page.keyboard.press('End');
    await page.keyboard.type('\n020 7946 0018');
    await settle(delay);
    expect(await valueOf(box)).toMatch(/020 7946 0018$/);
    await page.keyboard.type('\nno number');
    await page.keyboard.press('Tab');
    await waitForText(page, '“no number” is no telephone number');
    expect(await valueOf(box)).toBe('+46313900610\n+442079460018\nno number');
    // What can't be read is named among what was typed, wherever one goes.
    await slower(0);
    await visit(page, '/go-live');
    await page.waitForSelector('[data-testid=typed-not-in-draft]');
    await page.click('[data-testid=typed-not-in-draft] a');
    await page.waitForSelector(box);
    expect(await valueOf(box)).toBe('+46313900610\n+442079460018\nno number');
    await slower(delay);
    await typeInto(box, '+46313900610\n+442079460018');
    await page.keyboard.press('Tab');
    await until(
      async () =>
        String((await objectIn(boss, 'draft', 'inboundRoutes', 'in-main'))?.callingNumbers) ===
        '+46313900610,+442079460018',
    );
    await settle(delay);
    expect(await page.$('[role=alert]')).toBeNull();
    await slower(0);
  });

  it('a place made on the spot is made once, and chosen where it was wanted', async () => {
    await slower(0);
    await visit(page, '/inbound/in-crew');
    await slower(delay);
    await page.click('[aria-label^="Make a place for"]');
    await page.waitForSelector('#place-name');
    await typeInto('#place-name', `Spot ${delay}`);
    await pressTwice('Make it');
    const made = async () =>
      (await boss.get<Document>('/plan')).body.mailboxes!.filter((m) => m.name === `Spot ${delay}`);
    await until(async () => {
      const [box] = await made();
      return box !== undefined && (await objectIn(boss, 'draft', 'inboundRoutes', 'in-crew'))?.leadsTo === box.id;
    });
    await settle(delay);
    expect(await made()).toHaveLength(1);
    await slower(0);
  });
});
