import { readFileSync, readdirSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import { Client, admin } from '../support/api';
import { ADMIN, openBrowser, signedIn, visit, waitForText } from '../support/browser';

/* The engine dies on purpose: what was asked is answered by the one that is started in its place. */

jest.setTimeout(90_000);

let boss: Client;
let browser: Browser;
beforeAll(async () => {
  boss = await admin();
  browser = await openBrowser();
});
afterAll(() => browser.close());

/** The engine of the application under test, and no other on this machine. */
function engine(): number | null {
  for (const pid of readdirSync('/proc').filter((p) => /^\d+$/.test(p))) {
    try {
      const line = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
      const port = `POLYDROME_PORT=${process.env.POLYDROME_PORT}\0`;
      if (line.endsWith('engine.mjs\0') && readFileSync(`/proc/${pid}/environ`, 'utf8').includes(port))
        return Number(pid);
    } catch {
      // It has ended meanwhile.
    }
  }
  return null;
}

async function killed(): Promise<number> {
  const pid = engine();
  if (pid === null) throw new Error('there is no engine to kill');
  process.kill(pid, 'SIGKILL');
  return pid;
}

describe('the engine dies', () => {
  it('and a question that was asked meanwhile is answered by the next one', async () => {
    const before = await killed();
    const [answer, health] = await Promise.all([boss.get('/ask?text=2101 > 999'), boss.get('/health')]);
    expect(health.status).toBe(200);
    expect(answer.status).toBe(200);
    expect(engine()).not.toBe(before);
  });

  it('and an edit made meanwhile is made once', async () => {
    const id = 'engine-gone';
    const value = { id, name: 'Made without an engine', site: 'north-quay' };
    await killed();
    const made = await boss.post('/edits', { edits: [{ kind: 'person', id, rowVersion: null, value }] });
    expect(made.status).toBe(200);
    expect((await boss.post('/edits', { edits: [{ kind: 'person', id, rowVersion: 1, value: null }] })).status).toBe(
      200,
    );
  });

  it('and a page that was asked for meanwhile comes', async () => {
    const page = await signedIn(browser, ...ADMIN);
    await killed();
    await visit(page, '/extensions/e-2101');
    await waitForText(page, '2101');
    await killed();
    await visit(page, '/');
    await waitForText(page, 'Today', 'h1');
  });
});
