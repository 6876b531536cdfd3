import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { Client, admin, objectIn } from '../support/api';
import { ADMIN, fill, openBrowser, press, signedIn, unfold, visit, waitForText } from '../support/browser';
import { Hand } from '../support/hand';
import { undoTo } from '../support/jobs';

/* Queues, ring groups and reach plans as an administrator makes them, and a queue that is staffed from its own calls. */

jest.setTimeout(180_000);

let browser: Browser;
let page: Page;
let hand: Hand;
let boss: Client;
beforeAll(async () => {
  browser = await openBrowser();
  page = await signedIn(browser, ...ADMIN);
  hand = new Hand(page);
  boss = await admin();
});
afterAll(() => browser.close());

const idOnPage = () => page.url().split('/').at(-1)!;
const until = async (so: () => Promise<boolean>) => {
  for (let i = 0; i < 100; i++) {
    if (await so()) return;
    await new Promise((done) => setTimeout(done, 100));
  }
  throw new Error('it did not come to that');
};

describe('a queue from nothing', () => {
  it('gets its agents in their rank, says what callers meet, and a number leads to it', async () => {
    const { body: before } = await boss.get<object>('/plan');
    await visit(page, '/queues');
    await hand.press('Add queue');
    await hand.into('#add-name', 'Lost on board');
    await hand.into('#add-digits', '6730');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => /\/queues\/[0-9a-f-]{36}$/.test(location.pathname));
    const id = idOnPage();
    for (const who of ['2110', '2112', '2114']) await hand.find('[aria-label="Add to Agents"]', who);
    await page.click('[aria-label^="Move 2114"][aria-label$="up"]');
    const agents = async () => (await objectIn(boss, 'draft', 'queues', id))?.agents as string[];
    await until(async () => (await agents()).join() === 'e-2110,e-2114,e-2112');
    await hand.into('[data-field=longestWaitSeconds]', '90');
    await hand.find('[data-field=waitedTooLong]', 'Mailbox Lost property');
    await hand.into('[data-field=announceEverySeconds]', '30');
    await page.keyboard.press('Tab');
    await waitForText(page, /after 90 s .*Lost property/s, '[data-testid=time-line]');
    await waitForText(page, /Place and wait are said/, '[data-testid=time-line]');
    const wanted = { longestWaitSeconds: 90, waitedTooLong: 'm-lost-property', announceEverySeconds: 30 };
    await until(async () => (await objectIn(boss, 'draft', 'queues', id))?.announceEverySeconds === 30);
    expect(await objectIn(boss, 'draft', 'queues', id)).toMatchObject(wanted);
    // A colleague comes in later, and at closing who waits is sent on.
    await unfold(page, 'Further levels, and other queues');
    await hand.find('[aria-label="Add to Second level"]', '2116');
    await fill(page, '[data-field=secondAfterSeconds]', '45');
    await page.keyboard.press('Tab');
    const bars = () => page.$$eval('[data-testid=time-line] [role=img]', (all) => all.map((e) => e.ariaLabel ?? ''));
    await until(async () => (await bars()).includes('Second level is rung from second 45'));
    await page.select('[data-field=hours]', 'bookings-hours');
    await page.click('[data-field=closingEmpties]');
    const later = { secondAgents: ['e-2116'], secondAfterSeconds: 45, hours: 'bookings-hours', closingEmpties: true };
    await until(async () => (await objectIn(boss, 'draft', 'queues', id))?.closingEmpties === true);
    expect(await objectIn(boss, 'draft', 'queues', id)).toMatchObject({ ...wanted, ...later });
    await undoTo(boss, before);
    expect(await objectIn(boss, 'draft', 'queues', id)).toBeUndefined();
  });
});

describe('the staffing of a queue', () => {
  it('comes from its last weeks: agents by the quarter hour, shifts, agents and strategies side by side, an hour played', async () => {
    await visit(page, '/queues');
    await (await page.waitForSelector('a[href="/queues/bookings-queue"]'))!.click();
    await waitForText(page, /Agents are rung/, '[data-testid=time-line]');
    await press(page, 'Staffing');
    await waitForText(page, /calls were handled in \d+ s on average/, '[data-testid=handling-fit]');
    await press(page, 'Work it out');
    await waitForText(page, /At most \d+ agents? at once/, '[data-testid=shifts]');
    const table = await page.$$eval('section[aria-label="The day"] tbody tr', (rows) =>
      rows.map((r) => [...r.children].map((c) => (c as HTMLElement).textContent)),
    );
    // Every quarter hour with calls has its agents, and they reach the target.
    const { body } = await boss.get<{ arrivals: number[] }>(
      `/calls/queue-figures?queue=bookings-queue&from=${new Date(Date.now() - 56 * 86_400_000).toISOString().slice(0, 10)}`,
    );
    expect(table).toHaveLength(body.arrivals.slice(0, 96).filter((a) => a > 0).length);
    for (const [, , agents, level] of table) {
      expect(Number(agents)).toBeGreaterThan(0);
      expect(parseInt(level!, 10)).toBeGreaterThanOrEqual(80);
    }
    await waitForText(page, /longest idle · this queue’s/, 'section[aria-label="Side by side"]');
    await waitForText(page, /minute 0/, '[data-testid=played-hour]');
  });

  it('what is typed instead stands after leaving, says where it is wrong, and a long simulation is stopped', async () => {
    await page.select('main select', 'typed');
    await page.waitForSelector('[id][role=spinbutton]');
    const box = async (label: string) =>
      (await page.waitForSelector(`::-p-xpath(//*[@id=//label[normalize-space(.)="${label}"]/@for])`))!;
    const type = async (label: string, text: string) => {
      await (await box(label)).click({ count: 3 });
      await page.keyboard.type(text);
    };
    for (const hour of ['09:00', '10:00', '11:00', '12:00']) await type(hour, '9000');
    await type('Answered', '150');
    await waitForText(page, 'takes a figure from 1 to 99.9', '[role=alert]');
    await type('Answered', '90');
    await visit(page, '/');
    await visit(page, '/queues/bookings-queue/staffing');
    const valueOf = async (label: string) => (await box(label)).evaluate((e) => (e as HTMLInputElement).value);
    expect([await valueOf('12:00'), await valueOf('Answered')]).toEqual(['9000', '90']);
    await press(page, 'Work it out');
    await waitForText(page, /Simulating/, '[data-testid=sizing-bar]');
    // The page answers while it runs.
    await type('Answered', '70');
    expect(await valueOf('Answered')).toBe('70');
    await press(page, 'Stop');
    await page.waitForFunction(() => !document.querySelector('[data-testid=sizing-bar]'));
    await page.evaluate(() => localStorage.clear());
  });
});

describe('a ring group', () => {
  it('shows whose phone rings when, at once when its order is changed', async () => {
    const { body: before } = await boss.get<object>('/plan');
    await visit(page, '/ring-groups/bookings-desk');
    await waitForText(page, /after 25 s/, '[data-testid=time-line]');
    await page.select('[data-field=order]', 'in turn');
    await waitForText(page, /after 100 s/, '[data-testid=time-line]');
    // By stages says how long each is, and a mobile outside joins last.
    await page.select('[data-field=order]', 'by stages');
    await hand.into('[data-field=shownName]', 'Desk');
    await page.keyboard.press('Tab');
    await page.waitForSelector('[data-field=stageSeconds]');
    await page.select('[aria-label="Add to Outside members"]', 'crew-night');
    const bars = () => page.$$eval('[data-testid=time-line] [role=img]', (all) => all.map((e) => e.ariaLabel ?? ''));
    await until(async () => (await bars()).some((b) => /Crew duty.*, outside rings from second 20 to 25$/.test(b)));
    await until(async () => {
      const group = await objectIn(boss, 'draft', 'ringGroups', 'bookings-desk');
      return group?.order === 'by stages' && group.shownName === 'Desk' && String(group.outside) === 'crew-night';
    });
    // Written one by one, they are drawn as they are; what is not written so is told at its field, and stays.
    await hand.into('[data-field=stages]', '1 for');
    await page.keyboard.press('Tab');
    await waitForText(page, 'takes stages like 1 for 5, 2 for 10, 3');
    expect(await page.$eval('[data-field=stages]', (e) => (e as HTMLInputElement).value)).toBe('1 for');
    await fill(page, '[data-field=stages]', '1 for 12, 2');
    await page.keyboard.press('Tab');
    await until(async () => (await bars()).some((b) => /Crew duty.*, outside rings from second 12 to 25$/.test(b)));
    await undoTo(boss, before);
  });
});

describe('a reach plan', () => {
  it('is built step by step; its line says who rings when, and steps are moved', async () => {
    const { body: before } = await boss.get<object>('/plan');
    await visit(page, '/reach-plans');
    await hand.press('Add reach plan');
    await hand.into('#add-name', 'Night porter');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => /\/reach-plans\/[0-9a-f-]{36}$/.test(location.pathname));
    const id = idOnPage();
    const steps = () => page.$$('[data-testid=reach-step]').then((all) => all.length);
    // A page that has just come may take a moment until it takes clicks.
    for (let tries = 0; tries < 5 && !(await page.$('[aria-label="Which phone rings"]')); tries++) {
      await hand.press('Add a phone');
      await page.waitForSelector('[aria-label="Which phone rings"]', { timeout: 3000 }).catch(() => null);
    }
    await hand.find('[aria-label="Which phone rings"]', '2112');
    await until(async () => (await steps()) === 1);
    await hand.press('Add an outside number');
    await page.select('[aria-label="Which outside number rings"]', 'crew-night');
    await until(async () => (await steps()) === 2);
    const bars = () => page.$$eval('[data-testid=time-line] [role=img]', (all) => all.map((e) => e.ariaLabel ?? ''));
    await until(async () => (await bars()).some((b) => /Crew duty.*rings from second 20 to 40$/.test(b)));
    await page.click('[aria-label="Step 2: together with the step before"]');
    await until(async () => (await bars()).some((b) => /Crew duty.*rings from second 0 to 20$/.test(b)));
    await page.click('[aria-label="Move Step 2 up"]');
    const draftSteps = async () => {
      const { body } = await boss.get<{
        reachSteps: { reachPlan: string; position: number; outside: string | null }[];
      }>('/plan');
      return body.reachSteps.filter((s) => s.reachPlan === id).sort((a, b) => a.position - b.position);
    };
    await until(async () => (await draftSteps())[0]?.outside === 'crew-night');
    expect(await draftSteps()).toMatchObject([{ outside: 'crew-night', withPrevious: true }, { extension: 'e-2112' }]);
    // The mobile rings out of hours only.
    await page.click('[aria-label="Only sometimes: step 1"]');
    await page.select('[aria-label="Hours of step 1"]', 'crew-day');
    await page.waitForSelector('[aria-label="When step 1 is taken"]');
    await page.select('[aria-label="When step 1 is taken"]', 'closed');
    await until(async () => (await bars()).some((b) => /Crew duty.*, at some times only$/.test(b)));
    const first = async () => (await draftSteps())[0] as object | undefined;
    await until(async () => JSON.stringify(await first()).includes('"when":"closed"'));
    expect(await first()).toMatchObject({ hours: 'crew-day', when: 'closed' });
    await undoTo(boss, before);
  });
});
