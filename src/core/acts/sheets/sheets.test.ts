import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { lanternfold } from '../../../../demo/lanternfold';
import { endsPlan } from '../../../../tests/support/ends-plan';
import { Chance, randomPlan } from '../../../../tests/support/evaluator/random';
import { readCsv, writeCsv } from '../../formats';
import { matchColumns, type ImportSettings } from '../import';
import { KINDS, objectsOf, readPlan, type AnyObject, type Plan } from '../../plan';
import { SHEET_KINDS, type SheetKind } from '../../plan/facts/sheet-kinds';
import { readDates, readExceptions, writeDates, writeExceptions } from './dates';
import { checkObjects, columnsOf, writeObjects } from './';

function planOf(document: object): Plan {
  const read = readPlan(document);
  if (!read.ok) throw new Error(JSON.stringify(read.errors.slice(0, 3)));
  return read.plan;
}
const demo = planOf(lanternfold());

/** Through a file and back. */
function throughFile(rows: string[][]): string[][] {
  const table = readCsv(new TextEncoder().encode(writeCsv(rows)));
  if (!table.ok) throw new Error(table.fault.sentence);
  return table.table.rows;
}

function check(kind: SheetKind, rows: string[][], plan: Plan = demo, more: Partial<ImportSettings> = {}) {
  let made = 0;
  const settings: ImportSettings = {
    mapping: matchColumns(rows[0]!, columnsOf(kind)),
    site: null,
    class: null,
    makeTeams: false,
    corrections: {},
    leaveOut: [],
    ...more,
  };
  const listOf = (k: Parameters<typeof objectsOf>[1]) => objectsOf(plan, k) as AnyObject[];
  return checkObjects(plan, { kind, rows, settings, listOf, makeId: () => `made-${made++}` });
}

const sheetOf = (kind: SheetKind, plan: Plan = demo) => writeObjects(kind, (k) => objectsOf(plan, k) as AnyObject[]);

const wrongOf = (result: ReturnType<typeof check>) =>
  result.rows.flatMap((r) => r.errors.map((e) => `${r.row + 1} ${e.column}: ${e.sentence}`));

describe('a sheet of one kind', () => {
  it.each(SHEET_KINDS)('of %s that was written changes nothing when it is read', (kind) => {
    for (const plan of [demo, endsPlan()]) {
      const result = check(kind, throughFile(sheetOf(kind, plan)), plan);
      expect(wrongOf(result).filter((w) => !w.includes('more than one'))).toEqual([]);
      expect(result.objects).toEqual([]);
    }
  });

  it('changes nothing for whatever plan and names', () => {
    const text = fc.oneof(
      fc.string({ minLength: 1, maxLength: 20 }),
      fc.constantFrom('a;b', '"q"', 'x [y]', '=SUM(A1)', 'Åäö', 'closed', 'back\\slash', 'o\'clock; "w"'),
    );
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.array(text, { minLength: 6, maxLength: 6 }), (seed, texts) => {
        const document = structuredClone(randomPlan(new Chance(seed))) as unknown as Record<
          string,
          { name?: string }[]
        >;
        const clean = texts.map((t) => t.replace(/[\p{C}\p{Zl}\p{Zp}]/gu, '').trim() || 'n');
        for (const list of ['hours', 'timeSwitches', 'inboundRoutes', 'announcements', 'queues', 'prompts'])
          (document[list] ?? []).forEach((o, i) => (o.name = `${clean[i % clean.length]} ${i}`));
        const plan = planOf(document);
        for (const kind of SHEET_KINDS) {
          const result = check(kind, throughFile(sheetOf(kind, plan)), plan);
          // Two rules that ask the same hours for the same can't be told apart; they stay as they are.
          expect(wrongOf(result).filter((w) => !/more than one|already/.test(w))).toEqual([]);
          expect([kind, result.objects]).toEqual([kind, []]);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('dates with whatever names stand in a cell and are read as they were', () => {
    const name = fc.oneof(fc.string({ maxLength: 12 }), fc.constantFrom('8-13', 'closed', 'yearly', '"', '; ', '\\'));
    const day = fc.constantFrom('2026-12-24', '2027-01-06', '2027-05-01');
    const open = fc.constantFrom('', '8-13', '8-12, 13:30-17', '22-6');
    const exceptions = fc.array(fc.record({ date: day, open, name }), { maxLength: 4 });
    const dates = fc.array(
      fc.record({ date: day, name: name.filter((n) => n !== ''), yearly: fc.boolean(), closed: fc.boolean() }),
      { maxLength: 4 },
    );
    fc.assert(
      fc.property(exceptions, dates, (some, holidays) => {
        expect(readExceptions(writeExceptions(some))).toEqual({ ok: true, value: some });
        expect(readDates(writeDates(holidays))).toEqual({ ok: true, value: holidays });
      }),
      { numRuns: 500 },
    );
    expect(readExceptions('2026-12-24 8-13 Christmas Eve; 2026-12-31 closed')).toEqual({
      ok: true,
      value: [
        { date: '2026-12-24', open: '8-13', name: 'Christmas Eve' },
        { date: '2026-12-31', open: '', name: '' },
      ],
    });
  });

  it('adds, changes and leaves alone, row by row', () => {
    const rows = [
      ['Name', 'Time zone', 'Weekly', 'Exceptions', 'Note'],
      ['Customs desk', 'Europe/London', 'mon-fri 8-16', '2026-12-24 8-12 "Christmas Eve"; 2026-12-31 closed', ''],
      [demo.hours[0]!.name.toUpperCase(), '', 'mon-sun 6-22', '', 'from the sheet'],
    ];
    const result = check('hours', rows);
    expect(wrongOf(result)).toEqual([
      '3 zone: Time zone is no time zone: an IANA name such as Europe/London is needed.',
    ]);
    const mended = check('hours', rows, demo, { corrections: { 2: { 1: demo.hours[0]!.zone } } });
    expect(wrongOf(mended)).toEqual([]);
    expect(mended.rows.map((r) => r.action)).toEqual(['add', 'change']);
    expect(mended.objects.map((o) => o.after)).toMatchObject([
      {
        name: 'Customs desk',
        weekly: 'mon-fri 8-16',
        exceptions: [
          { date: '2026-12-24', open: '8-12', name: 'Christmas Eve' },
          { date: '2026-12-31', open: '', name: '' },
        ],
        holidays: [],
      },
      { id: demo.hours[0]!.id, weekly: 'mon-sun 6-22', note: 'from the sheet', exceptions: [] },
    ]);
  });

  it('says at its cell what is wrong, and what would be right', () => {
    const taken = demo.extensions[0]!;
    const site = demo.sites.find((s) => s.id === taken.site)!.name;
    const result = check('conference', [
      ['Name', 'Site', 'Digits', 'Most members'],
      ['Monday', site, taken.digits, '8'],
      ['Tuesday', 'Atlantis', '5901', '8'],
      ['Wednesday', site, '5902', 'many'],
      ['Thursday', site, '5903', '8'],
      ['Friday', site, '5903', '8'],
    ]);
    expect(wrongOf(result).map((w) => w.replace(/; there is .*/, '; there is …'))).toEqual([
      `2 digits: ${taken.digits} is already extension ${taken.digits} ${taken.name}.`,
      '3 site: There is no site “Atlantis”; there is …',
      '4 mostMembers: “many” is no figure.',
      '6 null: Row 5 is about Friday already.',
    ]);
  });

  it('takes a row for the one with its digits, else for the one with its name, else for a new one', () => {
    const [first] = demo.conferences;
    const site = demo.sites.find((s) => s.id === first!.site)!.name;
    const head = ['Name', 'Site', 'Digits'];
    const renamed = check('conference', [head, ['Another name', site, first!.digits!]]);
    expect(renamed.objects.map((o) => [o.before?.id, o.after])).toMatchObject([[first!.id, { name: 'Another name' }]]);
    const moved = check('conference', [head, [first!.name, site, '5999']]);
    expect(moved.objects.map((o) => [o.before?.id, o.after])).toMatchObject([[first!.id, { digits: '5999' }]]);
    const second = check('conference', [head, [first!.name, site, first!.digits!], [first!.name, site, '5999']]);
    expect(wrongOf(second)).toEqual([]);
    expect(second.objects.map((o) => [o.before, o.after])).toMatchObject([[null, { digits: '5999' }]]);
  });

  it('holds inbound routes with their callers, and time rules that name them', () => {
    const e164 = demo.numbers.find((n) => n.state === 'active')!.e164;
    const [way] = demo.timeSwitches;
    const routes = check('inboundRoute', [
      ['Name', 'Called numbers', 'Callers from countries', 'These callers', 'Leads to'],
      ['Nordic desk', e164, 'SE; NO', '+46313900610;+4722334455', `Time switch ${way!.name}`],
    ]);
    expect(wrongOf(routes)).toEqual([]);
    expect(routes.objects[0]!.after).toMatchObject({
      callingCountries: ['SE', 'NO'],
      callingNumbers: ['+46313900610', '+4722334455'],
      leadsTo: way!.id,
      position: Math.max(...demo.inboundRoutes.map((r) => r.position)) + 10,
    });
    const [route] = demo.inboundRoutes;
    const rules = check('routeRule', [
      ['Route', 'Hours', 'When', 'Leads to'],
      [route!.name, demo.hours[1]!.name, 'notice', `Time switch ${way!.name}`],
      [route!.name, demo.hours[1]!.name, 'someday', 'nowhere at all'],
    ]);
    expect(rules.objects[0]!.after).toMatchObject({ route: route!.id, hours: demo.hours[1]!.id, leadsTo: way!.id });
    expect(wrongOf(rules).map((w) => w.slice(0, 40))).toEqual([
      expect.stringContaining('3 when: “someday” is none of'),
      expect.stringContaining('3 leadsTo: There is no destination'),
    ]);
  });

  it('takes one column to one field and nothing else', () => {
    const rows = sheetOf('outsideNumber');
    const at = rows[0]!.indexOf('Note');
    const edited = rows.map((r, i) => (i === 0 ? r : r.with(at, `note ${i}`)));
    const result = check('outsideNumber', edited);
    expect(result.objects.map((o) => o.after)).toEqual(
      demo.outsideNumbers.map((o, i) => ({ ...o, note: `note ${i + 1}` })),
    );
    expect(KINDS.outsideNumber.word).toBe('outside number');
  });
});
