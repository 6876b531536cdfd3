import { overTime, type Span } from '../cells';
import { shortestWitness } from '../digits';
import { ladderOf } from '../exchange';
import type { CallKind } from '../numbers';
import { agentsOfQueue, type Attendant, type Queue, type RingGroup } from '../plan';
import { landingOf, type Call, type Exchange, type Situation } from '../routing';
import { PHONE_STATES, holding, type Act } from './acts';
import type { Affected } from './entries';
import type { Aspect } from './facts';
import { differing, endOf, type End, type Told } from './noticed';

/** Acts in a row that are tried. */
const DEEPEST = 4;
/** Seconds after the call came to a menu at which the next key is pressed. */
const PRESSED_AFTER = 1;
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
}

/** Moments by which a longer row of acts comes later to a place than a shorter one. */
const SLIVER_MS = 15 * 60_000;

/** What is asked for: plans side by side, when, and what an edit can make a difference to. */
export interface Asking {
  exchanges: readonly Exchange[];
  call: (at: number) => Call;
  situation: Situation;
  /** what holds for the last of the plans, where that is not the same */
  then?: Situation;
  span: Span;
  affected: Affected;
  /** moments at which something besides hours and notices begins */
  moments?: readonly number[];
  /** parts of the span, where not all of it is asked */
  within?: readonly Span[];
  /** trunks that are taken to be down, one after another */
  mostTrunks?: number;
}

/**
 * Where a call ends in some plans through a span of time, for every row of up to four acts: at a menu each key that has a meaning
 * there in either, one that has none, and digits of extensions that may be dialled there; at a phone that it is busy, off, away
 * or not to be disturbed; at a queue or group that all its phones are; where it leaves that the trunk is down. Nothing is tried
 * beyond a place that no edit can make a difference to, nor beyond one where the ends differ: the shorter row tells that. So it
 * does where a longer row comes to a place where a shorter one was, as one that goes back in a menu.
 */
export function waysOf(asking: Asking): Way[] {
  const {
    exchanges,
    call,
    situation,
    then = situation,
    span,
    affected,
    moments = [],
    within: asked = [span],
    mostTrunks,
  } = asking;
  const out: Way[] = [];
  const been = new Map<string, Span[]>();
  const visit = (acts: readonly Act[], within: readonly Span[]): void => {
    if (out.length >= MOST_WAYS) return;
    const holds = holding(situation, acts);
    const last = then === situation ? holds : holding(then, acts);
    const ask = (watched: readonly Exchange[], at: number) =>
      watched.map((x, i) => landingOf(x, call(at), i === watched.length - 1 ? last : holds));
    for (const { at, stretches, answer } of overTime(exchanges, holds, span, ask, moments, within)) {
      const ends = answer.map(endOf);
      out.push({ acts, at, stretches, ends, kind: answer[0]!.kind });
      if (acts.length === DEEPEST || ends.some((e) => differing(ends[0]!, e).some(apart))) continue;
      const place = JSON.stringify(answer.map((a) => [a.lands?.kind, a.lands?.id, a.speaks]));
      const known = been.get(place) ?? [];
      if (!isBeyond(stretches, known)) continue;
      been.set(place, inOrder([...known, ...stretches]));
      for (const act of actsAt(exchanges, answer, acts, affected, mostTrunks ?? DEEPEST))
        visit([...acts, act], stretches);
    }
  };
  visit([], asked);
  return out;
}

const apart = (aspect: Aspect) => aspect === 'end' || aspect === 'trunk';

/** Spans in order, those that touch or overlap as one. */
export function inOrder(spans: Span[]): Span[] {
  const out: Span[] = [];
  for (const { from, to } of spans.sort((a, b) => a.from - b.from)) {
    const last = out.at(-1);
    if (last && from <= last.to) last.to = Math.max(last.to, to);
    else out.push({ from, to });
  }
  return out;
}

/** Whether spans hold more than slivers outside others; both in order. */
export function isBeyond(spans: readonly Span[], others: readonly Span[]): boolean {
  let next = 0;
  return spans.some(({ from, to }) => {
    let at = from;
    while (next < others.length && others[next]!.to <= at) next++;
    for (let i = next; i < others.length && others[i]!.from < to && others[i]!.from - at < SLIVER_MS; i++)
      at = Math.max(at, others[i]!.to);
    return to - at >= SLIVER_MS;
  });
}

/** What can happen where a call came to, in either plan, that `met` says may make a difference. */
function actsAt(
  exchanges: readonly Exchange[],
  answer: readonly Told[],
  before: readonly Act[],
  met: Affected,
  mostTrunks: number,
): Act[] {
  const out = new Map<string, Act>();
  const add = (act: Act) => out.set(JSON.stringify(act), act);
  const counts = (id: string) => met.all || met.ids.has(id);
  const meant = new Set<string>();
  const outside = new Set<string>();
  let menuAt = -1;
  const statesOf = (exchange: Exchange, at: string, id: string) => {
    const phones = phonesAt(exchange, at, id);
    for (const type of PHONE_STATES)
      if (phones.length > 0 && !before.some((a) => a.type === type && phones.every((p) => a.ids.includes(p))))
        add({ type, ids: phones });
    for (const state of statesMet(exchange, at, id, met))
      if (!before.some((a) => a.type === 'presence')) add({ type: 'presence', ids: phones, state });
  };
  answer.forEach(({ lands, landedAt, rule, kind, passed }, i) => {
    const exchange = exchanges[i]!;
    // A phone that passes calls on as it is may keep them in another state.
    for (const id of passed) if (counts(id)) statesOf(exchange, 'extension', id);
    if (!lands?.id) return;
    if (lands.kind === 'outside') {
      const led = kind === 'emergency' || counts(lands.id) || (rule !== null && counts(rule));
      const down = before.filter((a) => a.type === 'trunk down').length;
      if (led && down < mostTrunks && !isDown(before, lands.id)) add({ type: 'trunk down', ids: [lands.id] });
      return;
    }
    if (!counts(lands.id)) return;
    statesOf(exchange, lands.kind, lands.id);
    if (lands.kind !== 'attendant' && lands.kind !== 'directory') return;
    menuAt = Math.max(menuAt, landedAt);
    for (const k of exchange.attendantKeys.get(lands.id) ?? []) if (k.key.length === 1) meant.add(k.key);
    for (const digits of diallable(exchange, lands.id, met)) meant.add(digits);
    for (const digits of outsideFrom(exchange, lands.id, met)) outside.add(digits);
  });
  if (menuAt < 0) return [...out.values()];
  const wrong = [...'0123456789*#'].find((k) => !meant.has(k));
  const atSeconds = Math.max(menuAt, ...before.map((a) => (a.type === 'keys' ? a.atSeconds : 0))) + PRESSED_AFTER;
  for (const keys of [...meant, ...(wrong ? [wrong] : [])]) add({ type: 'keys', keys, atSeconds });
  for (const keys of outside) add({ type: 'keys', keys, atSeconds, outside: true });
  return [...out.values()];
}

const isDown = (acts: readonly Act[], trunk: string) =>
  acts.some((a) => a.type === 'trunk down' && a.ids.includes(trunk));

/** States of presence that edits meet at a phone. */
function statesMet({ plan, presenceChoices }: Exchange, kind: string, id: string, { ids }: Affected): string[] {
  if (kind !== 'extension') return [];
  const chosen = (presenceChoices.get(id) ?? []).flatMap((c) => (ids.has(c.id) ? [c.rule] : []));
  return [...new Set([...chosen, ...plan.presenceRules.flatMap((r) => (ids.has(r.id) ? [r.id] : []))])];
}

/** The phones that take calls at a place. */
function phonesAt(exchange: Exchange, kind: string, id: string): readonly string[] {
  if (kind === 'extension') return [id];
  const place = exchange.destinations.get(id)?.object;
  if (!place) return [];
  if (kind === 'queue') return agentsOfQueue(place as Queue);
  return kind === 'ringGroup' ? (place as RingGroup).members : [];
}

/** Digits of extensions that callers may dial at an attendant: those that edits meet, and one of each site where it itself is. */
function diallable(exchange: Exchange, id: string, met: Affected): string[] {
  const place = exchange.destinations.get(id);
  if (place?.kind !== 'attendant') return [];
  if ((place.object as Attendant).directDialling === 'none') return [];
  const found = [...met.ids].flatMap((m) => exchange.extensions.get(m)?.digits ?? []);
  const sites = new Set<string>();
  if (met.all || met.ids.has(id))
    for (const e of exchange.plan.extensions)
      if (!sites.has(e.site)) {
        sites.add(e.site);
        found.push(e.digits);
      }
  return found;
}

/** Digits that lead outside from an attendant where callers may dial on: some for each outbound rule of its site. */
function outsideFrom(exchange: Exchange, id: string, met: Affected): string[] {
  const place = exchange.destinations.get(id);
  if (place?.kind !== 'attendant' || !(met.all || met.ids.has(id))) return [];
  const { outsideDialling, site } = place.object as Attendant;
  if (!outsideDialling) return [];
  return ladderOf(exchange, exchange.sites.get(site)!).flatMap(({ map }) => shortestWitness(map.automaton) ?? []);
}
