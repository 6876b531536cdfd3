import { beforeAll, describe, expect, it, jest } from '@jest/globals';
import ExcelJS from 'exceljs';
import { Client, admin, auditor, database, objectIn, type Document } from '../support/api';
import { ended, importFile } from '../support/jobs';

/* Sheets through the API: kept, checked by the worker, written whole or not at all, taken back as one. */

let boss: Client;
beforeAll(async () => {
  boss = await admin();
});

const plan = async () => (await boss.get<Document>('/plan')).body;
const version = async () => (await boss.get<{ draftVersion: number }>('/health')).body.draftVersion;
const HEAD = 'Extension,Name,Site,Own numbers,Mailbox,PIN,Teams\r\n';
const people = (count: number, from = 2175) =>
  HEAD +
  Array.from(
    { length: count },
    (_, i) => `${from + i},Sheet Person ${i},North Quay,,yes,${2580 + i * 7},Bookings\r\n`,
  ).join('');

/* Jobs wait for the worker, which leaves the processor to others. */
jest.setTimeout(60_000);

describe('importing a sheet', () => {
  it('checks without writing, then writes it as one edit that one undo takes back whole', async () => {
    const before = await version();
    const checked = await importFile(boss, people(12), { class: 'staff' });
    expect(checked).toMatchObject({ state: 'done', result: { counts: { add: 12, wrong: 0 } } });
    expect(await version()).toBe(before);
    const written = await importFile(boss, people(12), { class: 'staff' }, true);
    expect(written).toMatchObject({ state: 'done', result: { counts: { add: 12 }, written: 36 } });
    expect(await version()).toBe(before + 1);
    const added = (await plan()).extensions!.filter((e) => String(e.name).startsWith('Sheet Person'));
    expect(added).toHaveLength(12);
    const connection = await database();
    const [secrets] = await connection.query<import('mysql2').RowDataPacket[]>(
      'SELECT purpose, COUNT(*) AS count FROM secret WHERE owner IN (?) OR owner IN (?) GROUP BY purpose',
      [added.map((e) => e.id), added.map((e) => e.mailbox)],
    );
    await connection.end();
    expect(Object.fromEntries(secrets.map((s) => [s.purpose, Number(s.count)]))).toEqual({
      pin: 12,
      'sip-password': 12,
    });
    const again = await importFile(boss, people(12).replace(/,\d{4}(?=,Bookings)/g, ','), { class: 'staff' });
    expect(again.result.counts).toMatchObject({ same: 12, add: 0, change: 0 });
    const undone = await boss.post<{ label: string }>('/edits/undo');
    expect(undone.status).toBe(200);
    expect((await plan()).extensions!.filter((e) => String(e.name).startsWith('Sheet Person'))).toEqual([]);
  });

  it('writes nothing when one row is wrong, and says which cell', async () => {
    const before = await version();
    const csv = people(3, 2175) + '2179,,North Quay,,yes,1234,Nobody\r\n';
    const refused = await importFile(boss, csv, { class: 'staff' }, true);
    expect(refused.state).toBe('refused');
    expect(refused.result.errors![0]!.sentence).toMatch(/1 rows are wrong/);
    expect(await version()).toBe(before);
    const checked = await importFile(boss, csv, { class: 'staff' });
    expect(checked.result.wrong![0]!.errors.map((e) => e.column).sort()).toEqual(['name', 'pin', 'teams']);
    const mended = await importFile(boss, csv, { class: 'staff', leaveOut: [4] });
    expect(mended.result.counts).toMatchObject({ add: 3, wrong: 0, leftOut: 1 });
  });

  it('that sets PINs anew and nothing else sets them', async () => {
    const connection = await database();
    const kept = async () =>
      JSON.stringify(
        (await connection.query('SELECT * FROM secret WHERE owner = ? AND purpose = ?', ['m-2104', 'pin']))[0],
      );
    const was = await kept();
    const sheet = 'Extension,Name,PIN\r\n2104,Amara Lindqvist,736152\r\n';
    const done = await importFile(boss, sheet, {}, true);
    expect([done.state, done.result.counts]).toEqual(['done', expect.objectContaining({ change: 1, wrong: 0 })]);
    expect(await kept()).not.toBe(was);
    await connection.end();
  });

  it('an export imported again changes nothing, as CSV and as a workbook', async () => {
    const csv = await boss.text('/exports/extensions?format=csv');
    expect(csv.type).toMatch(/text\/csv/);
    expect((await importFile(boss, csv.text)).result.counts).toMatchObject({ add: 0, change: 0, wrong: 0 });
    const response = await boss.bytes('/exports/extensions?format=xlsx');
    const checked = await importFile(boss, response);
    expect(checked.result).toMatchObject({ recognised: { format: 'workbook', sheet: 'Extensions' } });
    expect(checked.result.counts).toMatchObject({ add: 0, change: 0, wrong: 0 });
    expect(checked.result.counts!.same).toBe((await plan()).extensions!.length);
  });

  it('reads a workbook as a person sees it: formulas, rich text, numbers', async () => {
    const workbook = new ExcelJS.Workbook();
    workbook.addWorksheet('Empty');
    const sheet = workbook.addWorksheet('Staff');
    sheet.addRow(['Ext', 'Name', 'Site', 'Voicemail']);
    sheet.addRow([
      2181,
      { richText: [{ text: 'Rich ' }, { text: 'Text' }] },
      { formula: '"North"&" Quay"', result: 'North Quay' },
      true,
    ]);
    const checked = await importFile(boss, new Uint8Array(await workbook.xlsx.writeBuffer()), { class: 'staff' });
    expect(checked.result).toMatchObject({ counts: { add: 1 }, fine: [{ digits: '2181', name: 'Rich Text' }] });
  });

  it.each<[string, Uint8Array | string, string, RegExp]>([
    ['a workbook that is none', Uint8Array.from([0x50, 0x4b, 3, 4, 1, 2, 3]), 'not-a-workbook', /no workbook/],
    ['no text', Uint8Array.from([0xff, 0xfe, 65]), 'encoding', /cut in half/],
    ['Latin-1', Uint8Array.from([...Buffer.from('Extension,Name\n2181,'), 0xc5, 0x73]), 'encoding', /neither UTF-8/],
    ['an open quote', 'Extension,Name\n"2181,x', 'quotes', /never closed/],
    ['blanks only', ' \n\n', 'empty', /nothing in it/],
  ])('%s is refused with where', async (_what, content, code, sentence) => {
    const checked = await importFile(boss, content);
    expect([checked.state, checked.result.errors?.[0]?.code]).toEqual(['refused', code]);
    expect(checked.result.errors![0]!.sentence).toMatch(sentence);
  });

  it('a sheet without the extension’s column asks which one it is', async () => {
    const checked = await importFile(boss, 'who,what\nx,y\n');
    expect(checked.result).toMatchObject({ header: ['who', 'what'], mapping: {}, counts: { rows: 0 } });
    expect((await importFile(boss, 'who,what\nx,y\n', {}, true)).state).toBe('refused');
  });

  it('limits count in the dry run and refuse with which and by how many', async () => {
    const used = (await boss.get<{ use: unknown[] }>('/limits')).body as { use: { used: number }[] };
    expect(used.use).toEqual([]);
    const now = (await plan()).extensions!.filter((e) => e.kind === 'person').length;
    const none = {
      personExtensions: null,
      placeExtensions: null,
      faxExtensions: null,
      mailboxes: null,
      queues: null,
      attendants: null,
      channels: null,
    };
    expect((await boss.put('/limits', { ...none, personExtensions: now + 2 })).status).toBe(200);
    try {
      const checked = await importFile(boss, people(5), { class: 'staff' });
      expect(checked.result.limits).toEqual([
        { words: 'Extensions of people', most: now + 2, used: now, wanted: now + 5, over: 3 },
      ]);
      const refused = await importFile(boss, people(5), { class: 'staff' }, true);
      expect(refused.result.errors![0]!.sentence).toBe(
        `Extensions of people: ${now + 2} allowed, ${now} used, this would make ${now + 5}, 3 too many.`,
      );
    } finally {
      await boss.put('/limits', none);
    }
  });

  it('can be stopped, and then nothing has happened', async () => {
    const before = await version();
    const kept = await boss.file(
      '/imports?name=long.csv',
      HEAD + Array.from({ length: 6000 }, (_, i) => `${30000 + i},Long ${i},North Quay,,yes,,\r\n`).join(''),
    );
    const { body } = await boss.post<{ job: string }>(`/imports/${kept.body.id}/apply`, {
      class: 'staff',
      site: 'north-quay',
    });
    let stopped = { state: '' };
    for (let tries = 0; tries < 400 && stopped.state !== 'stopped'; tries++) {
      const job = await boss.get<{ state: string; doing: string }>(`/jobs/${body.job}`);
      if (/writing/.test(job.body.doing)) await boss.delete(`/jobs/${body.job}`);
      if (!['waiting', 'running'].includes(job.body.state)) stopped = job.body;
      await new Promise((done) => setTimeout(done, 25));
    }
    expect(stopped.state).toBe('stopped');
    expect(await version()).toBe(before);
    expect((await ended(boss, body.job)).result).toMatchObject({ sentence: 'Stopped; nothing was changed.' });
  });

  it('is for those who may edit in bulk; another’s file and work are out of reach', async () => {
    const looker = await auditor();
    expect((await looker.file('/imports?name=x.csv', 'a,b')).status).toBe(403);
    const kept = await boss.file('/imports?name=mine.csv', people(1));
    const { body } = await boss.post<{ job: string }>(`/imports/${kept.body.id}/check`, {});
    expect((await looker.get(`/jobs/${body.job}`)).status).toBe(404);
    expect((await boss.post('/imports/none/check', {})).status).toBe(404);
    expect((await boss.file('/imports?name=x.csv', '')).status).toBe(400);
  });

  it('the directory goes out as vCard and CSV, secrets in neither', async () => {
    const cards = await boss.text('/exports/directory?format=vcard');
    expect(cards.type).toMatch(/text\/vcard/);
    const listed = (await plan()).extensions!.filter((e) => e.kind === 'person' || e.kind === 'place');
    expect(cards.text.match(/BEGIN:VCARD/g)!.length).toBe(listed.length);
    const csv = await boss.text('/exports/directory?format=csv');
    expect(csv.text.split('\r\n')[0]).toBe('Name,Kind,Extension,Number,E-mail,Team');
    const farida = await objectIn(boss, 'draft', 'people', 'p-2101');
    expect(csv.text).toContain(String(farida!.name));
  });
});

describe('what is secret in a sheet', () => {
  it('is told in no answer, kept in the clear nowhere, and gone with the file when it is used', async () => {
    const pins = ['918273', '645546', '112293'];
    const row = (i: number, pin: string, more = '') =>
      `${2190 + i},Secret Person ${i},North Quay,,yes,${pin},${more}\r\n`;
    const csv = HEAD + row(0, pins[0]!) + row(1, pins[1]!, 'No such team') + row(2, pins[2]!);
    const kept = await boss.file('/imports?name=secrets.csv', csv);
    const connection = await database();
    const count = async (sql: string) =>
      Number((await connection.query<import('mysql2').RowDataPacket[]>(sql))[0][0]!.n);
    const file = `FROM import_file WHERE id = '${kept.body.id}'`;
    expect(await count(`SELECT COUNT(*) AS n ${file}`)).toBe(1);
    for (const pin of pins) expect(await count(`SELECT INSTR(content, '${pin}') AS n ${file}`)).toBe(0);
    const run = async (what: string, settings: object) => {
      const asked = await boss.post<{ job: string }>(`/imports/${kept.body.id}/${what}`, settings);
      const job = await ended(boss, asked.body.job);
      return { job, text: JSON.stringify(job) };
    };
    const checked = await run('check', { class: 'staff' });
    expect(checked.job.result.counts).toMatchObject({ wrong: 1 });
    expect(checked.text).toMatch(/Secret Person 1.*•••/);
    const applied = await run('apply', { class: 'staff', leaveOut: [2] });
    expect(applied.job.state).toBe('done');
    for (const { text } of [checked, applied]) expect(pins.filter((pin) => text.includes(pin))).toEqual([]);
    expect(await count(`SELECT COUNT(*) AS n ${file}`)).toBe(0);
    for (const pin of pins) {
      const told = `INSTR(COALESCE(result, ''), '${pin}') + INSTR(input, '${pin}')`;
      expect(await count(`SELECT COUNT(*) AS n FROM job WHERE ${told} > 0`)).toBe(0);
    }
    await connection.end();
    await boss.post('/edits/undo');
  });
});
