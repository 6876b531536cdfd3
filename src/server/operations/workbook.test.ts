import { mkdtempSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import { build } from 'esbuild';
import fc from 'fast-check';
import { zipOf } from '../../../tests/support/zip';
import { readWorkbook, writeWorkbook } from './workbook';

jest.setTimeout(120_000);

/** Beside node_modules, so that what the thread needs is found. */
const folder = mkdtempSync(join(resolve('node_modules'), '.workbook-'));
const thread = join(folder, 'thread.mjs');
beforeAll(async () => {
  await build({
    entryPoints: ['src/server/operations/workbook-thread.ts'],
    outfile: thread,
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
  });
});
afterAll(() => rmSync(folder, { recursive: true }));

const MAIN = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
const OFFICE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const PACKAGE = 'http://schemas.openxmlformats.org/package/2006';
const octets = (text: string) => new TextEncoder().encode(text);
const xml = (text: string) => octets(`<?xml version="1.0" encoding="UTF-8" standalone="yes"?>${text}`);

/** A workbook made by hand of the parts that ECMA-376 asks for, with the inside of its only sheet. */
function workbook(
  sheet: string | Uint8Array,
  more: Record<string, Uint8Array> = {},
  told: number | null = null,
): Uint8Array {
  const parts = {
    '[Content_Types].xml': xml(
      `<Types xmlns="${PACKAGE}/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/></Types>`,
    ),
    '_rels/.rels': xml(
      `<Relationships xmlns="${PACKAGE}/relationships"><Relationship Id="rId1" Type="${OFFICE}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    ),
    'xl/workbook.xml': xml(
      `<workbook xmlns="${MAIN}" xmlns:r="${OFFICE}"><sheets><sheet name="People" sheetId="1" r:id="rId1"/></sheets></workbook>`,
    ),
    'xl/_rels/workbook.xml.rels': xml(
      `<Relationships xmlns="${PACKAGE}/relationships"><Relationship Id="rId1" Type="${OFFICE}/worksheet" Target="worksheets/sheet1.xml"/></Relationships>`,
    ),
    ...more,
    'xl/worksheets/sheet1.xml':
      typeof sheet === 'string' ? xml(`<worksheet xmlns="${MAIN}">${sheet}</worksheet>`) : sheet,
  };
  return zipOf(parts, told);
}
const text = (at: string, value: string) => `<c r="${at}" t="inlineStr"><is><t>${value}</t></is></c>`;
const data = (rows: string) => `<sheetData>${rows}</sheetData>`;
const HEAD = `<row r="1">${text('A1', 'Extension')}${text('B1', 'Name')}</row>`;

async function fault(bytes: Uint8Array): Promise<string> {
  const read = await readWorkbook(bytes, thread);
  return read.ok ? 'taken' : `${read.fault.code}: ${read.fault.sentence}`;
}

describe('a workbook', () => {
  it('is read as people see it, with its empty rows in their places', async () => {
    const rows = `${HEAD}<row r="3"><c r="A3"><v>2150</v></c>${text('B3', 'Ann &amp; Bo')}</row><row r="4"><c r="B4"><f>1+1</f><v>2</v></c></row>`;
    const read = await readWorkbook(workbook(data(rows)), thread);
    expect(read.ok && read.table.rows.map((r) => [...r])).toEqual([
      ['Extension', 'Name'],
      [],
      ['2150', 'Ann & Bo'],
      ['', '2'],
    ]);
  });

  it('comes back as it was written', async () => {
    const cell = fc.string({
      unit: fc.constantFrom('a', 'Å', '0', '&', '<', '"', '€', '文', ' '),
      minLength: 1,
      maxLength: 6,
    });
    const rows = fc.array(fc.tuple(cell, cell, cell), { minLength: 1, maxLength: 8 });
    await fc.assert(
      fc.asyncProperty(rows, async (body) => {
        const whole = [['One', 'Two', 'Three'], ...body.map((r) => r.map((c) => `.${c}.`))];
        const read = await readWorkbook(await writeWorkbook(whole, 'Sheet'), thread);
        expect(read.ok && read.table.rows.map((r) => [...r])).toEqual(whole);
      }),
      { numRuns: 12 },
    );
  });
});

describe('a workbook that means harm', () => {
  it('by one merged range over everything is read without it', async () => {
    const merged = `${data(HEAD)}<mergeCells count="1"><mergeCell ref="A1:XFD1048576"/></mergeCells>`;
    const read = await readWorkbook(workbook(merged), thread);
    expect(read.ok && read.table.rows).toHaveLength(1);
  });

  it('by a row or a column far away is refused with what is read', async () => {
    expect(await fault(workbook(data(`${HEAD}<row r="99999999">${text('A99999999', 'x')}</row>`)))).toMatch(
      /too-large: .*row 99,999,999; up to 100000 rows/,
    );
    expect(await fault(workbook(data(`${HEAD}<row r="2">${text('XFD2', 'x')}</row>`)))).toMatch(
      /column 16384; up to 200/,
    );
  });

  it('by unfolding to more than it says is measured by what there really is', async () => {
    const zeros = new Uint8Array(260 * 1024 * 1024);
    // The directory says that everything is one octet long.
    const bytes = workbook(data(HEAD), { 'xl/media/large.bin': zeros }, 1);
    expect(bytes.length).toBeLessThan(3_000_000);
    expect(await fault(bytes)).toMatch(/too-large: .*more than 200 MiB/);
  });

  it('by taking memory without end ends with its thread, and this process goes on', async () => {
    const strings = new Uint8Array(60 * 1024 * 1024);
    const piece = octets('<si><t>x</t></si>');
    const head = xml(`<sst xmlns="${MAIN}">`);
    strings.set(head);
    let at = head.length;
    for (; at + piece.length < strings.length; at += piece.length) strings.set(piece, at);
    strings.fill(0x20, at);
    const bytes = workbook(data(HEAD), { 'xl/sharedStrings.xml': strings });
    const before = process.memoryUsage().rss;
    expect(await fault(bytes)).toMatch(/^(taken|too-large|not-a-workbook)/);
    expect(process.memoryUsage().rss - before).toBeLessThan(1_500_000_000);
  });

  it.each<[string, Uint8Array]>([
    [
      'entities within entities',
      xml(
        `<!DOCTYPE a [<!ENTITY b "bb"><!ENTITY c "&b;&b;&b;">]><worksheet xmlns="${MAIN}"><sheetData><row r="1"><c r="A1" t="inlineStr"><is><t>&c;</t></is></c></row></sheetData></worksheet>`,
      ),
    ],
    [
      'a file of the machine',
      xml(
        `<!DOCTYPE a [<!ENTITY b SYSTEM "file:///etc/passwd">]><worksheet xmlns="${MAIN}"><sheetData><row r="1"><c r="A1" t="inlineStr"><is><t>&b;</t></is></c></row></sheetData></worksheet>`,
      ),
    ],
    ['what is no XML', octets('<<<<')],
  ])('by %s gives nothing of it', async (_, sheet) => {
    const read = await readWorkbook(workbook(sheet), thread);
    expect(JSON.stringify(read)).not.toMatch(/root:|bbb/);
  });

  it('by being none is told so', async () => {
    for (const bytes of [
      octets('PK\u0003\u0004 and no more'),
      zipOf({ 'a.txt': octets('x') }),
      workbook(data(HEAD)).slice(0, 400),
    ])
      expect(await fault(bytes)).toMatch(/^(not-a-workbook|empty|too-large)/);
  });

  it('is let go of as soon as somebody stops it', async () => {
    const rows = Array.from(
      { length: 90_000 },
      (_, i) => `<row r="${i + 1}">${text(`A${i + 1}`, 'x'.repeat(60))}</row>`,
    ).join('');
    const begun = Date.now();
    const stopped = readWorkbook(workbook(data(rows)), thread, async () => {
      throw new Error('stopped on purpose');
    });
    await expect(stopped).rejects.toThrow('stopped on purpose');
    expect(Date.now() - begun).toBeLessThan(10_000);
  });
});
