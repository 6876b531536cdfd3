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

const EXCEPTION = /^(\S+)\s+(closed(?!\S)|(?:[0-9][0-9:.]*\s*[-–]\s*[0-9][0-9:.]*(?:\s*,\s*(?=[0-9]))?)+)\s*(.*)$/su;

export function readExceptions(text: string): Cell<ExceptionDate[]> {
  const out: ExceptionDate[] = [];
  for (const part of splitList(text)) {
    const found = EXCEPTION.exec(part);
    if (!found) return wrong(`“${part}” is no date with its times, such as 2026-12-24 8-13 or 2026-12-31 closed.`);
    const [, date, open, name] = found;
    out.push({ date: date!, open: open === 'closed' ? '' : open!.trim(), name: unquoted(name!) });
  }
  return right(out);
}

const HOLIDAY = /^(\S+)((?:\s+(?:yearly|worked)(?!\S))*)\s*(.*)$/su;

export function readDates(text: string): Cell<HolidayDate[]> {
  return right(
    splitList(text).map((part) => {
      const [, date, flags, name] = HOLIDAY.exec(part)!;
      return {
        date: date!,
        name: unquoted(name!),
        yearly: flags!.includes('yearly'),
        closed: !flags!.includes('worked'),
      };
    }),
  );
}
