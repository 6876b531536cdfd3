import { right, wrong, type Cell } from '../import/cells';
import { splitList, unquoted } from './lists';

/* Dates in a cell: `2026-12-24 8-13 "Christmas Eve"; 2026-12-31 closed`, and of holidays `2026-12-25 yearly "Christmas Day"`. */

export interface ExceptionDate {
  date: string;
  /** empty: closed all day */
  open: string;
  name: string;
}

export interface HolidayDate {
  date: string;
  name: string;
  yearly: boolean;
  closed: boolean;
}

const named = (name: string) => (name === '' ? [] : [JSON.stringify(name)]);

export const writeExceptions = (list: readonly ExceptionDate[]): string =>
  list.map((e) => [e.date, e.open === '' ? 'closed' : e.open, ...named(e.name)].join(' ')).join('; ');

export const writeDates = (list: readonly HolidayDate[]): string =>
  list
    .map((d) => [d.date, ...(d.yearly ? ['yearly'] : []), ...(d.closed ? [] : ['worked']), ...named(d.name)].join(' '))
    .join('; ');

/** The first word of a text, and what comes after it. */
function firstWord(text: string): [string, string] {
  const at = text.search(/\s/);
  return at < 0 ? [text, ''] : [text.slice(0, at), text.slice(at).trim()];
}

/** What times are written with. */
const TIMES = /^[0-9:.,–-]+$/;

export function readExceptions(text: string): Cell<ExceptionDate[]> {
  const out: ExceptionDate[] = [];
  for (const part of splitList(text)) {
    const [date, tail] = firstWord(part);
    let rest = tail;
    const times: string[] = [];
    for (let [word, after] = firstWord(rest); word !== ''; [word, after] = firstWord(rest)) {
      if (word === 'closed' ? times.length > 0 : !TIMES.test(word)) break;
      times.push(word);
      rest = after;
      if (word === 'closed') break;
    }
    if (times.length === 0)
      return wrong(`“${part}” is no date with its times, such as 2026-12-24 8-13 or 2026-12-31 closed.`);
    out.push({ date, open: times[0] === 'closed' ? '' : times.join(' '), name: unquoted(rest) });
  }
  return right(out);
}

export function readDates(text: string): Cell<HolidayDate[]> {
  return right(
    splitList(text).map((part) => {
      const [date, tail] = firstWord(part);
      let rest = tail;
      const flags = new Set<string>();
      for (
        let [word, after] = firstWord(rest);
        word === 'yearly' || word === 'worked';
        [word, after] = firstWord(rest)
      ) {
        flags.add(word);
        rest = after;
      }
      return { date, name: unquoted(rest), yearly: flags.has('yearly'), closed: !flags.has('worked') };
    }),
  );
}
