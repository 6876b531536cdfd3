import { expect } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { visit } from './browser';
import { until as eventually } from './until';

/** Milliseconds that every request takes longer: the middle one, in long runs the shorter and the longer too. */
export const DELAYS: readonly (200 | 500 | 2000)[] = process.env.POLYDROME_SOAK ? [200, 500, 2000] : [500];

/** Typing and waiting in a page whose line is slow. */
export function onSlowLine(page: () => Page) {
  /** Every request takes so much longer from here on. */
  async function slower(latency: number): Promise<void> {
    // A page that shows nothing yet has no server to ask.
    if (page().url() === 'about:blank') await visit(page(), '/');
    await page().emulateNetworkConditions(latency === 0 ? null : { latency, download: -1, upload: -1 });
    let took = -1;
    // It holds from some request on.
    for (let i = 0; i < 10 && took < latency; i++) {
      const begun = Date.now();
      await page().evaluate(() => fetch('/api/v1/health', { cache: 'no-store' }));
      took = Date.now() - begun;
    }
    // A delay that is none would prove nothing.
    expect(took).toBeGreaterThanOrEqual(latency);
  }

  /** Replaces what stands in a field at once, without leaving it. */
  async function typeInto(selector: string, text: string): Promise<void> {
    await page().focus(selector);
    await page().$eval(selector, (e) => (e as HTMLInputElement).select());
    await page().keyboard.type(text);
  }

  const valueOf = (selector: string) => page().$eval(selector, (e) => (e as HTMLInputElement).value);

  /** Waits until something is so; what stands on the page says why it is not. */
  const until = (what: () => Promise<boolean>) =>
    eventually(what, async () => {
      const said = await page().$$eval('[role=alert], [role=alertdialog], [data-testid=on-its-way]', (es) =>
        es.map((e) => (e as HTMLElement).innerText),
      );
      return said.join(' | ');
    });

  /** Nothing is on its way to the draft any more, and the page shows the draft as it stands. */
  async function idle(): Promise<void> {
    await page().waitForFunction(
      async () => {
        if (document.querySelector('[data-testid=on-its-way]')?.getAttribute('data-waiting') !== '0') return false;
        const health = (await (await fetch('/api/v1/health', { cache: 'no-store' })).json()) as {
          draftVersion: number;
        };
        return document.querySelector(`[data-draft-version="${health.draftVersion}"]`) !== null;
      },
      { timeout: 60_000, polling: 200 },
    );
  }

  return { slower, typeInto, valueOf, until, idle };
}
