import { readFileSync, readdirSync } from 'node:fs';
import type { Connection, RowDataPacket } from 'mysql2/promise';
import { closePool } from '@/server/db/pool';
import { ensureMonths } from '@/server/records/partitions';
import { admin, database, type Client } from '../tests/support/api';
import { ended } from '../tests/support/jobs';
import { sendLog } from '../tests/support/logs';
import { line, median, ms, seconds } from './lines';

/*
 * Calls through the running application: a log of a million rows brought in, pages of the ledger among ten million records, a
 * replay. Asked for by name (`npm run bench -- calls`), since filling the database takes minutes; POLYDROME_BENCH_CALLS sets how many.
 */

const WANTED = Number(process.env.POLYDROME_BENCH_CALLS ?? 10_000_000);
const LOG_ROWS = Math.min(1_000_000, WANTED);
const WEEKS = 104;
const WEEK = 7 * 86_400_000;

/** A log as another system would write it. */
function logOf(rows: number): string {
  const out = ['Start;Length;Direction;From;To;Extension;Status'];
  const begin = Date.now() - 300 * 86_400_000;
  for (let i = 0; i < rows; i++) {
    const at = new Date(begin + i * 24_000 + (i % 7) * 1000).toISOString().replace('T', ' ').slice(0, 19);
    const caller = `07700 900${String(i % 1000).padStart(3, '0')}`;
    const own = `01632 960${100 + (i % 100)}`;
    out.push(`${at};${20 + (i % 300)};in;${caller};${own};${2100 + (i % 50)};${i % 5 === 0 ? 'missed' : 'answered'}`);
  }
  return out.join('\r\n');
}

/** Most memory that the worker has had so far, in MB. */
function workerPeak(): number {
  for (const pid of readdirSync('/proc').filter((p) => /^[0-9]+$/.test(p)))
    try {
      if (!readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('/worker.mjs')) continue;
      return Number(/VmHWM:\s+([0-9]+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024;
    } catch {
      // It has ended.
    }
  return NaN;
}

async function importing(boss: Client): Promise<void> {
  console.log(`\na call log of ${LOG_ROWS.toLocaleString('en')} rows`);
  const before = workerPeak();
  const content = logOf(LOG_ROWS);
  const sending = performance.now();
  const id = await sendLog(boss, content);
  line(`sent in pieces, ${(content.length / 1e6).toFixed(0)} MB`, `${seconds(sending).toFixed(1)} s`);
  const checking = performance.now();
  const check = await boss.post<{ job: string }>(`/call-logs/${id}/check`, {});
  await ended(boss, check.body.job);
  line('its beginning read and shown', `${seconds(checking).toFixed(1)} s`);
  const keeping = performance.now();
  const job = await boss.post<{ job: string }>(`/call-logs/${id}/import`, {});
  const done = await ended(boss, job.body.job, 1_200_000);
  line(`kept, ${String(done.result.added)} new`, `${seconds(keeping).toFixed(0)} s`, '240 s');
  line('the worker at its largest, before and after', `${before.toFixed(0)} / ${workerPeak().toFixed(0)} MB`);
  const again = await sendLog(boss, content);
  const second = await boss.post<{ job: string }>(`/call-logs/${again}/import`, {});
  const twice = performance.now();
  const same = await ended(boss, second.body.job, 1_200_000);
  line(`the same once more, ${String(same.result.added)} new`, `${seconds(twice).toFixed(0)} s`);
}

/** Fills up with copies of the demo's calls, so many a week, each a little later than the one before. */
async function filled(connection: Connection): Promise<number> {
  const count = async () => {
    const [[found]] = await connection.query<RowDataPacket[]>('SELECT COUNT(*) AS n FROM call_record');
    return Number(found!.n);
  };
  const now = Date.now();
  const have = await count();
  await ensureMonths(new Date(now - WEEKS * WEEK), new Date(now));
  await connection.query(
    'CREATE TEMPORARY TABLE one_week AS SELECT * FROM call_record WHERE started >= ? AND revision IS NOT NULL',
    [new Date(now - WEEK)],
  );
  const [[week]] = await connection.query<RowDataPacket[]>('SELECT COUNT(*) AS n FROM one_week');
  const copies = Math.max(1, Math.ceil((WANTED - have) / WEEKS / Number(week!.n)));
  const [columns] = await connection.query<RowDataPacket[]>(
    "SELECT COLUMN_NAME AS name FROM information_schema.COLUMNS WHERE TABLE_SCHEMA = DATABASE() AND TABLE_NAME = 'call_record'",
  );
  const names = columns.map((c) => `\`${String(c.name)}\``);
  const moved: Record<string, string> = {
    '`started`': 'started - INTERVAL ? WEEK + INTERVAL (seq * 41 % 3600) SECOND',
    '`answered`': 'answered - INTERVAL ? WEEK + INTERVAL (seq * 41 % 3600) SECOND',
    '`ended`': 'ended - INTERVAL ? WEEK + INTERVAL (seq * 41 % 3600) SECOND',
    '`id`': "CONCAT(LEFT(id, 24), LPAD(HEX(seq * 1000 + ?), 12, '0'))",
    '`other`': "IF(other LIKE '+447700900%', CONCAT(LEFT(other, 8), LPAD(seq % 100, 2, '0'), RIGHT(other, 3)), other)",
  };
  for (let back = WEEKS - 1; back >= 0; back--) {
    if ((await (back % 13 === 0 ? count() : Promise.resolve(0))) >= WANTED) break;
    const values = names.map((n) => moved[n] ?? n);
    const sql = `INSERT IGNORE INTO call_record (${names.join()}) SELECT ${values.join()} FROM one_week JOIN seq_1_to_${copies}`;
    // In the order of the columns: started, id, answered, ended.
    await connection.query(sql, [back, back, back, back]);
  }
  return count();
}

const FILTERS = [
  '',
  'state=missed',
  'number=%2B447700900300',
  'number=%2B441632960147',
  'person=p-2105',
  'trunk=sundvik',
  'trunk=larkspur-gateway&state=failed',
  'end=m-2105',
  'cause=34',
  'way=out&state=failed',
  'number=%2B447700955555',
  'hour=3&weekday=6',
];

async function ledger(boss: Client, connection: Connection): Promise<void> {
  const rows = await filled(connection);
  console.log(`\nthe ledger of ${rows.toLocaleString('en')} calls: median / slowest of 5`);
  for (const filter of FILTERS) {
    const took: number[] = [];
    let found = 0;
    let whole = true;
    for (let i = 0; i < 6; i++) {
      const begun = performance.now();
      const { status, body } = await boss.get<{ calls: unknown[]; searchedTo: string | null }>(`/calls?${filter}`);
      if (status !== 200) throw new Error(`${filter}: ${status} ${JSON.stringify(body)}`);
      took.push(performance.now() - begun);
      [found, whole] = [body.calls.length, body.searchedTo === null];
    }
    line(
      `${filter || 'all'}: ${found} rows${whole ? '' : ', looked a part back'}`,
      `${ms(median(took.slice(1)))} / ${ms(Math.max(...took))}`,
      '300 ms',
    );
  }
  const page = async (path: string) => {
    const begun = performance.now();
    const { status } = await boss.get(path);
    if (status !== 200) throw new Error(`${path}: ${status}`);
    return performance.now() - begun;
  };
  const { body } = await boss.get<{ next: string }>('/calls');
  line('the page after the first', ms(await page(`/calls?before=${body.next}`)), '300 ms');
  for (const path of ['/calls/missed', '/calls/counts/hour', '/calls/counts/end', '/calls/traffic?trunk=kestrel'])
    line(`${path}, four weeks`, ms(await page(path)));
  await explain(connection);
}

/** Which indexes the searches of the ledger take. */
async function explain(connection: Connection): Promise<void> {
  const at = new Date(Date.now() - 20 * 86_400_000);
  for (const where of [
    'TRUE',
    'missed = 1',
    "trunk = 'sundvik'",
    "other IN ('+447700900300')",
    "end_id = 'm-2105'",
    'q850 = 34',
  ]) {
    const sql = `EXPLAIN PARTITIONS SELECT started, id FROM call_record WHERE started >= ? AND ${where} ORDER BY started DESC, id DESC LIMIT 51`;
    const [plan] = await connection.query<RowDataPacket[]>(sql, [at]);
    const { key, rows, Extra, partitions } = plan[0]!;
    console.log(`  ${where}: key ${String(key)}, ${String(rows)} rows, ${String(partitions)}, ${String(Extra)}`);
  }
}

async function replaying(boss: Client): Promise<void> {
  console.log('\nreplay of draft against live');
  const from = new Date(Date.now() - 7 * 86_400_000).toISOString();
  const begun = performance.now();
  const asked = await boss.post<{ job: string }>('/calls/replay', { from });
  const { result } = await ended(boss, asked.body.job, 600_000);
  line(
    `${Number(result.calls).toLocaleString('en')} calls, ${String(result.changed)} end elsewhere`,
    `${seconds(begun).toFixed(1)} s`,
  );
}

async function main(): Promise<void> {
  const boss = await admin();
  const connection = await database();
  await importing(boss);
  await ledger(boss, connection);
  await replaying(boss);
  await connection.end();
}

main()
  .finally(closePool)
  .catch((e: unknown) => {
    console.error(e);
    process.exitCode = 1;
  });
