import type { AskedCall } from './asked';

/** A call in a few words, with what is done or fails on its way: `2000 calls 6600, pressing 2104`. */
export function callWords({ from, dial, situation }: Pick<AskedCall, 'from' | 'dial' | 'situation'>): string {
  const who = from === 'withheld' ? 'a withheld number' : from.replace(/^outside:/, '');
  const call = from.startsWith('trunk:') ? `${from.slice('trunk:'.length)} brings ${dial}` : `${who} calls ${dial}`;
  return [call, ...assumedIn(situation)].join(', ');
}

/** Whose calls of a group are alike, in numbers: phones, our numbers, and strings that are none and that trunks bring. */
export interface CallersCount {
  phones: number;
  numbers: number;
  brought: number;
}

/** How many phones, numbers and strings brought by trunks: `131 phones, 2 numbers`; empty for none. */
export const callersWords = ({ phones, numbers, brought }: CallersCount, join = ', '): string =>
  [
    some(phones, 'phone', 'phones'),
    some(numbers, 'number', 'numbers'),
    some(brought, 'string that a trunk brings', 'strings that trunks bring'),
  ]
    .filter(Boolean)
    .join(join);

const some = (n: number, one: string, many: string) => (n === 0 ? '' : `${n} ${n === 1 ? one : many}`);

const ASSUMED: Readonly<Record<string, string>> = {
  busy: 'while busy',
  away: 'while away',
  off: 'while switched off',
  doNotDisturb: 'while not to be disturbed',
  trunks: 'while a trunk is down',
  presence: 'while in a state of presence',
};

/** What is taken to happen on the way of a call, each in words. */
export const assumedIn = (situation: AskedCall['situation'] = {}): string[] =>
  Object.keys(situation).map((part) =>
    part === 'keys' ? `pressing ${rowsOf(situation.keys ?? []).join(', then ')}` : (ASSUMED[part] ?? part),
  );

/** Seconds between keys of one row. */
const TOGETHER = 0.5;

function rowsOf(keys: readonly { atSeconds: number; key: string }[]): string[] {
  const rows: string[] = [];
  for (const [i, { atSeconds, key }] of keys.entries())
    if (i > 0 && atSeconds - keys[i - 1]!.atSeconds < TOGETHER) rows.push(rows.pop()! + key);
    else rows.push(key);
  return rows;
}
