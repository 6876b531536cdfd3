import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { MOST_COLUMNS, MOST_ROWS, decodeText, plainCell, readCsv, writeCards, writeCsv, type Card } from '.';

const bytes = (text: string) => new TextEncoder().encode(text);
const utf16 = (text: string, big: boolean, mark: boolean) => {
  const units = [...(mark ? '\ufeff' : ''), ...text].flatMap((c) =>
    Array.from({ length: c.length }, (_, i) => c.charCodeAt(i)),
  );
  return Uint8Array.from(units.flatMap((u) => (big ? [u >> 8, u & 255] : [u & 255, u >> 8])));
};
const rows = (input: Uint8Array | string) => {
  const read = readCsv(typeof input === 'string' ? bytes(input) : input);
  if (!read.ok) throw new Error(read.fault.sentence);
  return read.table;
};

describe('comma-separated values (RFC 4180)', () => {
  it.each<[string, string[][], string]>([
    [
      'a,b\r\n1,2\r\n',
      [
        ['a', 'b'],
        ['1', '2'],
      ],
      ',',
    ],
    [
      'a;b\n1;2',
      [
        ['a', 'b'],
        ['1', '2'],
      ],
      ';',
    ],
    [
      'a\tb\n1\t2\n',
      [
        ['a', 'b'],
        ['1', '2'],
      ],
      '\t',
    ],
    [
      'a|b\n1|2\n',
      [
        ['a', 'b'],
        ['1', '2'],
      ],
      '|',
    ],
    [
      '"a ""x""",b\r\n"1,\r\n2",3',
      [
        ['a "x"', 'b'],
        ['1,\r\n2', '3'],
      ],
      ',',
    ],
    [
      'name;note\r\n"Öberg; Åsa";"1,5"',
      [
        ['name', 'note'],
        ['Öberg; Åsa', '1,5'],
      ],
      ';',
    ],
    ['only', [['only']], ','],
    ['a,b\n\n1,2\n\n\n', [['a', 'b'], [''], ['1', '2']], ','],
  ])('%j', (text, expected, separator) => {
    const table = rows(text);
    expect(table.rows).toEqual(expected);
    expect(table.recognised.separator).toBe(separator);
  });

  it.each<[string, Uint8Array, string]>([
    ['UTF-8 with a mark', bytes('\ufeffnamn,b\nÅsa,1'), 'UTF-8'],
    ['UTF-8 without', bytes('namn,b\nÅsa,1'), 'UTF-8'],
    ['UTF-16 little end first', utf16('namn,b\nÅsa,1', false, true), 'UTF-16LE'],
    ['UTF-16 big end first', utf16('namn,b\nÅsa,1', true, true), 'UTF-16BE'],
    ['UTF-16 without a mark', utf16('namn,b\nÅsa,1', false, false), 'UTF-16LE'],
    ['UTF-16 big end without a mark', utf16('namn,b\nÅsa,1', true, false), 'UTF-16BE'],
  ])('%s', (_what, input, encoding) => {
    expect(rows(input).rows).toEqual([
      ['namn', 'b'],
      ['Åsa', '1'],
    ]);
    expect(rows(input).recognised.encoding).toBe(encoding);
  });

  it.each<[string, Uint8Array, string, RegExp, number | null]>([
    ['nothing', bytes(''), 'empty', /nothing in it/, null],
    ['blank lines', bytes('\n \n,,\n'), 'empty', /nothing in it/, null],
    ['Latin-1', Uint8Array.from([97, 44, 98, 10, 197, 115, 97]), 'encoding', /octet 5 begins no character/, null],
    ['half a character', utf16('namn,b', false, true).slice(0, -1), 'encoding', /cut in half/, null],
    ['a quote that stays open', bytes('a,b\n1,2\n"x,3\n4,5'), 'quotes', /Line 3: .*never closed/, 3],
    ['a quote in the middle', bytes('a,b\n"x"y,2\n'), 'quotes', /Line 2: .*middle of a cell/, 2],
    [
      'too many columns',
      bytes(Array.from({ length: MOST_COLUMNS + 1 }, (_, i) => `c${i}`).join()),
      'too-wide',
      /101 columns/,
      null,
    ],
    ['too many rows', bytes('a,b\n' + '1,2\n'.repeat(MOST_ROWS + 1)), 'too-long', /at most 50000/, null],
  ])('%s is refused', (_what, input, code, sentence, line) => {
    const read = readCsv(input);
    expect(read).toMatchObject({ ok: false, fault: { code, line } });
    expect(read.ok ? '' : read.fault.sentence).toMatch(sentence);
  });

  it('reads back what it writes, whatever stands in the cells', () => {
    const cell = fc.oneof(
      fc.string({ maxLength: 12 }),
      fc.constantFrom('=1+1', '@x', '-1', '+44', 'a"b', 'x;y', 'l1\nl2', "'"),
    );
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell, cell), { minLength: 1, maxLength: 8 }), (table) => {
        const all = [['first', 'second', 'third'], ...table];
        const back = rows(writeCsv(all)).rows;
        const plain = (t: readonly (readonly string[])[]) => t.map((r) => r.map(plainCell));
        const blank = (r: readonly string[]) => r.every((c) => c.trim() === '');
        const wanted = all.slice(0, all.findLastIndex((r) => !blank(r)) + 1);
        expect(plain(back).filter((r) => !blank(r))).toEqual(plain(wanted).filter((r) => !blank(r)));
      }),
      { numRuns: 300 },
    );
  });

  it('no cell of a file begins like a formula', () => {
    const text = writeCsv([['=cmd()', '@x', '-a', '+44 1', '+441632960100', '-12']]);
    expect(text).toBe("'=cmd(),'@x,'-a,'+44 1,+441632960100,-12\r\n");
  });

  it('decodes nothing that is no text', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 60 }), (input) => {
        const read = decodeText(input);
        expect(read.ok ? typeof read.text : read.sentence.length > 0).toBeTruthy();
      }),
    );
  });
});

describe('vCard 4 (RFC 6350)', () => {
  const card: Card = {
    uid: '01900000-0000-7000-8000-000000000001',
    name: 'Ilse, Brandvik',
    kind: 'individual',
    organisation: 'Lanternfold; Ferries',
    unit: 'Bookings',
    email: 'ilse@lanternfold.example',
    number: '+441632960102',
    extension: '2102',
    language: 'en',
  };
  /** Lines unfolded as section 3.2 says. */
  const lines = (text: string) =>
    text
      .replace(/\r\n[ \t]/g, '')
      .split('\r\n')
      .filter(Boolean);

  it('has its version first, a name, and telephone numbers as addresses', () => {
    const found = lines(writeCards([card], 'internal.invalid'));
    expect(found.slice(0, 2)).toEqual(['BEGIN:VCARD', 'VERSION:4.0']);
    expect(found.at(-1)).toBe('END:VCARD');
    expect(found).toContain('FN:Ilse\\, Brandvik');
    expect(found).toContain('TEL;VALUE=uri;TYPE=work,voice;PREF=1:tel:+441632960102');
    expect(found).toContain('TEL;VALUE=uri;TYPE=work,voice:tel:2102;phone-context=internal.invalid');
    expect(found.find((l) => l.startsWith('ORG'))).toBe('ORG:Lanternfold\\; Ferries;Bookings');
  });

  it('folds lines at 75 octets and ends each with CR LF; a place has neither N nor E-mail', () => {
    const long = writeCards(
      [{ ...card, name: 'Å'.repeat(120), kind: 'location', email: null, number: null }],
      'x.invalid',
    );
    for (const line of long.split('\r\n')) expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
    expect(lines(long)).toContain(`FN:${'Å'.repeat(120)}`);
    expect(lines(long).some((l) => /^(N|EMAIL)[:;]/.test(l))).toBe(false);
  });
});
