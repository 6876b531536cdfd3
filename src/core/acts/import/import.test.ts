import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { lanternfold } from '../../../../demo/lanternfold';
import { endsPlan } from '../../../../tests/support/ends-plan';
import { readCsv, writeCsv } from '../../formats';
import { KINDS, integrityErrors, objectsOf, readPlan, type AnyObject, type Plan } from '../../plan';
import { checkSheet, matchColumns, writeSheet, type ImportResult, type ImportSettings } from './';

const read = readPlan(lanternfold());
if (!read.ok) throw new Error('demo');
const demo = read.plan;

function rowsOf(csv: string): string[][] {
  const table = readCsv(new TextEncoder().encode(csv));
  if (!table.ok) throw new Error(table.fault.sentence);
  return table.table.rows;
}

function check(rows: string[][], more: Partial<ImportSettings> = {}, plan: Plan = demo): ImportResult {
  let made = 0;
  const settings = {
    mapping: matchColumns(rows[0] ?? []),
    site: null,
    class: 'staff',
    makeTeams: false,
    corrections: {},
    leaveOut: [],
    ...more,
  };
  return checkSheet(plan, rows, settings, () => `made-${made++}`);
}

/** The plan with what an import makes of it. */
function imported(plan: Plan, result: ImportResult): Plan {
  const after = { ...plan } as unknown as Record<string, AnyObject[]>;
  for (const { kind, after: object } of result.objects) {
    const { list } = KINDS[kind];
    after[list] = [...after[list]!.filter((o) => o.id !== object.id), object];
  }
  return after as unknown as Plan;
}

describe('a sheet of extensions', () => {
  it('that was exported changes nothing, from any plan and through its file', () => {
    const small = endsPlan();
    for (const plan of [demo, small]) {
      const rows = rowsOf(writeCsv(writeSheet(plan, plan.extensions)));
      const result = check(rows, {}, plan);
      expect(result.rows.filter((r) => r.action !== 'same')).toEqual([]);
      expect([result.rows.length, result.objects, result.secrets]).toEqual([plan.extensions.length, [], []]);
    }
  });

  it('that was exported changes nothing whatever names and notes hold', () => {
    const anyText = fc.oneof(
      fc.string({ maxLength: 30 }),
      fc.constantFrom('=SUM(A1)', "'quoted'", '+46', '-1', '@x', 'a;b', 'a,"b"', 'Žofie ÅÄÖ', ' '),
    );
    fc.assert(
      fc.property(fc.array(fc.tuple(anyText, anyText), { minLength: 3, maxLength: 3 }), (texts) => {
        const plan = structuredClone(demo);
        const people = plan.extensions.filter((e) => e.person);
        texts.forEach(([name, note], i) => {
          const e = people[i]!;
          e.name = name.replace(/[\u0000-\u001f\u007f]/g, '').trim() || 'Someone';
          e.note = note;
          plan.people.find((p) => p.id === e.person)!.name = e.name;
        });
        const result = check(rowsOf(writeCsv(writeSheet(plan, people.slice(0, 3)))), {}, plan);
        expect(result.rows.map((r) => r.action)).toEqual(['same', 'same', 'same']);
      }),
      { numRuns: 150 },
    );
  });

  it('adds people with mailbox, number, teams and password, and the plan stays whole', () => {
    const result = check(
      rowsOf(
        'Ext;Name;Site;Mail;Team;DID;Voicemail;PIN;Room\r\n' +
          '3050;Åsa Öberg;Västra Kajen;asa@lanternfold.example;Bookings; 031-390 06 40 ;ja;2580;\r\n' +
          '3051;Dock lamp;västra kajen;;;;nej;;Dock 2\r\n',
      ),
      { corrections: { 2: { 1: 'Dock lantern' } } },
    );
    expect(result.rows.map((r) => [r.action, r.errors])).toEqual([
      ['add', []],
      ['add', []],
    ]);
    const after = imported(demo, result);
    expect(integrityErrors(after)).toEqual([]);
    const asa = after.extensions.find((e) => e.digits === '3050')!;
    expect(after.people.find((p) => p.id === asa.person)).toMatchObject({
      email: 'asa@lanternfold.example',
      teams: ['team-bookings'],
    });
    expect(after.mailboxes.find((m) => m.id === asa.mailbox)).toMatchObject({
      owners: [asa.person],
      email: 'asa@lanternfold.example',
    });
    expect(after.numbers.find((n) => n.e164 === '+46313900640')!.belongsTo).toBe(asa.id);
    expect(after.extensions.find((e) => e.digits === '3051')).toMatchObject({ name: 'Dock lantern', mailbox: null });
    expect(result.secrets.map((s) => [s.purpose, s.plain])).toEqual([
      ['pin', '2580'],
      ['sip-password', null],
      ['sip-password', null],
    ]);
  });

  it('again changes by digits only what it says, and two may change numbers', () => {
    const csv = 'Extension,Ring seconds,Own numbers\n2101,40,+441632960102\n2103,25,01632 960101\n';
    const plan = structuredClone(demo);
    plan.numbers.find((n) => n.e164 === '+441632960101')!.belongsTo = 'e-2101';
    plan.numbers.find((n) => n.e164 === '+441632960102')!.belongsTo = 'e-2103';
    plan.numbers.find((n) => n.e164 === '+441632960103')!.belongsTo = null;
    const result = check(rowsOf(csv), {}, plan);
    expect(result.rows.map((r) => [r.action, r.changes.map((c) => c.column)])).toEqual([
      ['change', ['ringSeconds', 'numbers']],
      ['change', ['numbers']],
    ]);
    const after = imported(plan, result);
    expect(integrityErrors(after)).toEqual([]);
    expect(after.extensions.find((e) => e.id === 'e-2101')).toMatchObject({
      ringSeconds: 40,
      name: demo.extensions.find((e) => e.id === 'e-2101')!.name,
    });
    expect(check(rowsOf(csv), {}, after).objects).toEqual([]);
  });

  it('an import of random new rows gives exactly them, and a second time nothing', () => {
    const row = fc.record({
      digits: fc.integer({ min: 3040, max: 3099 }).map(String),
      name: fc.stringMatching(/^[A-Za-zåäö]{2,12}$/),
      kind: fc.constantFrom('person', 'place', 'virtual', 'fax'),
      mailbox: fc.boolean(),
      seconds: fc.integer({ min: 5, max: 180 }),
    });
    fc.assert(
      fc.property(fc.uniqueArray(row, { selector: (r) => r.digits, minLength: 1, maxLength: 12 }), (people) => {
        const rows = [
          ['Extension', 'Name', 'Kind', 'Mailbox', 'Rings for'],
          ...people.map((p) => [p.digits, p.name, p.kind, p.mailbox ? 'yes' : 'no', `${p.seconds}`]),
        ];
        const result = check(rows);
        const after = imported(demo, result);
        expect(integrityErrors(after)).toEqual([]);
        expect(objectsOf(after, 'extension').length).toBe(demo.extensions.length + people.length);
        for (const p of people)
          expect(after.extensions.find((e) => e.digits === p.digits)).toMatchObject({
            name: p.name,
            kind: p.kind,
            ringSeconds: p.seconds,
            site: 'vastra-kajen',
          });
        expect(check(rows, {}, after).rows.every((r) => r.action === 'same')).toBe(true);
      }),
      { numRuns: 60 },
    );
  });
});

/* Files made wrong in many ways: each is refused at its cell with what would be right, and writes nothing of that row. */
const HEAD =
  'Extension,Name,Kind,Site,Class,E-mail,Teams,Own numbers,Outgoing number,Withhold,Rings for,Mailbox,PIN,Mail messages to,After the mail,SIP password,Language';
const good = ['3060', 'New One', '', '', '', '', '', '', '', '', '', '', '', '', '', '', ''];
const withCell = (at: number, text: string) => good.map((c, i) => (i === at ? text : c));
const WRONG: [string, string[], string, RegExp][] = [
  ['no digits', withCell(0, ''), 'digits', /missing/],
  ['letters for digits', withCell(0, '30a'), 'digits', /no digits/],
  ['too many digits', withCell(0, '12345678901'), 'digits', /1 to 10/],
  ['digits of a fraction', withCell(0, '3060.5'), 'digits', /no digits/],
  ['digits in no range', withCell(0, '9999'), 'site', /no site’s range/],
  ['no name', withCell(1, ''), 'name', /missing/],
  ['name too long', withCell(1, 'x'.repeat(81)), 'name', /80/],
  ['unknown kind', withCell(2, 'robot'), 'kind', /person, place, fax, virtual/],
  ['unknown site', withCell(3, 'Atlantis'), 'site', /no site “Atlantis”/],
  ['unknown class', withCell(4, 'Kings'), 'class', /no class “Kings”/],
  ['broken e-mail', withCell(5, 'nobody at home'), 'email', /no e-mail address/],
  ['unknown team', withCell(6, 'Bookings; Divers'), 'teams', /no team “Divers”/],
  ['number that is none', withCell(7, 'call me'), 'numbers', /no telephone number/],
  ['number not ours', withCell(7, '+46 31 390 0699'), 'numbers', /not one of your numbers/],
  ['number of somebody', withCell(7, '+46 31 390 0601'), 'numbers', /belongs to 3001/],
  [
    'number of another country read here',
    withCell(7, '01632 960101'),
    'numbers',
    /not one of your numbers|no number|short/,
  ],
  ['outgoing number not ours', withCell(8, '+46 8 465 004 17'), 'outgoingNumber', /not one of your numbers/],
  ['neither yes nor no', withCell(9, 'maybe'), 'withholdNumber', /neither yes nor no/],
  ['seconds in words', withCell(10, 'five rings'), 'ringSeconds', /no seconds/],
  ['too many seconds', withCell(10, '900'), 'ringSeconds', /180/],
  ['too few seconds', withCell(10, '2'), 'ringSeconds', /5/],
  ['mailbox half', withCell(11, 'half'), 'mailbox', /neither yes nor no/],
  ['PIN like the extension', withCell(12, '3060'), 'pin', /extension/],
  ['PIN in a row', withCell(12, '1234'), 'pin', /run/],
  ['PIN too short', withCell(12, '25'), 'pin', /at least 4/],
  ['PIN with letters', withCell(12, '25a0'), 'pin', /digits only/],
  ['PIN without a mailbox', good.map((c, i) => (i === 12 ? '2580' : i === 11 ? 'no' : c)), 'pin', /no mailbox/],
  ['messages to nowhere', withCell(13, 'x@'), 'mailTo', /no e-mail address/],
  [
    'delete what was not mailed',
    good.map((c, i) => (i === 11 ? 'yes' : i === 14 ? 'delete' : c)),
    'afterMail',
    /attach the sound/,
  ],
  [
    'after the mail: burn',
    good.map((c, i) => (i === 11 ? 'yes' : i === 14 ? 'burn' : c)),
    'afterMail',
    /keep nor delete/,
  ],
  ['weak SIP password', withCell(15, 'short'), 'sipPassword', /12 to 64/],
  ['language of a novel', withCell(16, 'x'.repeat(36)), 'language', /35/],
];

describe('a sheet made wrong', () => {
  it.each(WRONG)('%s', (_what, row, column, sentence) => {
    const result = check([HEAD.split(','), row, withCell(0, '3061')]);
    const [bad, fine] = result.rows;
    expect(bad!.action).toBe('wrong');
    expect(bad!.errors.map((e) => e.column)).toContain(column);
    expect(bad!.errors.find((e) => e.column === column)!.sentence).toMatch(sentence);
    expect([fine!.action, fine!.errors]).toEqual(['add', []]);
  });

  it('one extension twice, one number twice, and two things said of one person', () => {
    const twice = check(rowsOf('Extension,Name\n3060,A\n3060,B\n'));
    expect(twice.rows.map((r) => r.action)).toEqual(['add', 'wrong']);
    expect(twice.rows[1]!.errors[0]!.sentence).toBe('Row 2 is about 3060 already.');
    const number = check(rowsOf('Extension,Name,DID\n3060,A,+46313900640\n3061,B,+46313900640\n'));
    expect(number.rows[1]!.errors[0]).toMatchObject({
      column: 'numbers',
      sentence: '+46313900640 stands in row 2 already.',
    });
    const plan = structuredClone(demo);
    plan.extensions.find((e) => e.id === 'e-3002')!.person = 'p-3001';
    const said = check(rowsOf('Extension,E-mail\n3001,a@x.example\n3002,b@x.example\n'), {}, plan);
    expect(said.rows[1]!.errors[0]!.sentence).toMatch(/Row 2 says “a@x.example”/);
  });

  it('digits that something else has are refused', () => {
    const plan = endsPlan();
    const group = plan.ringGroups[0]!;
    const result = check(
      [
        ['Extension', 'Name', 'Site'],
        [group.digits!, 'X', plan.sites[0]!.name],
      ],
      {},
      plan,
    );
    expect(result.rows[0]!.errors[0]!.sentence).toBe(`${group.digits} is already ${group.name}.`);
  });

  it('rows that are left out or corrected are no longer wrong; unknown teams are made when wanted', () => {
    const rows = rowsOf('Extension,Name,Teams\n3060,,Divers\n3061,B,Divers\n');
    expect(check(rows).rows.map((r) => r.action)).toEqual(['wrong', 'wrong']);
    const mended = check(rows, { leaveOut: [1], makeTeams: true });
    expect(mended.rows.map((r) => r.action)).toEqual(['left out', 'add']);
    expect(mended.objects.filter((o) => o.kind === 'team')).toHaveLength(1);
    const both = check(rows, { corrections: { 1: { 1: 'A' } }, makeTeams: true });
    expect(both.rows.map((r) => r.action)).toEqual(['add', 'add']);
    expect(both.objects.filter((o) => o.kind === 'team')).toHaveLength(1);
  });
});

describe('names of columns', () => {
  it.each([
    ['Ext,Display Name,DID', { digits: 0, name: 1, numbers: 2 }],
    ['Namn;Anknytning;E-post;Språk', { name: 0, digits: 1, email: 2, language: 3 }],
    ['Name,Durchwahl,Rufnummer,Abteilung', { name: 0, digits: 1, numbers: 2, teams: 3 }],
    ['Extension,Extension', { digits: 0 }],
    ['colour,shoe size', {}],
  ])('%s', (header, mapping) => expect(matchColumns(header.split(/[,;]/))).toEqual(mapping));
});
