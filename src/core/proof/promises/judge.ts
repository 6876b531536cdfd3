import type { Span } from '../../cells';
import type { Landing } from '../../exchange';
import type { PromiseEnd, Promised } from '../../plan';
import { trace, type Exchange, type Situation } from '../../routing';
import { holding } from '../acts';
import { inOrder, isBeyond } from '../spans';
import type { Goal, Way } from '../ways';
import type { Entry } from './entries';

const PHONES: ReadonlySet<PromiseEnd> = new Set(['a phone', 'a queue or group']);

const END_OF: Readonly<Record<string, PromiseEnd>> = {
  extension: 'a phone',
  mailbox: 'a mailbox',
  queue: 'a queue or group',
  ringGroup: 'a queue or group',
  pageGroup: 'a queue or group',
  conference: 'a queue or group',
  attendant: 'an attendant',
  directory: 'an attendant',
  announcement: 'an announcement',
  fax: 'a fax',
  outside: 'the outside',
  tone: 'a release',
};

/** What kind of end a place is. */
export const endOf = (landing: Landing | null): PromiseEnd =>
  landing ? (END_OF[landing.kind] ?? 'a service') : 'a release';

/** What a promise is judged by: the plan, and what holds beside it. */
export interface Judging {
  exchange: Exchange;
  situation: Situation;
}

/** Who calls from outside chose the outside number themselves: by keys, or by digits that a private trunk brought. */
function byOwnChoice({ exchange, situation }: Judging, entry: Entry, { acts, at }: Way): boolean {
  if (entry.phone !== null) return false;
  if (acts.some((a) => a.type === 'keys' && a.outside)) return true;
  const { brought } = entry;
  if (!brought?.isPrivate || brought.inside !== null) return false;
  const { steps } = trace(exchange, entry.call(at), holding(situation, acts));
  return steps.some((s) => s.code === 'dialled-outside');
}

/** All places that a way comes to, in order; what is released at once comes to none. */
function placesOf(way: Way): (Landing | null)[] {
  const end = way.ends[0]!;
  if (end.outcome !== 'routed') return [null];
  return [end.lands, ...end.then.map((t) => t.lands)];
}

/** Why a way breaks a promise, in a sentence; null: it does not. */
export function breaks(judging: Judging, promise: Promised, entry: Entry, way: Way): string | null {
  const { exchange } = judging;
  const end = way.ends[0]!;
  const places = placesOf(way);
  const matches = (landing: Landing | null): boolean => {
    const kind = endOf(landing);
    return (
      promise.ends.includes(kind) ||
      (kind === 'the outside' &&
        promise.ends.includes('the outside by own choice') &&
        byOwnChoice(judging, entry, way)) ||
      (landing?.id != null && promise.places.includes(landing.id))
    );
  };
  const told = (landing: Landing | null) =>
    landing
      ? `${landing.label} (${endOf(landing)})`
      : end.outcome === 'routed'
        ? 'a release'
        : `nowhere: ${end.outcome}`;
  switch (promise.must) {
    case 'lands first at':
      return matches(places[0]!) ? null : `It comes first to ${told(places[0]!)}.`;
    case 'ends only at': {
      const last = lastOf(places);
      return matches(last) ? null : `It ends at ${told(last)}.`;
    }
    case 'never reaches': {
      const found = places.find(matches);
      return found === undefined ? null : `It reaches ${told(found)}.`;
    }
    case 'can reach':
      return null;
    case 'leaves at its own site': {
      const trunk = end.trunk === null ? null : exchange.trunks.get(end.trunk)!;
      const site = entry.phone?.site ?? null;
      if (!trunk) return end.outcome === 'routed' ? null : `It does not leave: ${end.outcome}.`;
      return trunk.site === site ? null : `It leaves by ${trunk.name} at ${exchange.sites.get(trunk.site)!.name}.`;
    }
    case 'shows a number of the trunk': {
      if (end.trunk === null || end.shownNumber === null) return null;
      const shown = exchange.numberByE164.get(`+${end.shownNumber.replace(/^\+/, '')}`);
      if (shown?.trunk === end.trunk) return null;
      return `It shows ${end.shownNumber}, which ${exchange.trunks.get(end.trunk)!.name} does not own.`;
    }
    case 'rings somebody within': {
      if (entry.phone === null ? way.acts.some((a) => a.type !== 'keys') : way.acts.length > 0) return null;
      const times = [end.afterSeconds, ...end.then.map((t) => t.afterSeconds)];
      const at = places.findIndex((p) => PHONES.has(endOf(p)));
      if (at < 0) return `Nobody is rung: it comes to ${told(places.at(-1)!)}.`;
      return times[at]! <= promise.seconds ? null : `Somebody is rung after ${times[at]} s only.`;
    }
    case 'rings somebody before a mailbox': {
      if (way.acts.some((a) => a.type !== 'keys')) return null;
      const at = places.findIndex((p) => endOf(p) === 'a mailbox');
      const rung = places.findIndex((p) => PHONES.has(endOf(p)));
      return at < 0 || (rung >= 0 && rung < at) ? null : `It comes to ${told(places[at]!)} and nobody was rung before.`;
    }
    case 'hears nothing':
      return end.hearing.length === 0 ? null : 'The caller hears something on the way.';
  }
}

/** The place where a way ends: where it is released after somebody was rung, whoever that was. */
function lastOf(places: readonly (Landing | null)[]): Landing | null {
  const kept = places.filter((p, i) => i === 0 || endOf(p) !== 'a release');
  const last = kept.at(-1)!;
  return PHONES.has(endOf(last)) || kept.length === places.length ? last : places.at(-1)!;
}

/** Whether a way comes to what a promise names. */
const reaches = ({ ends, places }: Promised, way: Way): boolean =>
  placesOf(way).some((p) => ends.includes(endOf(p)) || (p?.id != null && places.includes(p.id)));

/** The first of the moments at which none of some ways comes to what a promise names; null: at every moment one does. */
export function neverReached(promise: Promised, ways: readonly Way[]): Way | null {
  // Calls of which nobody does anything are all there are, each at other times than the others.
  const short = ways.filter((way) => way.acts.length === 0 && !reaches(promise, way));
  if (short.length === 0) return null;
  // Most rows of acts reach it at the same times.
  const times = new Set(ways.flatMap((way) => (way.acts.length > 0 && reaches(promise, way) ? [way.stretches] : [])));
  const reached = inOrder([...times].flat());
  return short.find((way) => isBeyond(way.stretches, reached)) ?? null;
}

/** Looks for ways by which what a promise names is reached at every moment of some time. */
export class ReachedThroughout implements Goal {
  private readonly met = new Set<readonly Span[]>();
  private isThroughout = false;

  constructor(
    private readonly promise: Promised,
    private readonly within: readonly Span[],
  ) {}

  meets(way: Way): boolean {
    if (!reaches(this.promise, way)) return false;
    if (!this.met.has(way.stretches)) {
      this.met.add(way.stretches);
      this.isThroughout = !isBeyond(this.within, inOrder([...this.met].flat()));
    }
    return true;
  }

  isMet(): boolean {
    return this.isThroughout;
  }
}
