import type { Page } from 'puppeteer-core';
import { pinRefusal } from '@/core/plan';
import { Client, admin, type Document } from '../tests/support/api';
import { ADMIN, BASE, openBrowser, signedIn } from '../tests/support/browser';
import { ended } from '../tests/support/jobs';
import { line, median, seconds } from './lines';

/* Work with 20,000 people as somebody feels it: the reference company, which the bench before this one left, in headless Chromium. */

/** Milliseconds from the start of the navigation until the first row stands. */
async function firstRows(page: Page, path: string): Promise<number> {
  await page.goto(`${BASE}${path}`, { waitUntil: 'domcontentloaded' });
  await page.waitForSelector('[data-row]', { timeout: 60_000 });
  return page.evaluate(() => {
    const paints = performance.getEntriesByType('paint');
    return Math.max(...paints.map((p) => p.startTime));
  });
}

/** Milliseconds from the last key in the filter until the rows that fit stand. */
async function filter(page: Page, text: string): Promise<number> {
  await page.$eval('[aria-label="Filter People"]', (e) => (e as HTMLInputElement).select());
  await page.type('[aria-label="Filter People"]', text.slice(0, -1));
  await new Promise((done) => setTimeout(done, 400));
  await page.evaluate(() => {
    const at = window as unknown as { lastKey: number };
    document.addEventListener('keydown', () => (at.lastKey = performance.now()), { once: true, capture: true });
  });
  await page.keyboard.press(text.at(-1) as 'a');
  return page.evaluate(
    (wanted) =>
      new Promise<number>((done) => {
        const look = () =>
          document.querySelector('[data-query]')!.getAttribute('data-query')!.startsWith(wanted)
            ? done(performance.now() - (window as unknown as { lastKey: number }).lastKey)
            : requestAnimationFrame(look);
        look();
      }),
    `${new URLSearchParams({ filter: text }).toString()}&`,
  );
}

/** Jumps through the whole list; milliseconds until every row in sight stands, slowest first. */
async function scroll(page: Page, jumps: number): Promise<number[]> {
  return page.evaluate(async (count) => {
    const scroller = document.querySelector('[data-testid=ledger-scroller]')!;
    const times: number[] = [];
    for (let i = 1; i <= count; i++) {
      scroller.scrollTop = (scroller.scrollHeight * ((i * 37) % count)) / count;
      const from = performance.now();
      await new Promise<void>((done) => {
        const look = () => {
          const box = scroller.getBoundingClientRect();
          const waiting = [...scroller.querySelectorAll('[aria-hidden]')].filter((e) => {
            const r = e.getBoundingClientRect();
            return r.height > 30 && r.bottom > box.top && r.top < box.bottom;
          });
          const rows = scroller.querySelectorAll('[data-row]').length;
          if (waiting.length === 0 && rows > 0 && performance.now() - from > 20) done();
          else requestAnimationFrame(look);
        };
        requestAnimationFrame(look);
      });
      times.push(performance.now() - from);
    }
    return times.sort((a, b) => b - a);
  }, jumps);
}

async function bulk(boss: Client): Promise<void> {
  const { extensions } = (await boss.get<Document>('/plan')).body;
  const ids = extensions!.slice(0, 5000).map((e) => e.id);
  const started = performance.now();
  const { body } = await boss.post<{ job: string }>('/bulk', {
    of: { ledger: 'extension', ids },
    change: { ringSeconds: 31 },
  });
  const job = await ended(boss, body.job);
  line(
    `bulk edit of 5,000 extensions (${job.state}, ${String(job.result.changed)} changed)`,
    `${seconds(started).toFixed(1)} s`,
    '5 s',
  );
  const undo = performance.now();
  const undone = await boss.post<{ job?: string }>('/edits/undo');
  if (undone.body.job) await ended(boss, undone.body.job);
  line('its undo', `${seconds(undo).toFixed(1)} s`, 'none set');
}

/** A PIN that is not refused, another for each row. */
function pinFor(i: number): string {
  for (let n = 258_000 + i; ; n++) if (!pinRefusal(String(n), null)) return String(n);
}

async function bring(boss: Client): Promise<void> {
  const rows = Array.from(
    { length: 20_000 },
    (_, i) => `${600000 + i},Imported ${i},imported${i}@bench.example,yes,${pinFor(i)}`,
  );
  const csv = `Extension,Name,E-mail,Mailbox,PIN\r\n${rows.join('\r\n')}\r\n`;
  const kept = await boss.file('/imports?name=bench.csv', csv);
  const settings = { class: 'staff', site: 'site-0' };
  const run = async (what: 'check' | 'apply') => {
    const started = performance.now();
    const { body } = await boss.post<{ job: string }>(`/imports/${kept.body.id}/${what}`, settings);
    const job = await ended(boss, body.job, 300_000);
    return { took: seconds(started), job };
  };
  const checked = await run('check');
  line(
    `check of 20,000 rows (${JSON.stringify(checked.job.result.counts)})`,
    `${checked.took.toFixed(1)} s`,
    'none set',
  );
  const { job, took } = await run('apply');
  line(
    `import of 20,000 rows with mailbox and PIN (${job.state}, ${String(job.result.written)} objects)`,
    `${took.toFixed(1)} s`,
    '60 s',
  );
  const undo = performance.now();
  const undone = await boss.post<{ job?: string }>('/edits/undo');
  if (undone.body.job) await ended(boss, undone.body.job, 300_000);
  line('its undo', `${seconds(undo).toFixed(1)} s`, 'none set');
}

/** Milliseconds from each move of the pointer over the week of hours until what it would paint stands, drawn out of 60 moves. */
async function painting(page: Page): Promise<number[]> {
  await page.goto(`${BASE}/hours`, { waitUntil: 'networkidle0' });
  const path = await page.$eval('main [role=row] a', (e) => e.getAttribute('href')!);
  await page.goto(BASE + path, { waitUntil: 'networkidle0' });
  const painter = (await page.waitForSelector('[data-testid=week-painter]'))!;
  await painter.evaluate((e) => {
    const at = window as unknown as { moved: number; took: number[] };
    at.took = [];
    e.addEventListener('pointermove', () => (at.moved = performance.now()), { capture: true });
    new MutationObserver(() => {
      if (at.moved) at.took.push(performance.now() - at.moved);
      at.moved = 0;
    }).observe(e, { subtree: true, childList: true, attributes: true });
  });
  const box = (await painter.boundingBox())!;
  await page.mouse.move(box.x + 20, box.y + 20);
  await page.mouse.down();
  for (let i = 1; i <= 60; i++) await page.mouse.move(box.x + 20 + i * ((box.width - 40) / 60), box.y + 20 + i * 2);
  const took = await page.evaluate(() => (window as unknown as { took: number[] }).took);
  await page.mouse.up();
  return took;
}

async function main(): Promise<void> {
  console.log('\nWork with 20,000 people in the running application');
  const browser = await openBrowser();
  try {
    const page = await signedIn(browser, ...ADMIN);
    const { count } = (await (await admin()).get<{ count: number }>('/ledgers/extension')).body;
    if (count < 20_000) throw new Error(`only ${count} extensions are here: nothing would be measured`);
    await firstRows(page, '/people');
    const opened: number[] = [];
    for (let i = 0; i < 7; i++) opened.push(await firstRows(page, '/people'));
    line('people, from navigation to first rows painted (median of 7)', `${median(opened).toFixed(0)} ms`, '500 ms');
    await page.waitForNetworkIdle();
    const typed: number[] = [];
    for (const text of ['chloe', 'holm', 'quay 7', 'ada berg', '2123', 'pia k', 'slip 1', 'jorg', 'nuno'])
      typed.push(await filter(page, text));
    line('filter, last key to rows (median of 9)', `${median(typed).toFixed(0)} ms`, '100 ms');
    line('the slowest of them', `${Math.max(...typed).toFixed(0)} ms`, '100 ms');
    await page.goto(`${BASE}/people`, { waitUntil: 'networkidle0' });
    const times = await scroll(page, 40);
    line(
      'jump anywhere in 20,000 rows until all in sight stand (median of 40)',
      `${median(times).toFixed(0)} ms`,
      'no gaps',
    );
    line('the slowest of them', `${times[0]!.toFixed(0)} ms`, 'no gaps');
    const painted = await painting(page);
    line(
      `painting a week, pointer to picture (median of ${painted.length})`,
      `${median(painted).toFixed(1)} ms`,
      '16 ms',
    );
    line('the slowest of them', `${Math.max(...painted).toFixed(1)} ms`, '16 ms');
    const boss = await admin();
    await bulk(boss);
    await bring(boss);
  } finally {
    await browser.close();
  }
}

main().catch((e: unknown) => {
  console.error(e);
  process.exitCode = 1;
});
