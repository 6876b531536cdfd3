import { callerCells, overTime, phoneGroups, type Span } from '../cells';
import type { Landing } from '../exchange';
import type { Difference, PromiseEnd } from '../plan';
import { activeSince, contextOf, landingOf, type Call, type Exchange, type Situation } from '../routing';
import type { Act } from './acts';
import { asked, type AskedCall } from './asked';
import { affectedBy } from './entries';
import { arrives, numbersInGroups } from './impact-outside';
import { dialsOf } from './literals';
import { isBlocked } from './promises/entries-of-numbers';
import { endOf } from './promises/judge';
import { inOrder, waysOf, type Way } from './ways';

/** Somewhere that calls can end up. */
export interface ReachedEnd {
  end: PromiseEnd;
  /** what it is called, and its kind and id where it is an object */
  label: string;
  object: { kind: string; id: string } | null;
  /** for how much of the time some caller can come there, 0 to 1 */
  share: number;
  /** when in the first seven days of the span */
  week: Span[];
  /** what has to happen on the way: nothing, or acts of the caller and states of phones */
  needs: Act['type'][];
  example: AskedCall;
}

/** Our numbers that nothing tells apart, with everywhere that calls to them can end up. */
export interface Reach {
  numbers: readonly string[];
  ends: ReachedEnd[];
}

/** What reach is asked over. */
export interface Reaching {
  exchange: Exchange;
  situation: Situation;
  span: Span;
  /** told how far it has come, 0 to 1 */
  progress?: (share: number) => void;
}

const WEEK_MS = 7 * 86_400_000;

const clipped = (spans: readonly Span[], from: number, to: number): Span[] =>
  spans.map((s) => ({ from: Math.max(s.from, from), to: Math.min(s.to, to) })).filter((s) => s.from < s.to);

const ANYTHING = { all: true, ids: new Set<string>() };

/** Our active numbers that calls can come to, on a trunk, in groups that nothing tells apart (ENGINE E14); `only` those that can lead somewhere. */
export function reachGroups({ exchange, situation }: Reaching, only: ReadonlySet<string> | null = null): string[][] {
  const active = exchange.plan.numbers.filter(
    (n) => n.state === 'active' && n.trunk !== null && (only === null || only.has(n.id)),
  );
  return numbersInGroups(
    [exchange],
    situation,
    active.map((n) => n.e164),
  );
}

/** Everywhere that a call to one of some numbers can end up: over all time, every class of callers, and up to four acts on the way. */
export function reachOf(reaching: Reaching, numbers: readonly string[]): Reach {
  const { exchange, situation, span } = reaching;
  const ours = exchange.numberByE164.get(numbers[0]!)!;
  const at = arrives(exchange, ours);
  const ends = new Map<string, { place: Landing | null; stretches: Span[]; way: Way; call: Call }>();
  const callers = at ? callerCells([exchange], situation, at.text, [at.site]) : [];
  const since = activeSince(ours, exchange.sites.get(ours.site)!);
  const within = [{ from: Math.max(span.from, since), to: span.to }].filter((s) => s.from < s.to);
  for (const calling of callers) {
    // Whoever is blocked is meant to come nowhere.
    if (isBlocked(exchange, situation, calling, at!.site)) continue;
    const call = (moment: number): Call => ({
      from: { type: 'outside', calling },
      dial: ours.e164,
      enBloc: true,
      at: moment,
    });
    for (const way of waysOf({ exchanges: [exchange], call, situation, span, affected: ANYTHING, within }))
      for (const place of placesIn(way)) {
        const key = place ? `${place.kind} ${place.id ?? place.label}` : 'a release';
        const known = ends.get(key);
        if (!known) ends.set(key, { place, stretches: [...way.stretches], way, call: call(way.at) });
        else {
          known.stretches.push(...way.stretches);
          if (way.acts.length < known.way.acts.length) Object.assign(known, { way, call: call(way.at) });
        }
      }
  }
  return {
    numbers,
    ends: [...ends.values()]
      .map(({ place, stretches, way, call }) => ({
        week: clipped(inOrder(stretches), span.from, span.from + WEEK_MS),
        end: endOf(place),
        label: place?.label ?? 'released',
        object: place?.id != null && exchange.destinations.has(place.id) ? { kind: place.kind, id: place.id } : null,
        share: inOrder(stretches).reduce((sum, s) => sum + s.to - s.from, 0) / (span.to - span.from),
        needs: [...new Set(way.acts.map((a) => a.type))],
        example: asked(exchange, call, way.acts),
      }))
      .sort((a, b) => a.needs.length - b.needs.length || b.share - a.share),
  };
}

/** All places that a way comes to; one that ends nowhere is released. */
function placesIn({ ends }: Way): (Landing | null)[] {
  const [end] = ends;
  return end!.outcome === 'routed' ? [end!.lands, ...end!.then.map((t) => t.lands)] : [null];
}

/** Who can end up somewhere: numbers, by their groups, and phones that dial it. */
export interface ReachedBy {
  groups: { numbers: readonly string[]; end: ReachedEnd }[];
  phones: { count: number; of: number; example: AskedCall | null };
}

/** Everybody whose calls can end up at an object: only what can lead there is asked. */
export function whoReaches(reaching: Reaching, id: string): ReachedBy {
  const { exchange, situation, span } = reaching;
  const { kind, object } = exchange.destinations.get(id)!;
  const meant = { kind, id, before: object, after: object } as Difference;
  const { ids } = affectedBy([exchange.plan], [meant], situation);
  const mapped = exchange.routes.some((r) => r.route.dialledExtension || (r.called && ids.has(r.route.id)));
  const { progress } = reaching;
  const all = reachGroups(reaching, mapped ? null : ids);
  const groups = all.flatMap((numbers, i) => {
    progress?.(i / all.length);
    const end = reachOf(reaching, numbers).ends.find((e) => e.object?.id === id);
    return end ? [{ numbers, end }] : [];
  });
  let [count, of] = [0, 0];
  let example: AskedCall | null = null;
  for (const group of phoneGroups([exchange])) {
    of += group.phones.length;
    const phone = group.phones.find((p) => p !== id) ?? group.phone.id;
    const from = exchange.extensions.get(phone)!;
    const comes = overTime([exchange], situation, span, (watched, at) => {
      const [dial] = dialsOf(contextOf(watched[0]!, from, { at, situation }), id);
      const call =
        dial === undefined ? null : ({ from: { type: 'extension', id: phone }, dial, enBloc: true, at } as Call);
      return call && landingOf(watched[0]!, call, situation).outcome === 'routed' ? call.dial : null;
    }).find((t) => t.answer !== null);
    if (!comes) continue;
    count += group.phones.length;
    const call: Call = { from: { type: 'extension', id: phone }, dial: comes.answer!, enBloc: true, at: comes.at };
    example ??= asked(exchange, call, []);
  }
  return { groups, phones: { count, of, example } };
}
