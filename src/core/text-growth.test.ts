import { describe, expect, it, jest } from '@jest/globals';
import { readNumberList } from './acts/inventory';
import { readCall, readWhen, splitAsk } from './ask';
import { parseDigitMap } from './digits';
import { readCsv } from './formats';
import { parseSpans, parseWeek, readCalendar } from './hours';
import { readText } from './numbers';
import { readDocumentText, readPlan } from './plan';
import { compile } from './routing';
import { smallPlan } from '../../tests/support/small-plan';

/*
 * Whatever reads a text that comes from outside ends soon on very long ones, of every sign that some pattern of ours turns on. At
 * these lengths a reader whose work grows with the square of the length would take hours, and one that tries every way out longer.
 */

jest.setTimeout(20_000);

const LENGTH = 400_000;
const times = (text: string) => text.repeat(Math.ceil(LENGTH / text.length));
const SHAPES: [string, string][] = [
  ['blanks', times(' ')],
  ['blanks and a sign', `${times(' ')}!`],
  ['blanks between signs', `a${times(' ')}b`],
  ['tabs and line ends', times('\t\n')],
  ['digits', times('0')],
  ['digits and blanks', times('1 ')],
  ['signs of a range', times(' - ')],
  ['dots', times('.')],
  ['open brackets', times('(')],
  ['brackets of both kinds', times('[{(')],
  ['alternatives', times('1|')],
  ['counts', times('x{2}')],
  ['quotes', times('"')],
  ['commas and quotes', times('",')],
  ['colons', times('17:')],
  ['times', times('mon 7-9,')],
  ['question signs', times('a > ')],
  ['at signs', times('@')],
  ['lines of a calendar', `BEGIN:VCALENDAR\n${times('BEGIN:VEVENT\n')}`],
  ['folded lines', times('X:\n ')],
  ['keys', times('a: b\n')],
  ['keys of their own', Array.from({ length: 60_000 }, (_, i) => `k${i}: b`).join('\n')],
  ['keys in keys', times(' a:\n').slice(0, 20_000)],
  ['aliases', `a: &a [${times('*a,').slice(0, 3000)}]`],
  ['plus signs', times('+')],
  ['zero zero', times('00 ')],
  ['full-width digits', times('１')],
  ['marks', `e${times('\u0301')}`],
  ['half surrogates', times('\ud800')],
];

const plan = smallPlan();
const exchange = compile(plan);
const place = { country: 'GB', area: '1632', additions: [] } as never;
const NOW = Date.UTC(2026, 10, 26, 8);

const READERS: [string, (text: string) => unknown][] = [
  ['a digit map', parseDigitMap],
  ['opening hours', parseWeek],
  ['times of a day', parseSpans],
  ['a calendar', (t) => readCalendar(t, 'Europe/London')],
  ['a list of numbers', (t) => readNumberList(t, place)],
  ['a number', (t) => readText(t, place)],
  ['a line of the Ask', splitAsk],
  ['a moment', (t) => readWhen(t, 'Europe/London', NOW)],
  ['a question’s parts', (t) => readCall({ from: t, dial: t, when: t, calling: t } as never, exchange, NOW)],
  ['a sheet', (t) => readCsv(new TextEncoder().encode(t))],
  [
    'a plan as text',
    (t) => {
      const read = readDocumentText(t);
      return read.ok ? readPlan(read.document) : read;
    },
  ],
];

describe.each(READERS)('reading %s', (_, read) => {
  it.each(SHAPES)('ends soon on many %s', (__, text) => {
    // What comes out matters elsewhere; here it is that something does, and that nothing is thrown.
    expect(() => read(text)).not.toThrow();
  });
});
