import type { Span } from '../cells';
import type { Call, Exchange, Situation } from '../routing';
import type { Act } from './acts';
import type { CallersCount } from './call-words';
import type { Aspect } from './facts';
import type { End } from './noticed';

/** What two plans are compared over. */
export interface Comparing {
  was: Exchange;
  willBe: Exchange;
  /** what holds beside the plans */
  situation: Situation;
  /** what holds then, where that is not the same: what is out of order; notices are as before */
  then?: Situation;
  /** moments at which calls may begin, milliseconds since 1970 UTC */
  span: Span;
  /** called now and then with how much is done, from 0 to 1; to stop, it throws */
  progress?: (done: number) => void;
}

const phonesOf = (cells: readonly ChangedCell[]): number =>
  [...new Set(cells.flatMap((c) => c.callers))].reduce((n, group) => n + group.length, 0);

/** How many phones, numbers, and strings that trunks bring and that are no numbers of ours, make some changed calls. */
export const callersIn = (cells: readonly ChangedCell[]): CallersCount => ({
  phones: phonesOf(cells),
  numbers: new Set(cells.flatMap((c) => c.number ?? [])).size,
  brought: new Set(cells.flatMap(({ call: { from, dial } }) => (from.type === 'trunk' ? `${from.id} ${dial}` : [])))
    .size,
});

/** Calls that nothing tells apart in either plan, and that end otherwise in one than in the other. */
export interface ChangedCell {
  /** a call of the cell, to be asked of either plan */
  call: Call;
  /** what is done or fails on the way */
  acts: readonly Act[];
  /** groups of phones that it is dialled at, a phone in one group only; empty for calls from outside */
  callers: readonly (readonly string[])[];
  /** our number that is called from outside; null for calls from phones, and by a trunk to digits of none */
  number: string | null;
  /** dialled strings, for calls from phones; one for calls from outside */
  strings: bigint;
  /** the strings themselves, where they stand in the plan */
  dials?: readonly string[];
  /** whether a dialled string is one of them */
  has: (dial: string) => boolean;
  /** when such calls begin */
  stretches: readonly Span[];
  aspects: readonly Aspect[];
  /** null: there is no such phone or number in that plan */
  was: End | null;
  willBe: End | null;
}
