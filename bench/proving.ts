import type { Page } from 'puppeteer-core';
import { Client, admin, rowVersion, type Document } from '../tests/support/api';
import { ADMIN, BASE, openBrowser, signedIn } from '../tests/support/browser';
import { line, ms } from './lines';

/* Pages that prove, as somebody waits for them: the reference company, which the bench before this one left, in headless Chromium. */

const PATIENCE_MS = 180_000;

/** Milliseconds from the start of the navigation until something stands on the page. */
async function until(page: Page, path: string, selector: string): Promise<number> {
  await page.goto(BASE + path, { waitUntil: 'domcontentloaded', timeout: PATIENCE_MS });
  await page.waitForSelector(selector, { timeout: PATIENCE_MS });
  return page.evaluate(() => performance.now());
}

/** Opens a page as it is first, and once more. */
async function twice(page: Page, what: string, path: string, selector: string, target = ''): Promise<void> {
  const [first, again] = [await until(page, path, selector), await until(page, path, selector)];
  line(`${what}, first / again`, `${ms(first)} / ${ms(again)}`, target);
}

const PROMISES = [
  { name: 'Help from there', firm: true, dialKinds: ['emergency'], must: 'leaves at its own site' },
  { name: 'No premium', dialKinds: ['premium', 'satellite'], must: 'never reaches', ends: ['the outside'] },
  { name: 'No toll fraud', from: 'outside callers', must: 'never reaches', ends: ['the outside by own choice'] },
];

async function edited(boss: Client, extension: Record<string, unknown>, ringSeconds: number): Promise<void> {
  const id = extension.id as string;
  const value = { ...extension, ringSeconds };
  const edits = [{ kind: 'extension', id, rowVersion: await rowVersion('extension', id), value }];
  const { status } = await boss.post('/edits', { edits });
  if (status !== 200) throw new Error(`answered ${status}`);
}

async function main(): Promise<void> {
  console.log('\nPages that prove, with 20,000 extensions, in Chromium: milliseconds until what was asked stands');
  const boss = await admin();
  const { body: plan } = await boss.get<Document>('/plan');
  const extension = plan.extensions!.find((e) => e.kind !== 'virtual')! as Record<string, unknown>;
  const browser = await openBrowser();
  try {
    const page = await signedIn(browser, ...ADMIN);
    await twice(page, 'problems of the draft', '/problems', '[data-testid=problem], [data-testid=problems] p');
    const phone = `/atlas?phone=${String(extension.digits)}`;
    await twice(page, 'atlas of a phone', phone, '[data-testid=partition]');
    await twice(page, 'reach of all numbers by the week', '/reach', '[data-testid=reach] button');
    const edits = PROMISES.map((set, i) => ({ kind: 'promise', id: `bench-${i}`, set, seen: {} }));
    const { status } = await boss.post('/edits', { edits });
    if (status !== 200) throw new Error(`promises: answered ${status}`);
    await twice(page, 'verdict of a promise, of three', '/promises/bench-0', '[data-testid=verdict][aria-busy=false]');
    await edited(boss, extension, 33);
    const here = `/extensions/${extension.id as string}`;
    await twice(page, 'consequences of an edit, on its object', here, '[data-testid=changed-calls]');
    await twice(page, 'impact of the whole draft', '/impact', '[data-testid=groups] tbody tr');
    await twice(page, 'go live, with the calls that change', '/go-live', '[data-testid=calls-that-change] a');
    await edited(boss, extension, 34);
    const begun = performance.now();
    await page.goto(BASE + here, { waitUntil: 'domcontentloaded' });
    await page.waitForSelector('[data-testid=changed-calls]', { timeout: PATIENCE_MS });
    line('consequences right after another edit', ms(performance.now() - begun));
    const drill = await until(page, '/drills', '[data-testid=groups] button[aria-expanded]');
    line('drills, the first result', ms(drill));
  } finally {
    await browser.close();
  }
}

void main();
