import { existsSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer, { type Browser, type BrowserContext, type Page } from 'puppeteer-core';

const FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--hide-scrollbars',
  // A microphone that hums, and nobody asked whether it may be used.
  '--use-fake-device-for-media-stream',
  '--use-fake-ui-for-media-stream',
];

/** Where the application under test runs. */
export const BASE = `http://127.0.0.1:${process.env.POLYDROME_PORT ?? 4700}`;

export function openBrowser(): Promise<Browser> {
  const executablePath = ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find(existsSync);
  if (!executablePath) throw new Error('Chromium is missing; the test command installs it');
  return puppeteer.launch({
    executablePath,
    headless: true,
    args: [...FLAGS, `--user-data-dir=${mkdtempSync(join(tmpdir(), 'polydrome-'))}`],
  });
}

/** How long a page is waited for, and what is on it: a slow machine proves nothing wrong. */
const PATIENCE_MS = 80_000;

export type Theme = 'light' | 'dark';

/** A page that is waited for with patience. */
export async function newPage(context: Browser | BrowserContext): Promise<Page> {
  const page = await context.newPage();
  page.setDefaultTimeout(PATIENCE_MS);
  return page;
}

/** A page of its own session, signed in, in one theme; it shows nothing yet. The form to sign in by has tests of its own. */
export async function signedIn(
  browser: Browser,
  name: string,
  password: string,
  theme: Theme = 'light',
  size = { width: 1280, height: 800 },
): Promise<Page> {
  const context = await browser.createBrowserContext();
  const page = await newPage(context);
  await page.setViewport(size);
  await page.emulateMediaFeatures([
    { name: 'prefers-color-scheme', value: theme },
    { name: 'prefers-reduced-motion', value: 'reduce' },
  ]);
  await context.setCookie({ ...(await sessionOf(name, password)), domain: new URL(BASE).hostname, httpOnly: true });
  return page;
}

/** The cookie of a new session. */
export async function sessionOf(name: string, password: string): Promise<{ name: string; value: string }> {
  const answer = await fetch(`${BASE}/api/v1/session`, {
    method: 'POST',
    body: JSON.stringify({ name, password }),
    headers: { 'content-type': 'application/json' },
  });
  const cookie = /(polydrome_session)=([^;]+)/.exec(answer.headers.get('set-cookie') ?? '');
  if (!cookie) throw new Error(`sign-in of ${name}: ${answer.status}`);
  return { name: cookie[1]!, value: cookie[2]! };
}

/** Opens a path and waits until it stands. */
export async function visit(page: Page, path: string): Promise<void> {
  await page.goto(BASE + path, { waitUntil: 'networkidle0' });
  await page.waitForSelector('h1');
  await awake(page);
}

/** Waits until React has taken over what the server drew, so that keys and clicks are answered (a slow machine draws first). */
async function awake(page: Page): Promise<void> {
  await page.waitForFunction(
    () =>
      [...document.querySelectorAll('h1, main button, main [role=row]')].every((e) =>
        Object.keys(e).some((k) => k.startsWith('__reactProps')),
      ),
    { timeout: 60_000 },
  );
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => setTimeout(done, 50))));
}

/** Waits until the page's text holds something, to be seen. */
export async function waitForText(
  page: Page,
  text: string | RegExp,
  selector = 'body',
  timeout = 60_000,
): Promise<void> {
  const source = text instanceof RegExp ? text.source : text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
  await page.waitForFunction(
    (s: string, re: string) =>
      [...document.querySelectorAll(s)].some(
        (e) =>
          e.checkVisibility({ opacityProperty: true, visibilityProperty: true }) &&
          new RegExp(re).test((e as HTMLElement).innerText),
      ),
    { timeout },
    selector,
    source,
  );
}

/** Clicks the button or link with this text. */
export async function press(page: Page, text: string): Promise<void> {
  const handle = await page.waitForSelector(
    `::-p-xpath(//button[normalize-space(.)="${text}"] | //a[normalize-space(.)="${text}"])`,
    { timeout: 60_000 },
  );
  await handle!.click();
}

/** Unfolds a part of an object's page that is rarely set. */
export async function unfold(page: Page, title: string): Promise<void> {
  const button = await page.waitForSelector(`section[aria-label="${title}"] button[aria-expanded]`);
  if (await button!.evaluate((e) => e.getAttribute('aria-expanded') === 'false')) await button!.click();
}

/** Replaces what stands in a field and leaves it. */
export async function fill(page: Page, selector: string, text: string): Promise<void> {
  await page.waitForSelector(selector);
  await page.click(selector, { count: 3 });
  await page.keyboard.press('Backspace');
  await page.type(selector, text);
}

export const ADMIN = ['admin', 'quay-lantern-42'] as const;
export const HELPDESK = ['helpdesk', 'berth-whistle-17'] as const;
export const AUDITOR = ['auditor', 'ledger-beacon-93'] as const;
