import { spacedNumber } from '@/core/numbers';
import { mayEverywhere, sitesWith, type Actor } from '../access/rights';

/* Which calls somebody may see, and of which the number of the other party. */

type Sites = 'all' | readonly string[];

export interface CallSight {
  calls: Sites;
  numbers: Sites;
  /** whether things that the plan has no more are told by the name they had */
  gone: boolean;
}

export const callSightOf = (actor: Actor): CallSight => ({
  calls: sitesWith(actor, 'seeCalls'),
  numbers: sitesWith(actor, 'seeNumbers'),
  gone: mayEverywhere(actor, 'look'),
});

/** Whether the other party's number of a call at a site may be seen; calls of no site by those who may see all. */
export const seesNumber = ({ numbers }: CallSight, site: string | null): boolean =>
  numbers === 'all' || (site !== null && numbers.includes(site));

/** Figures that stay at the beginning, with the plus: about the country. */
const SHOWN = 3;

/** A number of which only the beginning is told, whatever its length. */
export const masked = (number: string): string => (/^\+[0-9]{7,}$/.test(number) ? `${number.slice(0, SHOWN)}…` : '…');

/** A text of a record that may be a number outside: masked where it is as long as one, and left where it is digits of ours. */
export const maskedText = (text: string | null): string | null =>
  text !== null && text.replace(/[^0-9]/g, '').length >= TAIL ? masked(text) : text;

/** A number as it is read by people. */
export const readable = (number: string): string => (/^\+[0-9]{3,31}$/.test(number) ? spacedNumber(number) : number);

/** A run of figures as numbers are written, with what stands between them. */
const RUN = /\+?[0-9](?:[0-9 ().\/-]*[0-9])?/g;
/** Figures at the end by which a number is known, in whichever form. */
const TAIL = 7;
/** Shorter numbers are known by all of their figures. */
const LEAST = 3;

/** The same answer without some numbers, however they are written in its texts. */
export function withoutNumbers<T>(value: T, numbers: readonly (string | null)[]): T {
  const hidden = new Set(
    numbers.flatMap((n) => {
      const figures = (n ?? '').replace(/[^0-9]/g, '');
      return figures.length >= LEAST ? [figures.slice(-TAIL)] : [];
    }),
  );
  return hidden.size === 0 ? value : (cut(value, [...hidden]) as T);
}

function cut(value: unknown, hidden: readonly string[]): unknown {
  if (typeof value === 'string') return value.replace(RUN, (run) => (isHidden(run, hidden) ? '…' : run));
  if (Array.isArray(value)) return value.map((v) => cut(v, hidden));
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, cut(v, hidden)]));
}

function isHidden(run: string, hidden: readonly string[]): boolean {
  const figures = run.replace(/[^0-9]/g, '');
  return hidden.some((h) => (h.length < TAIL ? figures === h : figures.includes(h)));
}
