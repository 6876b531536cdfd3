import { beforeAll, describe, expect, it, jest } from '@jest/globals';
import { SHEET_KINDS } from '@/core/plan/facts/sheet-kinds';
import { Client, admin, auditor, type Document } from '../support/api';
import { ended, importFile } from '../support/jobs';

/* Sheets of one kind, such as hours or service codes, and many objects of a kind set at once. */

let boss: Client;
beforeAll(async () => {
  boss = await admin();
});

/* Jobs wait for the worker, which leaves the processor to others. */
jest.setTimeout(120_000);

const plan = async () => (await boss.get<Document>('/plan')).body;
const version = async () => (await boss.get<{ draftVersion: number }>('/health')).body.draftVersion;
const CONFERENCES =
  'Name,Site,Digits,Note\r\n' +
  Array.from({ length: 20 }, (_, i) => `Meeting ${i},North Quay,${5950 + i},"made; at once"\r\n`).join('');

describe('a sheet of one kind', () => {
  it.each(SHEET_KINDS)('of %s, exported and imported again, changes nothing', async (sheet) => {
    const csv = await boss.text(`/exports/kinds/${sheet}?format=csv`);
    expect(csv.type).toMatch(/text\/csv/);
    const { state, result } = await importFile(boss, csv.text, { sheet });
    expect([state, result.counts]).toEqual(['done', expect.objectContaining({ add: 0, change: 0, wrong: 0 })]);
  });

  it('is written as one edit that one undo takes back', async () => {
    const before = await version();
    const checked = await importFile(boss, CONFERENCES, { sheet: 'conference' });
    expect(checked.result.counts).toMatchObject({ add: 20, wrong: 0 });
    expect(await version()).toBe(before);
    const written = await importFile(boss, CONFERENCES, { sheet: 'conference' }, true);
    expect(written).toMatchObject({ state: 'done', result: { written: 20 } });
    expect(await version()).toBe(before + 1);
    const again = await importFile(boss, CONFERENCES.replaceAll('at once', 'once more'), { sheet: 'conference' });
    expect(again.result.counts).toMatchObject({ change: 20, add: 0 });
    expect((await boss.post('/edits/undo')).status).toBe(200);
    expect((await plan()).conferences!.filter((c) => String(c.name).startsWith('Meeting '))).toEqual([]);
  });

  it('comes as a workbook as well', async () => {
    const workbook = await boss.bytes('/exports/kinds/hours?format=xlsx');
    const checked = await importFile(boss, workbook, { sheet: 'hours' });
    expect(checked.result).toMatchObject({ recognised: { format: 'workbook', sheet: 'Hours' } });
    expect(checked.result.counts).toMatchObject({ add: 0, change: 0, wrong: 0 });
  });

  it('says which column is missing, which is none, and which sheet there is not', async () => {
    const nameless = await importFile(boss, 'Weekly,Time zone\r\nmon-fri 8-17,Europe/London\r\n', { sheet: 'hours' });
    expect(nameless.result).toMatchObject({ missing: 'Name', counts: { rows: 0 } });
    const written = await importFile(boss, 'Weekly\r\nmon-fri 8-17\r\n', { sheet: 'hours' }, true);
    expect(written.state).toBe('refused');
    const strange = await importFile(boss, 'Name\r\nx\r\n', { sheet: 'hours', mapping: { digits: 0 } });
    expect(strange.result.errors![0]!.sentence).toBe('The sheet has no column called digits.');
    expect((await boss.get('/exports/kinds/people')).status).toBe(404);
  });
});

describe('many of a kind at once', () => {
  const preview = (ledger: string, ids: string[] | null, change: object) =>
    boss.post<{ count: number; lines: { label: string; changes: { title: string; after: string }[] }[] }>(
      '/bulk/preview',
      { of: { ledger, ids }, change },
    );

  it('are set after every change was listed, as one edit', async () => {
    const codes = (await plan()).serviceCodes!;
    const ids = codes.slice(0, 5).map((c) => String(c.id));
    const change = { fields: { note: 'kept for the night' } };
    const listed = await preview('serviceCode', ids, change);
    expect(listed.body.count).toBe(5);
    expect(listed.body.lines[0]!.changes).toEqual([{ title: 'Note', before: 'none', after: 'kept for the night' }]);
    const before = await version();
    const job = await boss.post<{ job: string }>('/bulk', { of: { ledger: 'serviceCode', ids }, change });
    expect((await ended(boss, job.body.job)).state).toBe('done');
    expect(await version()).toBe(before + 1);
    expect((await plan()).serviceCodes!.filter((c) => c.note === 'kept for the night')).toHaveLength(5);
    await boss.post('/edits/undo');
  });

  it('names what a value is in words, and refuses what is one by one or nothing of theirs', async () => {
    const [first, second] = (await plan()).timeSwitches!;
    const hours = (await plan()).hours![0]!;
    const ids = [String(first!.id), String(second!.id)];
    const listed = await preview('timeSwitch', ids, { fields: { hours: hours.id } });
    expect(JSON.stringify(listed.body.lines)).toContain(String(hours.name));
    for (const [change, sentence] of [
      [{ fields: { name: 'all alike' } }, 'name is nothing that time switches are set to together.'],
      [{ fields: { weekly: 'mon 8-9' } }, 'weekly is nothing that time switches are set to together.'],
      [{ class: 'staff' }, 'class is nothing that time switches are set to together.'],
    ] as const) {
      const got = await preview('timeSwitch', ids, change);
      expect([got.status, (got.body as unknown as { error: { sentence: string } }).error.sentence]).toEqual([
        422,
        sentence,
      ]);
    }
    expect((await preview('timeSwitch', null, { fields: { note: 'x' } })).status).toBe(422);
    expect((await preview('number', ids, { fields: { note: 'x' } })).status).toBe(422);
    const bad = await preview('timeSwitch', ids, { fields: { hours: 7 } });
    expect((bad.body as unknown as { errors: object[] }).errors).toHaveLength(2);
  });

  it('is not for those who only look', async () => {
    const looker = await auditor();
    const got = await looker.post('/bulk', { of: { ledger: 'hours', ids: ['x'] }, change: { fields: { note: 'x' } } });
    expect(got.status).toBe(403);
  });
});
