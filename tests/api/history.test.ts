import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import type { Connection, RowDataPacket } from 'mysql2/promise';
import type { HistoryEntry } from '@/contract/work';
import { parseCsv } from '../support/plain-csv';
import { Client, admin, database, helpdesk, rowVersion } from '../support/api';

/* What the history shows, held against the rows that were written, counted and ordered by the database itself. */

jest.setTimeout(120_000);

interface Page {
  entries: HistoryEntry[];
  next: string | null;
}

let boss: Client;
let other: Client;
let sql: Connection;
beforeAll(async () => {
  [boss, other, sql] = await Promise.all([admin(), helpdesk(), database()]);
  // Enough for several pages, in batches of one and of many, some of them in one moment.
  for (let i = 0; i < 12; i++) await edited(i, 1);
  await edited(100, 130);
  await edited(300, 3);
});
afterAll(async () => {
  const [left] = await sql.query<RowDataPacket[]>("SELECT id, row_version FROM person WHERE id LIKE 'told-%'");
  const edits = left.map((r) => ({
    kind: 'person',
    id: r.id as string,
    rowVersion: r.row_version as number,
    value: null,
  }));
  await boss.post('/edits', { edits });
  await sql.end();
});

const person = (n: number, name: string) => ({
  kind: 'person',
  id: `told-${n}`,
  rowVersion: null,
  value: { id: `told-${n}`, name, site: 'north-quay' },
});

async function edited(from: number, count: number): Promise<void> {
  const edits = Array.from({ length: count }, (_, i) => person(from + i, `Told ${from + i}`));
  const { status } = await boss.post('/edits', { edits });
  if (status !== 200) throw new Error(`answered ${status}`);
}

/** Every entry that a question gives, page by page; no page may be empty but the last, and none may be too long. */
async function all(query: string, client = boss): Promise<HistoryEntry[]> {
  const out: HistoryEntry[] = [];
  for (let before = ''; ;) {
    const { status, body } = await client.get<Page>(`/history?${query}&before=${encodeURIComponent(before)}`);
    expect(status).toBe(200);
    expect(body.entries.length).toBeLessThanOrEqual(100);
    out.push(...body.entries);
    if (body.next === null) return out;
    expect(body.entries).toHaveLength(100);
    before = body.next;
  }
}

async function counted(table: 'journal' | 'history', where = '1 = 1', values: unknown[] = []): Promise<number> {
  const [rows] = await sql.query<RowDataPacket[]>(`SELECT COUNT(*) AS n FROM ${table} t WHERE ${where}`, values);
  return Number(rows[0]!.n);
}

describe('the history', () => {
  it('shows every row once, newest first, however it is cut into pages', async () => {
    // What is asked for leaves no trace of its own, so the rows stand still.
    const entries = await all('');
    expect(entries).toHaveLength((await counted('journal')) + (await counted('history')));
    expect(new Set(entries.map((e) => e.key)).size).toBe(entries.length);
    const times = entries.map((e) => Date.parse(e.at));
    expect(times).toEqual([...times].sort((a, b) => b - a));
  });

  it('keeps the rows of one moment in the order of their making', async () => {
    const [rows] = await sql.query<RowDataPacket[]>(
      "SELECT object_id FROM journal WHERE object_id LIKE 'told-1__' ORDER BY id DESC",
    );
    const told = (await all('kind=person')).filter((e) => /^told-1\d\d$/.test(e.id ?? ''));
    expect(told.map((e) => e.id)).toEqual(rows.map((r) => r.object_id as string));
    expect(told).toHaveLength(100);
  });

  it.each<[string, string, unknown[]]>([
    ['kind=person', "t.object_kind = 'person'", []],
    ['kind=person&object=told-3', "t.object_kind = 'person' AND t.object_id = 'told-3'", []],
    ['kind=organisation', "t.object_kind = 'organisation'", []],
    ['kind=nosuchkind', '1 = 0', []],
  ])('asked for %s shows what the database finds, and no acts about access', async (query, where, values) => {
    const entries = await all(query);
    expect(entries).toHaveLength(await counted('journal', where, values));
    expect(entries.every((e) => e.batch !== null)).toBe(true);
  });

  it.each(['Farida', 'okonjo', 'F_rida', '%', '\\', "'; --", 'nobody of this name'])(
    'asked who, takes %j as a piece of a name and as nothing else',
    async (who) => {
      const [accounts] = await sql.query<RowDataPacket[]>('SELECT id, name FROM account');
      const ids = accounts
        .filter((a) => String(a.name).toLowerCase().includes(who.toLowerCase()))
        .map((a) => a.id as string);
      const entries = await all(`who=${encodeURIComponent(who)}`);
      const edits = ids.length === 0 ? 0 : await counted('journal', 't.account IN (?)', [ids]);
      const acts = ids.length === 0 ? 0 : await counted('history', 't.account IN (?)', [ids]);
      expect(entries).toHaveLength(edits + acts);
    },
  );

  it('is cut to days, the last one whole', async () => {
    const today = new Date().toISOString().slice(0, 10);
    const day = (n: number) => new Date(Date.parse(today) + n * 86_400_000).toISOString().slice(0, 10);
    const whole = (await all('')).length;
    expect(await all(`from=${today}&to=${today}`)).toHaveLength(whole);
    expect(await all(`from=${day(1)}`)).toEqual([]);
    expect(await all(`to=${day(-1)}`)).toEqual([]);
    for (const bad of ['from=2026-02-30', 'to=yesterday', 'from=2026-1-1'])
      expect((await boss.get(`/history?${bad}`)).status).toBe(400);
  });

  it('says what changed, before and after, and who undid it', async () => {
    const version = await rowVersion('person', 'told-1');
    const value = { id: 'told-1', name: 'Told Anew', site: 'vastra-kajen' };
    expect((await boss.post('/edits', { edits: [{ ...person(1, ''), rowVersion: version, value }] })).status).toBe(200);
    const [change] = await all('object=told-1');
    expect(change).toMatchObject({ action: 'changed', kind: 'person', id: 'told-1', undone: false });
    expect(change!.fields).toEqual(
      expect.arrayContaining([
        { title: 'Name', before: 'Told 1', after: 'Told Anew' },
        { title: 'Site', before: 'North Quay', after: 'Västra Kajen' },
      ]),
    );
    expect((await boss.post('/edits/undo', { kind: 'person', id: 'told-1' })).status).toBe(200);
    const after = await all('object=told-1');
    expect(after.length).toBeGreaterThan(2);
    expect((await rowVersion('person', 'told-1').catch(() => null)) === null).toBe(true);
  });

  it('as CSV says the same, one line a changed field', async () => {
    const entries = await all('kind=person&object=told-1');
    const { status, type, text } = await boss.text('/history?kind=person&object=told-1&format=csv');
    expect([status, type]).toEqual([200, expect.stringContaining('text/csv')]);
    const [head, ...lines] = parseCsv(text);
    expect(head).toEqual(['when', 'who', 'from where', 'what', 'kind', 'object', 'field', 'before', 'after']);
    const wanted = entries.flatMap((e) => {
      const start = [e.at, e.who, e.address, e.action + (e.undone ? ' (undone)' : ''), e.kind, e.label];
      const fields = e.fields.length === 0 ? [{ title: '', before: '', after: '' }] : e.fields;
      return fields.map((f) => [...start, f.title, f.before, f.after]);
    });
    expect(lines).toEqual(wanted);
  });

  it('shows acts about access to those who manage administrators, and to others their own', async () => {
    const [me] = await sql
      .query<RowDataPacket[]>("SELECT id FROM account WHERE sign_in = 'helpdesk'")
      .then(([rows]) => rows);
    const own = await counted('history', 't.account = ?', [me!.id]);
    const seen = (await all('', other)).filter((e) => e.batch === null);
    expect(seen).toHaveLength(own);
    expect(own).toBeGreaterThan(0);
  });

  it.each(['x', '2026-13-45T00:00:00.000Z e1', '2026-11-26T00:00:00.000Z e', '9'.repeat(60), ' e5'])(
    'begins at the top, or refuses, when told to go on at %j',
    async (before) => {
      const { status, body } = await boss.get<Page>(`/history?before=${encodeURIComponent(before)}`);
      expect([200, 400]).toContain(status);
      if (status === 200) expect(Array.isArray(body.entries)).toBe(true);
    },
  );
});
