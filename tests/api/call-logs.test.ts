import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Connection } from 'mysql2/promise';
import type { LogReport } from '@/contract/records';
import { readRecords, type CallRecord } from '@/core/records';
import { closePool } from '@/server/db/pool';
import { keepMonths } from '@/server/records/partitions';
import { Client, admin, auditor, database } from '../support/api';
import { ended, type JobAnswer } from '../support/jobs';
import { bringIn, sendLog } from '../support/logs';

/* Call logs of other systems through the API: in pieces, right and wrong, twice, stopped; and people taken out of them. */

jest.setTimeout(180_000);

let boss: Client;
beforeAll(async () => {
  boss = await admin();
});
/** Everything that is brought in here lies in years that nothing else is in, and goes; what is erased of the demo comes back. */
let connection: Connection;
beforeAll(async () => {
  connection = await database();
  await connection.query('CREATE TEMPORARY TABLE as_it_was AS SELECT * FROM call_record');
});
afterAll(async () => {
  await connection.query('DELETE FROM call_record');
  await connection.query('INSERT INTO call_record SELECT * FROM as_it_was');
  await closePool();
  await connection.end();
});

const HEAD = 'Start;Duration;Direction;From;To;Extension;Status';
const row = (
  i: number,
  change: Partial<Record<'at' | 'length' | 'way' | 'from' | 'to' | 'by' | 'status', string>> = {},
) => {
  const minute = `${String(8 + Math.floor(i / 60)).padStart(2, '0')}:${String(i % 60).padStart(2, '0')}`;
  const cells = {
    at: `2025-11-03 ${minute}:00`,
    length: '75',
    way: 'in',
    from: '07700 900456',
    to: '01632 960147',
    by: '2147',
    status: 'answered',
    ...change,
  };
  return Object.values(cells).join(';');
};
const log = (count: number, at = '2025-11-03') =>
  [
    HEAD,
    ...Array.from({ length: count }, (_, i) =>
      row(i % 900, {
        at: `${at} ${String(8 + Math.floor((i % 900) / 60)).padStart(2, '0')}:${String(i % 60).padStart(2, '0')}:${String(Math.floor(i / 900) % 60).padStart(2, '0')}`,
      }),
    ),
  ].join('\r\n');
const report = (job: JobAnswer) =>
  job.result as unknown as LogReport & { errors?: { code: string; sentence: string; path: string }[] };
const kept = async (query: string): Promise<CallRecord[]> => {
  const read = readRecords((await boss.text(`/calls/file?format=jsonl${query}`)).text);
  if (!read.ok) throw new Error(JSON.stringify(read.errors));
  return read.records;
};

describe('a call log', () => {
  it('is read as what it is, shown, kept, and the same again adds nothing', async () => {
    const text = log(40);
    const checked = report(await bringIn(boss, text, 'check'));
    expect(checked).toMatchObject({
      format: 'CSV',
      separator: ';',
      rows: 40,
      calls: 40,
      wrong: 0,
      added: null,
      whole: true,
      zone: 'Europe/London',
    });
    expect(checked.sample[0]).toEqual({
      started: '2025-11-03T08:00:00.000Z',
      from: '+447700900456',
      to: '+441632960147',
      seconds: 75,
      result: 'answered',
      by: 'Mirela Osei',
    });
    expect(await kept('&from=2025-11-03&to=2025-11-03')).toEqual([]);
    expect(report(await bringIn(boss, text, 'import'))).toMatchObject({ added: 40, calls: 40, wrong: 0 });
    expect(report(await bringIn(boss, text, 'import'))).toMatchObject({ added: 0, calls: 40 });
    // Other ends of lines, and a mark at the beginning, are no other calls.
    const other = `\uFEFF${text.replaceAll('\r\n', '\n')}\n`;
    expect(report(await bringIn(boss, other, 'import'))).toMatchObject({ added: 0, calls: 40 });
    const list = await kept('&from=2025-11-03&to=2025-11-03');
    expect(list).toHaveLength(40);
    expect(list.at(-1)).toMatchObject({
      started: '2025-11-03T08:00:00.000Z',
      ended: '2025-11-03T08:01:15.000Z',
      entry: { type: 'number', number: '+441632960147' },
      calling: { delivered: '07700 900456', read: '+447700900456' },
      answeredBy: 'e-2147',
    });
  });

  it('that was exported is the same when it comes back, as CSV and as JSON lines', async () => {
    const before = await kept('&from=2025-11-03&to=2025-11-03');
    const { text } = await boss.text('/calls/file?format=jsonl&from=2025-11-03&to=2025-11-03');
    expect(report(await bringIn(boss, text, 'import'))).toMatchObject({
      format: 'JSON lines',
      added: 0,
      calls: before.length,
    });
    const csv = (await boss.text('/calls/file?format=csv&from=2025-11-03&to=2025-11-03')).text;
    expect(report(await bringIn(boss, csv, 'import'))).toMatchObject({
      format: 'CSV',
      added: 0,
      calls: before.length,
      wrong: 0,
      unread: [],
    });
  });

  it.each([
    ['no moment', { at: 'yesterday' }, 'started', /is no moment; 2026-11-23 09:05:07 would be/],
    ['a day that is none', { at: '2025-02-30 10:00' }, 'started', /is no moment/],
    ['no time', { at: '' }, 'started', /is no moment/],
    ['a moment to come', { at: '2031-01-01 10:00' }, 'started', /has not come yet/],
    ['a duration in words', { length: 'long' }, 'duration', /is no duration; 75, 1:15 or 1 m 15 s would be/],
    ['a duration below nothing', { length: '-5' }, 'duration', /is no duration/],
    ['a direction that is none', { way: 'sideways' }, 'direction', /in, out or internal is/],
    ['a status that is none', { status: 'perhaps' }, 'result', /answered, missed, busy, voicemail or failed is/],
    ['no called number', { to: '' }, 'called', /is empty; the number or digits are needed/],
    ['a called number in words', { to: 'the office' }, 'called', /is no number/],
    ['nobody who called out', { way: 'out', from: '', by: '' }, 'calling', /is empty/],
    ['an extension as long as a sentence', { way: 'out', by: 'x'.repeat(70) }, null, /entry/],
  ] as const)(
    'with %s is told with its line and cell, and nothing of it is kept',
    async (_, change, column, sentence) => {
      const text = [HEAD, row(1, { at: '2025-10-06 10:00' }), row(2, change), row(3, { at: '2025-10-06 10:02' })].join(
        '\n',
      );
      for (const what of ['check', 'import'] as const) {
        const told = report(await bringIn(boss, text, what));
        expect(told).toMatchObject({
          rows: 3,
          calls: 2,
          wrong: 1,
          faults: [{ line: 3, column, sentence: expect.stringMatching(sentence) }],
        });
      }
      const list = await kept('&from=2025-10-06&to=2025-10-06');
      expect(list).toHaveLength(2);
    },
  );

  it.each([
    ['nothing but a heading', HEAD, /^$/],
    ['no column that says when', 'From;To\n1;2', /No column says when a call began/],
    ['no column that says what was called', 'Start;From\n2025-01-01;2', /No column says what was called/],
    ['octets that are no text', new Uint8Array([0x53, 0x74, 0xff, 0xfe, 0x41, 0x0a]), /not whole UTF-8/],
    ['more columns than anybody reads', `${HEAD}\n${'a;'.repeat(300)}`, /301 columns; at most 200/],
  ] as const)('of %s says so', async (_, content, sentence) => {
    const job = await bringIn(boss, content as string, 'check');
    const { errors, ...told } = report(job);
    expect(errors?.[0]?.sentence ?? '').toMatch(sentence);
    if (!errors) expect(told).toMatchObject({ rows: 0, calls: 0 });
  });

  it('with a quote that is never closed is told at its line, and the rest before it is read', async () => {
    const text = [HEAD, row(1, { at: '2025-09-01 10:00' }), row(2, { from: '"07700 900' }), row(3)].join('\n');
    const told = report(await bringIn(boss, text, 'check'));
    expect(told).toMatchObject({ calls: 1, wrong: 1, faults: [{ line: 3, sentence: expect.stringMatching(/quote/) }] });
  });

  it('with columns that are named otherwise is read once they are chosen; a column of ours that is none is refused', async () => {
    const text = `Alpha;Beta;Gamma\n2025-09-02 10:00;07700 900456;01632 960147\n`;
    const id = await sendLog(boss, text);
    const ask = async (columns: object | null) => {
      const got = await boss.post<{ job: string }>(`/call-logs/${id}/check`, { columns });
      return got.status === 200 ? report(await ended(boss, got.body.job)) : got.body;
    };
    expect(await ask(null)).toMatchObject({ errors: [{ code: 'no-start', path: 'columns.started' }] });
    expect(await ask({ started: 0, calling: 1, called: 2 })).toMatchObject({ calls: 1, unread: [] });
    expect(await ask({ colour: 0 })).toMatchObject({ error: { code: 'no-such-column', path: 'columns.colour' } });
  });

  it('is read by the clock and the writing of the site that is chosen', async () => {
    const text = `${HEAD}\n${row(0, { at: '04/03/2025 10:00', from: '031-390 06 90', to: '031-390 06 45', by: '3000' })}`;
    const told = report(await bringIn(boss, text, 'check', { site: 'vastra-kajen' }));
    expect(told.sample[0]).toMatchObject({
      started: '2025-03-04T09:00:00.000Z',
      from: '+46313900690',
      to: '+46313900645',
    });
    const other = report(await bringIn(boss, text, 'check', { site: 'vastra-kajen', order: 'month first' }));
    expect(other.sample[0]!.started).toBe('2025-04-03T08:00:00.000Z');
  });

  it('lies in months of its own, across the end of a year and the change of the clock', async () => {
    const moments = [
      '2024-12-31 23:59:59',
      '2025-01-01 00:00:00',
      '2025-03-30 00:59:59',
      '2025-03-30 02:00:00',
      '2025-10-26 00:30:00',
    ];
    const text = [HEAD, ...moments.map((at, i) => row(i, { at }))].join('\n');
    expect(report(await bringIn(boss, text, 'import'))).toMatchObject({ added: 5 });
    const [months] = await connection.query<import('mysql2').RowDataPacket[]>(
      "SELECT PARTITION_NAME AS name FROM information_schema.PARTITIONS WHERE TABLE_SCHEMA = DATABASE() AND TABLE_NAME = 'call_record'",
    );
    const names = months.map((m) => String(m.name));
    for (const month of ['m202412', 'm202501', 'm202503', 'm202510']) {
      expect(names).toContain(month);
      const [[count]] = await connection.query<import('mysql2').RowDataPacket[]>(
        `SELECT COUNT(*) AS n FROM call_record PARTITION (${month})`,
      );
      expect([month, Number(count!.n) > 0]).toEqual([month, true]);
    }
    const [[december]] = await connection.query<import('mysql2').RowDataPacket[]>(
      "SELECT COUNT(*) AS n FROM call_record PARTITION (m202412) WHERE started >= '2025-01-01' OR started < '2024-12-01'",
    );
    expect(Number(december!.n)).toBe(0);
    // British summer time: 02:00 on the wall is 01:00 in UTC.
    expect((await kept('&from=2025-03-30&to=2025-03-30')).map((r) => r.started)).toEqual([
      '2025-03-30T01:00:00.000Z',
      '2025-03-30T00:59:59.000Z',
    ]);
  });

  it('go by whole months when they were kept long enough, and not a day before', async () => {
    const left = async () => (await kept('&from=2024-12-01&to=2025-01-31')).map((r) => r.started);
    const before = await left();
    expect(before).toEqual(['2025-01-01T00:00:00.000Z', '2024-12-31T23:59:59.000Z']);
    // Kept for 24 months, which is what an organisation begins with.
    await keepMonths(new Date('2026-12-31T23:59:59.999Z'));
    expect(await left()).toEqual(before);
    expect(await keepMonths(new Date('2027-01-01T00:00:00Z'))).toBe(1);
    expect(await left()).toEqual(['2025-01-01T00:00:00.000Z']);
    expect(await keepMonths(new Date('2027-01-01T00:00:00Z'))).toBe(0);
  });

  it('of the first and the last millisecond of a day are of that day', async () => {
    const at = [
      '2025-04-13T22:59:59.999Z',
      '2025-04-13T23:00:00.000Z',
      '2025-04-14T22:59:59.999Z',
      '2025-04-14T23:00:00.000Z',
    ];
    const text = [HEAD, ...at.map((t, i) => row(i, { at: t }))].join('\n');
    expect(report(await bringIn(boss, text, 'import'))).toMatchObject({ added: 4 });
    expect((await kept('&from=2025-04-14&to=2025-04-14')).map((r) => r.started)).toEqual([at[2], at[1]]);
  });

  it('names callers in every field only to whoever may see numbers', async () => {
    const call = (id: string, more: object) =>
      JSON.stringify({
        id,
        started: '2025-02-03T10:00:00Z',
        ended: '2025-02-03T10:01:00Z',
        entry: { type: 'number', number: '+441632960147' },
        calling: { delivered: '07700900777', read: '+447700900777' },
        called: { delivered: null },
        outcome: 'routed',
        ...more,
      });
    const odd = call('sent-on', { shown: '+447700900777', transferredTo: '07700900778' });
    const raw = call('unread', { calling: { delivered: '7700900779', read: null } });
    expect(report(await bringIn(boss, `${odd}\n${raw}`, 'import'))).toMatchObject({ added: 2 });
    const looker = await auditor();
    const job = await looker.post<{ job: string }>('/calls/replay', {
      from: '2025-02-03',
      to: '2025-02-03',
      against: 'record',
    });
    const key = (id: string) => `${Date.parse('2025-02-03T10:00:00Z')}.${id}`;
    const told = async (who: Client) => [
      (await who.text('/calls/file?format=jsonl&from=2025-02-03&to=2025-02-03')).text,
      (await who.text('/calls/file?format=csv&from=2025-02-03&to=2025-02-03')).text,
      JSON.stringify((await who.get(`/calls/${key('sent-on')}`)).body),
      JSON.stringify((await who.get(`/calls/${key('unread')}`)).body),
    ];
    const texts = [...(await told(looker)), JSON.stringify(await ended(looker, job.body.job))];
    for (const [i, text] of texts.entries()) expect([i, /770.?0 ?90077[789]/.test(text)]).toEqual([i, false]);
    for (const text of await told(boss)) expect(text).toMatch(/770.?0 ?90077[789]/);
  });

  it('older than is kept is left out and counted', async () => {
    const text = [HEAD, row(0, { at: '2019-05-05 10:00' }), row(1, { at: '2025-05-05 10:00' })].join('\n');
    expect(report(await bringIn(boss, text, 'import'))).toMatchObject({ added: 1, tooOld: 1, wrong: 0 });
  });

  it('stopped half-way keeps what it had, says how much, and brought in again adds the rest', async () => {
    const text = log(30_000, '2025-06-10');
    const id = await sendLog(boss, text);
    const { body } = await boss.post<{ job: string }>(`/call-logs/${id}/import`, {});
    for (let tries = 0; tries < 600; tries++) {
      const { body: now } = await boss.get<{ state: string; doing: string }>(`/jobs/${body.job}`);
      if (/^[1-9]/.test(now.doing) || now.state === 'done') break;
      await new Promise((done) => setTimeout(done, 50));
    }
    await boss.delete(`/jobs/${body.job}`);
    const stopped = await ended(boss, body.job);
    const added = Number(stopped.result.added);
    expect(stopped.state).toBe('stopped');
    expect(added).toBeGreaterThan(0);
    expect(added).toBeLessThan(30_000);
    expect(String(stopped.result.sentence)).toMatch(
      /were kept. Bring the log in again to add the rest; none is kept twice/,
    );
    const again = report(await bringIn(boss, text, 'import'));
    expect(again).toMatchObject({ added: 30_000 - added, calls: 30_000 });
  });

  it('comes in pieces of the size that was told, each in its place, from whoever began it', async () => {
    const { body } = await boss.post<{ id: string; pieceOctets: number }>('/call-logs', {
      name: 'two.csv',
      octets: 4_194_304 + 5,
    });
    const piece = (n: string, octets: number) =>
      boss.file(`/call-logs/${body.id}/pieces/${n}`, new Uint8Array(octets), 'PUT');
    expect((await piece('1', 4)).body.error).toMatchObject({
      code: 'wrong-size',
      sentence: 'Piece 1 has 5 octets; 4 came.',
    });
    expect((await piece('2', 5)).status).toBe(404);
    expect((await piece('x', 5)).status).toBe(404);
    expect((await piece('1', 5)).status).toBe(200);
    expect((await boss.file(`/call-logs/${body.id}/pieces/0`, new Uint8Array(4_194_305), 'PUT')).status).toBe(413);
    const job = await boss.post<{ job: string }>(`/call-logs/${body.id}/import`, {});
    expect(report(await ended(boss, job.body.job)).errors).toMatchObject([{ code: 'piece-missing' }]);
    for (const octets of [0, -1, 2 ** 31])
      expect((await boss.post('/call-logs', { name: 'x', octets })).status).toBe(400);
    const looker = await auditor();
    expect((await looker.file(`/call-logs/${body.id}/pieces/1`, new Uint8Array(5), 'PUT')).status).toBe(403);
    const [stored] = await connection.query<import('mysql2').RowDataPacket[]>(
      'SELECT content FROM call_log_piece WHERE log = ?',
      [body.id],
    );
    // Sealed: nothing of it stands in the database as it came.
    expect((stored[0]!.content as Buffer).includes(Buffer.from([0, 0, 0, 0, 0]))).toBe(false);
  });

  it('that was brought in, taken out and begun is in the history, without a number', async () => {
    const { text } = await boss.text('/history?format=csv');
    expect(text).toContain('brought in a call log');
    expect(text).toContain('took call records out as a file');
  });
});

describe('taking somebody out of the calls', () => {
  const number = '+447700900987';
  const erase = async (whom: object) => {
    const { status, body } = await boss.post<{ job: string }>('/calls/erasure', whom);
    if (status !== 200) throw new Error(JSON.stringify(body));
    return ended(boss, body.job);
  };
  const everything = async () => (await boss.text('/calls/file?format=jsonl&from=2025-07-01&to=2025-07-31')).text;

  beforeAll(async () => {
    const out = (i: number, to: string) => row(i, { at: `2025-07-02 1${i}:00`, way: 'out', from: '', to, by: '2147' });
    const rows = [
      row(0, { at: '2025-07-01 10:00', from: '07700 900987' }),
      row(1, { at: '2025-07-01 11:00', from: '0044 7700 900987', status: 'missed' }),
      row(2, { at: '2025-07-01 12:00', from: '07700 900456' }),
      out(0, '9 07700 900987'),
      out(1, '999'),
      out(2, '9 07700 900456'),
    ];
    expect(report(await bringIn(boss, [HEAD, ...rows].join('\n'), 'import'))).toMatchObject({ added: 6, wrong: 0 });
  });

  it('tells before it is done how much it is about, and what stays', async () => {
    expect((await boss.post('/calls/erasure/preview', { number: '07700 900987' })).body).toMatchObject({
      calls: 3,
      kept: 0,
    });
    const { body: plan } = await boss.get<{ extensions: { id: string; person: string }[] }>('/plan');
    const person = plan.extensions.find((e) => e.id === 'e-2147')!.person;
    const { body } = await boss.post<{ calls: number; kept: number; label: string }>('/calls/erasure/preview', {
      person,
    });
    expect(body).toMatchObject({ label: 'Mirela Osei', kept: 1 });
  });

  it('a number is nowhere any more, in no writing; moments, trunk and end stay', async () => {
    expect((await erase({ number })).result).toMatchObject({ erased: 3 });
    const text = await everything();
    expect(text.replace(/[^0-9]/g, '')).not.toContain('7700900987');
    expect(text.split('\n').filter(Boolean)).toHaveLength(6);
    const read = readRecords(text);
    expect(read.ok && read.records.filter((r) => r.calling.read === null && r.entry.type === 'number')).toHaveLength(2);
    expect((await boss.get<{ calls: unknown[] }>('/calls?number=07700900987')).body.calls).toEqual([]);
    expect((await erase({ number })).result).toMatchObject({ erased: 0 });
  });

  it('a person is nowhere any more but in calls for help', async () => {
    const { body: plan } = await boss.get<{ extensions: { id: string; person: string }[] }>('/plan');
    const person = plan.extensions.find((e) => e.id === 'e-2146')!.person;
    const rows = [
      row(0, { at: '2025-08-01 10:00', by: '2146', to: '01632 960146' }),
      row(1, { at: '2025-08-01 11:00', way: 'out', from: '', to: '999', by: '2146' }),
      row(2, { at: '2025-08-01 12:00', way: 'internal', from: '2147', to: '2146', by: '2147' }),
    ];
    await bringIn(boss, [HEAD, ...rows].join('\n'), 'import');
    const ids = ['e-2146', '"2146"', '+441632960146', 'Stellan', '01632960146'];
    const before = (await boss.text('/calls/file?format=jsonl&from=2025-08-01&to=2025-08-01')).text;
    expect(before).toContain('e-2146');
    await erase({ person });
    const after = (await boss.text('/calls/file?format=jsonl&from=2025-08-01&to=2025-08-01')).text
      .split('\n')
      .filter(Boolean);
    expect(after).toHaveLength(3);
    const [left, gone] = [after.filter((l) => l.includes('"999"')), after.filter((l) => !l.includes('"999"'))];
    expect(left[0]).toContain('e-2146');
    for (const line of gone) for (const id of ids) expect([id, line.includes(id)]).toEqual([id, false]);
    // In the weeks of the demo too, wherever the phone rang.
    const all = (await boss.text('/calls/file?format=jsonl')).text
      .split('\n')
      .filter((l) => l !== '' && !l.includes('"999"') && !l.includes('"9999"'));
    expect(all.filter((l) => l.includes('"e-2146"'))).toEqual([]);
    const key = JSON.parse(gone[0]!) as CallRecord;
    expect((await boss.get(`/calls/${Date.parse(key.started)}.${key.id}`)).body).toMatchObject({
      row: { erased: true },
      question: null,
    });
  });

  it.each([
    [{}, 400],
    [{ number: '1', person: 'x' }, 400],
    [{ number: '2104' }, 422],
    [{ number: '01632 960147' }, 422],
    [{ person: 'nobody' }, 422],
  ])('refuses %j', async (whom, status) => {
    expect((await boss.post('/calls/erasure', whom)).status).toBe(status);
  });
});
