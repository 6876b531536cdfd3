import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { Client, admin, objectIn } from '../support/api';
import { ADMIN, fill, openBrowser, signedIn, visit, waitForText } from '../support/browser';

jest.setTimeout(120_000);
let browser: Browser;
let page: Page;
let boss: Client;

beforeAll(async () => {
  browser = await openBrowser();
  page = await signedIn(browser, ...ADMIN);
  boss = await admin();
});
afterAll(() => browser.close());

function killDatabase(): void {
  process.kill(Number(readFileSync(join(process.env.POLYDROME_DATA!, 'mysql.pid'), 'utf8')), 'SIGKILL');
}

async function healthy(): Promise<void> {
  for (let i = 0; i < 150; i++) {
    const { status } = await boss.get('/health');
    if (status === 200) return;
    await new Promise((done) => setTimeout(done, 200));
  }
  throw new Error('the database did not come back');
}

describe('the database is killed under the running application', () => {
  it('the page says so plainly, typing is kept, and all goes on by itself', async () => {
    await visit(page, '/people/p-3012');
    killDatabase();
    const down = await boss.get('/health');
    expect({ status: down.status, code: down.body.error?.code }).toEqual({ status: 503, code: 'database-gone' });
    await fill(page, '[data-field=name]', 'Typed In The Dark');
    await page.keyboard.press('Tab');
    await waitForText(page, 'The database does not answer', 'body', 20_000);
    expect(await page.$eval('[data-field=name]', (e) => (e as HTMLInputElement).value)).toBe('Typed In The Dark');
    await healthy();
    await page.waitForFunction(() => !document.querySelector('[data-testid=database-gone]'), { timeout: 60_000 });
    expect(await page.$eval('[data-field=name]', (e) => (e as HTMLInputElement).value)).toBe('Typed In The Dark');
    await page.focus('[data-field=name]');
    await page.keyboard.press('Tab');
    await waitForText(page, 'edited, not live yet');
    expect(await objectIn(boss, 'draft', 'people', 'p-3012')).toMatchObject({ name: 'Typed In The Dark' });
    await boss.post('/edits/undo', { kind: 'person', id: 'p-3012' });
  });

  it('a page opened meanwhile says so and comes by itself', async () => {
    await visit(page, '/people');
    killDatabase();
    await page.goto(page.url().replace('/people', '/numbers'), { waitUntil: 'domcontentloaded' });
    await waitForText(page, 'The database does not answer', 'body', 20_000);
    await healthy();
    await waitForText(page, '+44 1632 960101', 'body', 30_000);
  });

  it('loses nothing that was answered, and does nothing by halves', async () => {
    const made: number[] = [];
    const writing = (async () => {
      for (let i = 0; i < 60; i++) {
        const got = await boss.post('/edits', {
          edits: [
            {
              kind: 'person',
              id: `dark-${i}`,
              rowVersion: null,
              value: { id: `dark-${i}`, name: `Dark ${i}`, site: 'north-quay' },
            },
            {
              kind: 'mailbox',
              id: `dark-box-${i}`,
              rowVersion: null,
              value: { id: `dark-box-${i}`, name: `Dark ${i}`, site: 'north-quay', owners: [`dark-${i}`] },
            },
          ],
        });
        if (got.status === 200) made.push(i);
        if (i === 15) killDatabase();
      }
    })();
    await writing;
    await healthy();
    const plan = (await boss.get<Record<string, { id: string }[]>>('/plan')).body;
    const people = plan.people!.filter((p) => p.id.startsWith('dark-')).map((p) => Number(p.id.slice(5)));
    const boxes = plan.mailboxes!.filter((m) => m.id.startsWith('dark-box-')).map((m) => Number(m.id.slice(9)));
    expect(made.length).toBeGreaterThan(10);
    expect(made.filter((i) => !people.includes(i))).toEqual([]);
    expect(people.sort()).toEqual(boxes.sort());
    for (const i of people)
      await boss
        .post('/edits/undo', { kind: 'mailbox', id: `dark-box-${i}` })
        .then(() => boss.post('/edits/undo', { kind: 'person', id: `dark-${i}` }));
  });

  it('that hangs without dying is told within two seconds, and work goes on when it goes on', async () => {
    await healthy();
    const database = Number(readFileSync(join(process.env.POLYDROME_DATA!, 'mysql.pid'), 'utf8'));
    process.kill(database, 'SIGSTOP');
    try {
      // It stops thread by thread.
      await new Promise((done) => setTimeout(done, 200));
      for (let i = 0; i < 3; i++) {
        const begun = Date.now();
        const { status, body } = await boss.get('/health');
        expect([status, body.error?.code]).toEqual([503, expect.stringMatching(/^database-/)]);
        expect(Date.now() - begun).toBeLessThan(2000);
      }
    } finally {
      process.kill(database, 'SIGCONT');
    }
    await healthy();
    expect((await boss.get<{ worker: boolean; engine: boolean }>('/health')).body).toMatchObject({ engine: true });
    expect((await boss.get('/edits')).status).toBe(200);
  });
});
