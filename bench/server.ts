import { readFileSync, readdirSync } from 'node:fs';
import { closePool } from '@/server/db/pool';
import { Client, admin, rowVersion, type Document } from '../tests/support/api';
import { ADMIN, BASE } from '../tests/support/browser';
import { ended } from '../tests/support/jobs';
import { loadReference } from './company';
import { line, median, ms, quantile } from './lines';

/* The running application with 20,000 extensions, asked over HTTP as browsers and the API's users do. */

interface Timing {
  first: number;
  whole: number;
}

let cookie = '';

/** Milliseconds until the first byte of a page's body and until its last; a page that is none stops the bench. */
async function page(path: string): Promise<Timing> {
  const begun = performance.now();
  const response = await fetch(`${BASE}${path}`, { headers: { cookie }, redirect: 'manual' });
  if (response.status !== 200) throw new Error(`${path}: ${response.status}`);
  const reader = response.body!.getReader();
  await reader.read();
  const first = performance.now() - begun;
  while (!(await reader.read()).done);
  return { first, whole: performance.now() - begun };
}

async function repeat<T>(times: number, work: (i: number) => Promise<T>): Promise<T[]> {
  const out: T[] = [];
  for (let i = 0; i < times; i++) out.push(await work(i));
  return out;
}

async function timed(work: () => Promise<{ status: number }>): Promise<number> {
  const begun = performance.now();
  const { status } = await work();
  if (status !== 200) throw new Error(`answered ${status}`);
  return performance.now() - begun;
}

async function pages(paths: readonly string[]): Promise<void> {
  console.log('\npages: first byte / complete, medians of 5');
  const firsts: number[] = [];
  for (const path of paths) {
    await page(path);
    const got = await repeat(5, () => page(path));
    const first = median(got.map((g) => g.first));
    firsts.push(first);
    line(path, `${ms(first)} / ${ms(median(got.map((g) => g.whole)))}`, path === '/' ? '200 / 500 ms' : '');
  }
  line('the slowest page’s first byte', ms(Math.max(...firsts)), '200 ms');
}

/** Edits one extension over the API, over and over, and opens views right after. */
async function edits(boss: Client, plan: Document): Promise<void> {
  console.log('\nediting one extension');
  const extension = plan.extensions![77]!;
  const edit = async (i: number) => {
    const version = await rowVersion('extension', extension.id);
    const value = { ...extension, name: `Renamed ${i}` };
    return timed(() =>
      boss.post('/edits', { edits: [{ kind: 'extension', id: extension.id, rowVersion: version, value }] }),
    );
  };
  await edit(0);
  const took = await repeat(20, (i) => edit(i + 1));
  line('one edit, median / slowest of 20', `${ms(median(took))} / ${ms(Math.max(...took))}`, '100 ms');
  for (const path of [`/extensions/${extension.id}`, '/extensions', '/people', '/outbound', '/go-live', '/']) {
    const after = await repeat(5, async (i) => {
      await edit(100 + i);
      return page(path);
    });
    line(
      `${path} right after it, first byte / complete`,
      `${ms(median(after.map((a) => a.first)))} / ${ms(median(after.map((a) => a.whole)))}`,
      '300 ms',
    );
  }
}

async function questions(boss: Client, plan: Document): Promise<void> {
  console.log('\nquestions');
  const digits = plan.extensions!.map((e) => String(e.digits));
  const ask = (i: number) =>
    timed(() => boss.get(`/ask?text=${encodeURIComponent(`${digits[i * 31]} > 90163296${String(1000 + i)}`)}`));
  await ask(0);
  const took = await repeat(40, (i) => ask(i + 1));
  line('Ask, median / slowest of 40', `${ms(median(took))} / ${ms(Math.max(...took))}`, '100 ms');
  const found = await repeat(20, (i) =>
    timed(() => boss.get(`/ask?text=${encodeURIComponent(`ada be${i % 2 ? 'r' : ''}`)}`)),
  );
  line('Ask for a name, median / slowest of 20', `${ms(median(found))} / ${ms(Math.max(...found))}`, '100 ms');
  const board = await repeat(20, (i) => timed(() => boss.get(`/queues/board?queue=q-${i}`)));
  line('the board of 500 queues, median / slowest of 20', `${ms(median(board))} / ${ms(Math.max(...board))}`, '100 ms');
}

/** Health while an import of 20,000 rows, a bulk edit and three readers keep the application busy. */
async function busy(boss: Client, plan: Document): Promise<void> {
  console.log('\nbusy: an import of 20,000 rows, a bulk edit of 5,000 and three readers at once');
  const rows = Array.from({ length: 20_000 }, (_, i) => `${600000 + i},Imported ${i},imported${i}@bench.example,yes`);
  const kept = await boss.file('/imports?name=bench.csv', `Extension,Name,E-mail,Mailbox\r\n${rows.join('\r\n')}\r\n`);
  let over = false;
  const health: number[] = [];
  const watch = async () => {
    while (!over) {
      health.push(await timed(() => boss.get('/health')));
      await new Promise((done) => setTimeout(done, 20));
    }
  };
  const reads: number[] = [];
  const read = async (path: string) => {
    while (!over) reads.push((await page(path)).first);
  };
  const both = (async () => {
    const imported = await boss.post<{ job: string }>(`/imports/${kept.body.id}/apply`, {
      class: 'staff',
      site: 'site-0',
    });
    const ids = plan.extensions!.slice(0, 5000).map((e) => e.id);
    const bulk = await boss.post<{ job: string }>('/bulk', {
      of: { ledger: 'extension', ids },
      change: { ringSeconds: 31 },
    });
    const jobs = await Promise.all([imported, bulk].map((j) => ended(boss, j.body.job, 300_000)));
    over = true;
    return jobs;
  })();
  const began = performance.now();
  const [jobs] = await Promise.all([both, watch(), ...['/people', '/numbers', '/outbound'].map(read)]);
  line('both ended as', jobs.map((j) => j.state).join(', '));
  line('it took', `${((performance.now() - began) / 1000).toFixed(1)} s`);
  line(`health, 99th of 100 (of ${health.length})`, ms(quantile(health, 0.99)), '100 ms');
  line(`first byte of readers’ pages, 95th of 100 (of ${reads.length})`, ms(quantile(reads, 0.95)));
}

/** Resident memory of the processes whose command line holds a text, MB. */
function memory(text: string): number {
  let most = 0;
  for (const pid of readdirSync('/proc').filter((p) => /^\d+$/.test(p))) {
    try {
      if (!readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(text)) continue;
      const rss = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'));
      most = Math.max(most, Number(rss?.[1] ?? 0) / 1000);
    } catch {
      // It has ended meanwhile.
    }
  }
  return most;
}

async function goLiveList(): Promise<void> {
  const got = await repeat(3, () => page('/go-live'));
  line('go live with so many edits, first byte', ms(median(got.map((g) => g.first))), '500 ms');
  line('the same, complete', ms(median(got.map((g) => g.whole))));
}

/** Where callers end through a week: of one number as its page asks, of all numbers as their list does, page by page, and after an edit. */
async function weeks(boss: Client, plan: Document): Promise<void> {
  console.log('\nweek strips');
  const numbers = plan.numbers!.filter((n) => n.state === 'active').slice(0, 2000);
  const one = (i: number) => timed(() => boss.get(`/weeks/number/${numbers[i * 7]!.id}`));
  await one(0);
  const took = await repeat(40, one);
  line('of one number, median / slowest of 40', `${ms(median(took))} / ${ms(Math.max(...took))}`, '50 ms');
  const all = async () => {
    const begun = performance.now();
    let first = 0;
    for (let at = 0; at < numbers.length; at += PAGE_ROWS) {
      const ids = numbers.slice(at, at + PAGE_ROWS).map((n) => n.id);
      await timed(() => boss.post('/ledgers/number/landings', { ids }));
      first ||= performance.now() - begun;
    }
    return { first, whole: performance.now() - begun };
  };
  await all();
  const got = await repeat(3, all);
  line(
    `of ${numbers.length} numbers, first page / all`,
    `${ms(median(got.map((g) => g.first)))} / ${ms(median(got.map((g) => g.whole)))}`,
    '1 s',
  );
  const hours = plan.hours![0]!;
  const edited = await repeat(5, async (i) => {
    const version = await rowVersion('hours', hours.id);
    const value = { ...hours, weekly: `mon-fri 8-${17 + (i % 3)}` };
    await boss.post('/edits', { edits: [{ kind: 'hours', id: hours.id, rowVersion: version, value }] });
    return one(i);
  });
  line('of one number right after an edit of hours, median of 5', ms(median(edited)), '50 ms');
}

const PAGE_ROWS = 100;

async function main(): Promise<void> {
  console.log('\nThe running application with 20,000 extensions, over HTTP');
  const response = await fetch(`${BASE}/api/v1/session`, {
    method: 'POST',
    body: JSON.stringify({ name: ADMIN[0], password: ADMIN[1] }),
    headers: { 'content-type': 'application/json' },
  });
  cookie = /polydrome_session=[^;]+/.exec(response.headers.get('set-cookie') ?? '')![0];
  const loaded = await loadReference(goLiveList);
  line(`reference company as one edit of ${loaded.objects} objects`, `${loaded.seconds.toFixed(1)} s`);
  const boss = await admin();
  const { body: plan } = await boss.get<Document>('/plan');
  const id = (list: string, at = 3) => encodeURIComponent(plan[list]![at]!.id);
  await pages([
    '/',
    '/people',
    '/extensions',
    '/mailboxes',
    '/numbers',
    '/inbound',
    '/outbound',
    '/teams',
    '/sites',
    '/trunks',
    '/classes',
    '/hours',
    '/holidays',
    '/time-switches',
    '/places',
    '/places/codes',
    '/blocked',
    '/attendants',
    '/prompts',
    '/ring-groups',
    '/queues',
    `/queues/${id('queues')}`,
    '/queues/board?queue=q-7',
    '/reach-plans',
    '/rehearsal',
    '/go-live',
    '/history',
    '/revisions',
    '/trace',
    '/extensions/new',
    `/people/${id('people')}`,
    `/people/${id('people')}/move`,
    `/people/${id('people')}/leave`,
    `/extensions/${id('extensions')}`,
    `/numbers/${id('numbers')}`,
    `/inbound/${id('inboundRoutes')}`,
    `/hours/${id('hours')}`,
    `/sites/${id('sites')}`,
    `/trunks/${id('trunks', 0)}`,
    `/outbound/rule/${id('rungs')}`,
    `/mailboxes/${id('mailboxes')}`,
    `/classes/${id('classes', 0)}`,
    `/attendants/${id('attendants')}`,
    `/prompts/${id('prompts', 0)}`,
  ]);
  await questions(boss, plan);
  await weeks(boss, plan);
  await edits(boss, plan);
  await busy(boss, plan);
  console.log('\nmemory');
  line('web process', `${memory('.build/web.mjs').toFixed(0)} MB`, '400 MB');
  line('process that renders pages', `${memory('polydrome pages').toFixed(0)} MB`, '400 MB');
  line('engine process', `${memory('engine.mjs').toFixed(0)} MB`, '900 MB');
}

main()
  .finally(closePool)
  .catch((e: unknown) => {
    console.error(e);
    process.exitCode = 1;
  });
