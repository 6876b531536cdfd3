import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import { build } from 'esbuild';
import type { Browser } from 'puppeteer-core';
import { BASE, newPage, openBrowser } from '../support/browser';
import { answers } from '../support/worker-questions';

jest.setTimeout(120_000);
let browser: Browser;
beforeAll(async () => {
  browser = await openBrowser();
});
afterAll(() => browser.close());

/* The engine knows neither Node nor the browser: the same code answers the same bytes in a web worker. */

describe('core in a web worker', () => {
  it('gives the same bytes as in Node: traces, courses, partitions, problems, load', async () => {
    const bundle = await build({
      stdin: {
        contents: "import { answers } from './worker-questions'; onmessage = (e) => postMessage(answers(e.data));",
        resolveDir: 'tests/support',
      },
      bundle: true,
      write: false,
      format: 'iife',
      platform: 'browser',
      tsconfig: 'tsconfig.json',
    });
    const plan = readFileSync('demo/plan.yaml', 'utf8');
    const here = answers(plan);
    expect(here.length).toBeGreaterThan(100_000);
    const page = await newPage(browser);
    // The application's own pages allow no code from elsewhere; this is about the engine, not about them.
    await page.setBypassCSP(true);
    await page.goto(`${BASE}/sign-in`);
    const there = await page.evaluate(
      async (code, text) => {
        const worker = new Worker(URL.createObjectURL(new Blob([code], { type: 'text/javascript' })));
        return new Promise<string>((done, failed) => {
          worker.onmessage = (e) => done(e.data as string);
          worker.onerror = (e) => failed(new Error(e.message));
          worker.postMessage(text);
        });
      },
      bundle.outputFiles[0]!.text,
      plan,
    );
    const sum = (text: string) => createHash('sha256').update(text).digest('hex');
    expect([there.length, sum(there)]).toEqual([here.length, sum(here)]);
  });
});
