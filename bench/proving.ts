import type { Page } from 'puppeteer-core';
import { Client, admin, rowVersion, type Document } from '../tests/support/api';
import { closePool } from '@/server/db/pool';
import { REFERENCE } from '../demo/generate';
import { ADMIN, BASE, openBrowser, signedIn, visit } from '../tests/support/browser';
import { loadReference } from './company';
import { line, median, ms } from './lines';

/* Pages that prove, as somebody waits for them: the reference company (made here, where no bench before did) in headless Chromium. */

const PATIENCE_MS = 180_000;
const VISITS = 4;

/** Milliseconds from the start of the navigation until something stands on the page. */
async function until(page: Page, path: string, selector: string): Promise<number> {
  await page.goto(BASE + path, { waitUntil: 'domcontentloaded', timeout: PATIENCE_MS });
  await page.waitForSelector(selector, { timeout: PATIENCE_MS });
  return page.evaluate(() => performance.now());
}

/** Opens a page as it is first, and some more times. */
async function opened(page: Page, what: string, path: string, selector: string, target = ''): Promise<void> {
  const times = [];
  // The engine's threads hold each their own: both are warm by then.
  for (let i = 0; i < VISITS; i++) times.push(await until(page, path, selector));
  const [first, ...more] = times;
  const again = median(more);
  line(`${what}, first / then`, `${ms(first!)} / ${ms(again)}`, target);
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
  let { body: plan } = await boss.get<Document>('/plan');
  if (plan.extensions!.length < REFERENCE.extensions) {
    await loadReference(async () => {});
    ({ body: plan } = await boss.get<Document>('/plan'));
  }
  const extension = plan.extensions!.find((e) => e.kind !== 'virtual')! as Record<string, unknown>;
  const browser = await openBrowser();
  try {
    const page = await signedIn(browser, ...ADMIN);
    // Whoever signs in sees this first.
    await visit(page, '/');
    await opened(page, 'problems of the draft', '/problems', '[data-testid=problem], [data-testid=problems] p');
    const phone = `/atlas?phone=${String(extension.digits)}`;
    await opened(page, 'atlas of a phone', phone, '[data-testid=partition]');
    await opened(page, 'reach of all numbers by the week', '/reach', '[data-testid=reach] button');
    const edits = PROMISES.map((of, i) => ({
      kind: 'promise',
      id: `bench-${i}`,
      rowVersion: null,
      value: { id: `bench-${i}`, ...of },
    }));
    const made = await boss.post('/edits', { edits });
    if (made.status !== 200) throw new Error(`promises: ${JSON.stringify(made.body)}`);
    await opened(page, 'verdict of a promise, of three', '/promises/bench-0', '[data-testid=verdict][aria-busy=false]');
    await edited(boss, extension, 33);
    const here = `/extensions/${extension.id as string}`;
    await opened(page, 'consequences of an edit, on its object', here, '[data-testid=changed-calls]');
    await opened(page, 'impact of the whole draft', '/impact', '[data-testid=groups] tbody tr');
    await opened(page, 'go live, with the calls that change', '/go-live', '[data-testid=calls-that-change] a');
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

main()
  .finally(closePool)
  .catch((e: unknown) => {
    console.error(e);
    process.exitCode = 1;
  });
