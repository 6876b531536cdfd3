import { beforeAll, describe, expect, it } from '@jest/globals';
import { Client, admin, auditor, type Document } from '../support/api';

/* Long ledgers come a page at a time, found by key: together the pages are what the plan holds, once each and in order. */

interface Row {
  id: string;
  mark: string | null;
  cells: Record<string, string>;
}
interface Page {
  count: number;
  of: number;
  pages: string[];
  rows: Row[];
}

let boss: Client;
let plan: Document;
beforeAll(async () => {
  boss = await admin();
  plan = (await boss.get<Document>('/plan')).body;
});

const page = async (kind: string, query: Record<string, string>) =>
  (await boss.get<Page>(`/ledgers/${kind}?${new URLSearchParams(query)}`)).body;

/** Every row of a ledger, page after page by the keys of the first one. */
async function every(kind: string, query: Record<string, string> = {}): Promise<Row[]> {
  const first = await page(kind, query);
  expect(first.pages.length).toBe(Math.ceil(first.count / 100));
  const rows = [...first.rows];
  for (const key of first.pages.slice(1)) rows.push(...(await page(kind, { ...query, after: key })).rows);
  expect(rows.length).toBe(first.count);
  return rows;
}

describe('long ledgers', () => {
  it.each([
    ['person', 'people'],
    ['extension', 'extensions'],
    ['mailbox', 'mailboxes'],
    ['number', 'numbers'],
  ])('of %s hold every one once', async (kind, list) => {
    const rows = await every(kind);
    expect(rows.map((r) => r.id).sort()).toEqual(plan[list]!.map((o) => o.id).sort());
  });

  it.each([
    ['person', 'name'],
    ['person', '-site'],
    ['extension', 'digits'],
    ['extension', '-name'],
    ['number', 'belongs'],
  ])('of %s are in the order of %s, the same for whoever reads on', async (kind, sort) => {
    const rows = await every(kind, { sort });
    const key = sort.replace('-', '');
    const collator = new Intl.Collator(undefined, { numeric: true });
    const texts = rows.map((r) => r.cells[key]!);
    const ordered = [...texts].sort(collator.compare);
    expect(texts).toEqual(sort.startsWith('-') ? ordered.reverse() : ordered);
    expect((await every(kind, { sort })).map((r) => r.id)).toEqual(rows.map((r) => r.id));
  });

  it.each(['berg', 'north quay', '210', '+44 1632 960105', '441632960105', 'ÅSA', 'no such text'])(
    'filtered by %j are those whose cells hold every word',
    async (filter) => {
      const found = new Set((await every('person', { filter })).map((r) => r.id));
      const words = filter.toLowerCase().split(/\s+/);
      for (const row of await every('person')) {
        const text = Object.values(row.cells).join('\n').toLowerCase();
        const holds = words.every((w) => text.includes(w) || text.replace(/[^\S\n]/g, '').includes(w));
        expect([row.cells.name, found.has(row.id)]).toEqual([row.cells.name, holds]);
      }
    },
  );

  it('are chosen by site, team, class, kind, state and use', async () => {
    const count = async (kind: string, query: Record<string, string>) => (await page(kind, query)).count;
    expect(await count('person', { site: 'larkspur' })).toBe(plan.people!.filter((p) => p.site === 'larkspur').length);
    const bookings = plan.people!.filter((p) => (p.teams as string[]).includes('team-bookings')).length;
    expect(await count('person', { team: 'team-bookings' })).toBe(bookings);
    expect(await count('extension', { kind: 'place', site: 'north-quay' })).toBe(
      plan.extensions!.filter((e) => e.kind === 'place' && e.site === 'north-quay').length,
    );
    expect(await count('number', { state: 'reserved' })).toBe(
      plan.numbers!.filter((n) => n.state === 'reserved').length,
    );
    expect((await count('number', { use: 'free' })) + (await count('number', { use: 'used' }))).toBe(
      plan.numbers!.length,
    );
  });

  it('say where a number lands now, out of hours and on the next holiday', async () => {
    const [row] = (await page('number', { filter: '808 157 0100' })).rows;
    const [direct] = (await page('number', { filter: '1632 960101' })).rows;
    const { landings } = (
      await boss.post<{ landings: Record<string, Record<string, string>> }>('/ledgers/number/landings', {
        ids: [row!.id, direct!.id],
      })
    ).body;
    expect(landings[row!.id]).toMatchObject({ closedKind: 'mailbox', holidayKind: 'mailbox' });
    expect(landings[row!.id]!.holidayAt).toMatch(/T00:00:00/);
    expect(landings[direct!.id]).toMatchObject({ nowKind: 'extension', closedAt: '', holidayAt: '' });
  });

  it('read on after a row that is gone meanwhile', async () => {
    const first = await page('extension', {});
    const gone = Buffer.from(JSON.stringify([`${first.rows[49]!.cells.digits}x`, 'gone'])).toString('base64url');
    const after = await page('extension', { after: gone });
    expect(after.rows[0]!.id).toBe(first.rows[50]!.id);
  });

  it('refuse keys and kinds that are none', async () => {
    expect((await boss.get('/ledgers/extension?after=nonsense')).body.error).toMatchObject({ path: 'after' });
    expect((await boss.get('/ledgers/trunk')).status).toBe(404);
    expect((await boss.get('/ledgers/person?trunk=kestrel')).body.error).toMatchObject({ path: 'trunk' });
    expect((await (await auditor()).get('/ledgers/person')).status).toBe(200);
    expect((await Client.anonymous().get('/ledgers/person')).status).toBe(401);
  });

  it('references too many to send are found by text, those that begin with it first', async () => {
    const found = await boss.get<{ options: { label: string }[] }>('/options/destination?text=2101');
    expect(found.body.options[0]!.label).toMatch(/^2101 /);
    expect((await boss.get('/options/nothing?text=x')).status).toBe(404);
  });
});
