import { overTime, type Span } from '../cells';
import type { CallKind } from '../numbers';
import { landingOf, type Call, type Exchange, type Landed, type Situation } from '../routing';
import { holding, type Act } from './acts';
import { actsAt, othersDialled } from './acts-at';
import type { Aspect } from './facts';
import type { Met } from './met';
import { differing, endOf, type End } from './noticed';
import { joined } from './spans';

/** Acts in a row that are tried. */
const DEEPEST = 4;
/** Ways at which the search stops for one call. */
export const MOST_WAYS = 1000;

/** One way in which a call goes, when it ends alike, and where it does in each of the plans. */
export interface Way {
  acts: readonly Act[];
  at: number;
  stretches: readonly Span[];
  ends: End[];
  /** the kind of call, as the first of the plans says */
  kind: CallKind | null;
  /** it depends on who calls, beyond whether they may call inside */
  asksCaller: boolean;
}

/** A way with the place that it comes to, and what may happen there. */
interface Found {
  way: Way;
  told: readonly Landed[];
  place: string;
  /** no act follows: there have been enough of them, or the ends differ */
  isLast: boolean;
  next: () => readonly Act[];
  /** acts that lead to what is as others: nothing follows there that is not told of these */
  others: () => readonly Act[];
}

/** What was found of calls by time (none: all of it) and row of acts, for others of whom nothing but this is asked. */
export type Shared = Map<readonly Span[] | undefined, Map<string, readonly Found[]>>;

/** First places of calls from outside of which what follows is remembered. */
const MOST_ROOTS = 200;

/** What follows where calls from outside first came to: the same for all callers, but where who calls is asked. */
export class Onwards {
  private readonly known = new Map<string, Shared>();

  /** What is shared by calls that came alike by the same trunks. */
  from(trunks: string, told: readonly Landed[]): Shared {
    const key = `${trunks} ${JSON.stringify(told.map((t) => ({ ...t, e164: null, rule: null })))}`;
    let shared = this.known.get(key);
    if (!shared) {
      if (this.known.size >= MOST_ROOTS) this.known.clear();
      this.known.set(key, (shared = new Map()));
    }
    return shared;
  }
}

/** What is asked for: plans side by side, when, and what an edit can make a difference to. */
export interface Asking {
  exchanges: readonly Exchange[];
  call: (at: number) => Call;
  situation: Situation;
  /** what holds for the last of the plans, where that is not the same */
  then?: Situation;
  span: Span;
  met: Met;
  /** moments at which something besides hours and notices begins */
  moments?: readonly number[];
  /** parts of the span, where not all of it is asked */
  within?: readonly Span[];
  /** trunks that are taken to be down, one after another */
  mostTrunks?: number;
  /** every extension that may be dialled is asked, those too that take calls as others do */
  each?: boolean;
  /** what others found who dial the same and may call inside alike: it is not asked again where it does not depend on who calls */
  shared?: Shared;
  /** the same for calls from outside: by which trunks they come, and what followed where others came to */
  came?: { trunks: string; onwards: Onwards };
  /** what is looked for, where not all ways are: the search ends when it was found */
  goal?: Goal;
}

/** What is looked for among ways. */
export interface Goal {
  /** Told of each way, as it is found: whether it comes there, so that nothing beyond it need be tried. */
  meets(way: Way): boolean;
  /** whether nothing else need be tried */
  isMet(): boolean;
}

/**
 * Where a call ends in some plans through a span of time, for every row of up to four acts: at a menu each key that has a meaning
 * there in either, one that has none, and digits of extensions that may be dialled there; at a phone that it is busy, off, away
 * or not to be disturbed; at a queue or group that all its phones are; where it leaves that the trunk is down. Nothing is tried
 * beyond a place that no edit can make a difference to, nor beyond one where the ends differ: the shorter row tells that. So it
 * does where a longer row comes to a place where a shorter one was, as one that goes back in a menu.
 */
export function waysOf(asking: Asking): Way[] {
  const search = new Search(asking);
  const out: Way[] = [];
  const been = new Map<string, readonly Span[]>();
  const { came, situation, goal } = asking;
  const isEnough = () => out.length >= MOST_WAYS || goal?.isMet() === true;
  const visit = (acts: readonly Act[], within: readonly Span[] | undefined, shared: Shared | undefined): void => {
    if (isEnough()) return;
    for (const { way, told, place, isLast, next, others } of search.found(acts, within, shared)) {
      out.push(way);
      if (goal?.meets(way) || isLast) continue;
      const isFirst = came !== undefined && acts.length === 0 && !situation.transfers;
      const on = isFirst ? came.onwards.from(came.trunks, told) : shared;
      const known = been.get(place);
      const both = known ? joined(known, way.stretches) : way.stretches;
      if (both === null) continue;
      been.set(place, both);
      for (const act of next()) visit([...acts, act], way.stretches, on);
      for (const act of others())
        if (out.length < MOST_WAYS) out.push(...search.found([...acts, act], way.stretches, on).map((f) => f.way));
    }
  };
  visit([], asking.within, asking.shared);
  return out;
}

/** Asks for the calls of one entry, a row of acts at a time. */
class Search {
  private readonly exchanges: readonly Exchange[];
  private asks = false;

  constructor(private readonly asking: Asking) {
    this.exchanges = asking.exchanges.map((x) => ({ ...x, asksCaller: () => void (this.asks = true) }));
  }

  /** The ways by a row of acts within some time (all of it, where none is told). */
  found(acts: readonly Act[], within: readonly Span[] | undefined, shared: Shared | undefined): readonly Found[] {
    if (!shared) return this.find(acts, within);
    const key = JSON.stringify(acts);
    let ofTime = shared.get(within);
    if (!ofTime) shared.set(within, (ofTime = new Map()));
    const known = ofTime.get(key);
    if (known) return known;
    const found = this.find(acts, within);
    if (!found.some(({ way }) => way.asksCaller)) ofTime.set(key, found);
    return found;
  }

  private find(acts: readonly Act[], within: readonly Span[] | undefined): Found[] {
    const { call, situation, then = situation, span, moments } = this.asking;
    const holds = holding(situation, acts);
    const last = then === situation ? holds : holding(then, acts);
    const ask = (watched: readonly Exchange[], at: number) => {
      this.asks = false;
      const told = watched.map((x, i) => landingOf(x, call(at), i === watched.length - 1 ? last : holds));
      return { told, asksCaller: this.asks };
    };
    return overTime(this.exchanges, holds, span, ask, moments, within).map(({ at, stretches, answer }) => {
      const { told, asksCaller } = answer;
      const ends = told.map(endOf);
      const way = { acts, at, stretches, ends, kind: told[0]!.kind, asksCaller };
      const isLast = acts.length === DEEPEST || ends.slice(1).some((e) => differing(ends[0]!, e).some(apart));
      let next: readonly Act[] | undefined;
      return {
        way,
        told,
        place: placeOf(told),
        isLast,
        next: () => (next ??= this.nextOf(acts, told)),
        others: () => (this.asking.each ? othersDialled(told, acts, this.asking.met) : []),
      };
    });
  }

  private nextOf(acts: readonly Act[], told: readonly Landed[]): readonly Act[] {
    const { exchanges, met, mostTrunks = DEEPEST } = this.asking;
    return actsAt(exchanges, told, acts, met, mostTrunks);
  }
}

/** Where a call came to in each plan, and what is said there. */
const placeOf = (told: readonly Landed[]): string =>
  JSON.stringify(told.map(({ lands, speaks }) => [lands?.kind, lands?.id, speaks]));

const apart = (aspect: Aspect) => aspect === 'end' || aspect === 'trunk';
