import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import { Client, admin } from '../support/api';
import { ADMIN, openBrowser, signedIn, visit, waitForText } from '../support/browser';
import { killed, processOf } from '../support/processes';

/* The engine dies on purpose: what was asked is answered by the one that is started in its place. */

jest.setTimeout(180_000);

let boss: Client;
let browser: Browser;
beforeAll(async () => {
  boss = await admin();
  browser = await openBrowser();
});
afterAll(() => browser.close());

const ENGINE = '.build/engine.mjs';

describe('the engine dies', () => {
  it('and a question that was asked meanwhile is answered by the next one', async () => {
    const before = killed(ENGINE);
    const [answer, health] = await Promise.all([boss.get('/ask?text=2101 > 999'), boss.get('/health')]);
    expect(health.status).toBe(200);
    expect(answer.status).toBe(200);
    expect(processOf(ENGINE)).not.toBe(before);
  });

  it('and an edit made meanwhile is made once', async () => {
    const id = 'engine-gone';
    const value = { id, name: 'Made without an engine', site: 'north-quay' };
    killed(ENGINE);
    const made = await boss.post('/edits', { edits: [{ kind: 'person', id, rowVersion: null, value }] });
    expect(made.status).toBe(200);
    expect((await boss.post('/edits', { edits: [{ kind: 'person', id, rowVersion: 1, value: null }] })).status).toBe(
      200,
    );
  });

  it('and a page that was asked for meanwhile comes', async () => {
    const page = await signedIn(browser, ...ADMIN);
    killed(ENGINE);
    await visit(page, '/extensions/e-2101');
    await waitForText(page, '2101');
    killed(ENGINE);
    await visit(page, '/');
    await waitForText(page, 'Today', 'h1');
  });
});
