import { callerCells, overTime, phoneGroups, type Span } from '../cells';
import type { Landing } from '../exchange';
import type { Difference, PromiseEnd } from '../plan';
import { activeSince, contextOf, landingOf, type Call, type Exchange, type Situation } from '../routing';
import type { Act } from './acts';
import { asked, type AskedCall } from './asked';
import { ANYTHING, affectedBy, type Affected } from './affected';
import { broughtBy } from './brought';
import { metIn } from './met';
import { arrives, numbersInGroups } from './impact-outside';
import { dialsOf } from './literals';
import { isBlocked } from './promises/entries-from-outside';
import { endOf } from './promises/judge';
import { inOrder } from './spans';
import { Onwards, waysOf, type Way } from './ways';

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
  /** what has to be so: nothing, that the caller is blocked, acts of the caller and states of phones */
  needs: (Act['type'] | 'blocked')[];
  example: AskedCall;
}

/** What calls from outside are to: our numbers that nothing tells apart, or what else a trunk brings. */
export interface Entrance {
  numbers: readonly string[];
  /** a trunk, by id, and digits that are no number of ours */
  brought: { trunk: string; dial: string } | null;
}

/** What reach is asked over. */
export interface Reaching {
  exchange: Exchange;
  situation: Situation;
  span: Span;
  /** told how far it has come, 0 to 1 */
  progress?: (share: number) => void;
}

/** How calls come to an end. */
interface Coming {
  place: Landing | null;
  stretches: Span[];
  way: Way;
  call: Call;
  blocked: boolean;
}

const WEEK_MS = 7 * 86_400_000;

const clipped = (spans: readonly Span[], from: number, to: number): Span[] =>
  spans.map((s) => ({ from: Math.max(s.from, from), to: Math.min(s.to, to) })).filter((s) => s.from < s.to);

/**
 * All that calls from outside can be to (ENGINE E14): our active numbers on trunks, in groups that nothing tells apart, and what
 * trunks bring that is none.
 * @param affected what is to be met; by default anything
 */
export function entrancesOf({ exchange, situation }: Reaching, affected: Affected = ANYTHING): Entrance[] {
  const { all, ids } = affected;
  const active = exchange.plan.numbers.filter(
    (n) => n.state === 'active' && n.trunk !== null && (all || mapsAny(exchange, ids) || ids.has(n.id)),
  );
  const met = metIn([exchange], affected, situation);
  return [
    ...numbersInGroups(
      [exchange],
      situation,
      active.map((n) => n.e164),
    ).map((numbers): Entrance => ({ numbers, brought: null })),
    ...exchange.plan.trunks
      .filter((t) => t.enabled)
      .flatMap(({ id: trunk }) =>
        broughtBy([exchange], trunk, met).map((dial): Entrance => ({ numbers: [], brought: { trunk, dial } })),
      ),
  ];
}

/** Whether a route leads on to whatever has the digits that came, or one of some takes numbers by a map. */
const mapsAny = ({ routes }: Exchange, ids: ReadonlySet<string>): boolean =>
  routes.some((r) => r.route.dialledExtension || (r.called && ids.has(r.route.id)));

/** Where calls to an entrance come in, by which trunk, and from when on; null: they don't. */
function cameBy(exchange: Exchange, { numbers, brought }: Entrance) {
  if (brought) {
    const { trunk, dial } = brought;
    return { site: exchange.trunks.get(trunk)!.site, text: dial, since: 0, trunks: `${trunk} ${dial}` };
  }
  const ours = exchange.numberByE164.get(numbers[0]!)!;
  const at = arrives(exchange, ours);
  return at && { ...at, since: activeSince(ours, exchange.sites.get(ours.site)!), trunks: ours.trunk! };
}

/**
 * Everywhere that a call to an entrance can end up: over all time, every class of callers, and up to four acts on the way.
 * Of phones that take calls alike one is looked behind, the others are named as well; those in `apart` are each looked behind.
 */
export function reachOf(reaching: Reaching, entrance: Entrance, apart: readonly string[] = []): ReachedEnd[] {
  const { exchange, situation, span } = reaching;
  const { numbers, brought } = entrance;
  const at = cameBy(exchange, entrance);
  if (!at) return [];
  const ends = new Map<string, Coming>();
  const within = [{ from: Math.max(span.from, at.since), to: span.to }].filter((s) => s.from < s.to);
  const met = metIn([exchange], ANYTHING, situation, situation, apart);
  const came = { trunks: at.trunks, onwards: new Onwards() };
  // Whoever is blocked is asked last: they are told of where nobody else comes.
  const callers = callerCells([exchange], situation, at.text, [at.site]).map((calling) => ({
    calling,
    blocked: isBlocked(exchange, situation, calling, at.site),
  }));
  const others = () => new Set([...ends].flatMap(([key, end]) => (end.blocked ? [] : key)));
  for (const { calling, blocked } of callers.sort((a, b) => Number(a.blocked) - Number(b.blocked))) {
    const told = blocked ? others() : null;
    const from: Call['from'] = brought ? { type: 'trunk', id: brought.trunk, calling } : { type: 'outside', calling };
    const call = (moment: number): Call => ({ from, dial: brought?.dial ?? numbers[0]!, enBloc: true, at: moment });
    for (const way of waysOf({ exchanges: [exchange], call, situation, span, met, within, each: true, came }))
      for (const place of placesIn(way)) {
        const key = place ? `${place.kind} ${place.id ?? place.label}` : 'a release';
        if (told && (place === null || told.has(key))) continue;
        const known = ends.get(key);
        if (!known) ends.set(key, { place, stretches: [...way.stretches], way, call: call(way.at), blocked });
        else {
          known.stretches.push(...way.stretches);
          if (way.acts.length < known.way.acts.length) Object.assign(known, { way, call: call(way.at) });
        }
      }
  }
  return [...ends.values()]
    .map(({ place, stretches, way, call, blocked }): ReachedEnd => ({
      week: clipped(inOrder(stretches), span.from, span.from + WEEK_MS),
      end: endOf(place),
      label: place?.label ?? 'released',
      object: place?.id != null && exchange.destinations.has(place.id) ? { kind: place.kind, id: place.id } : null,
      share: inOrder(stretches).reduce((sum, s) => sum + s.to - s.from, 0) / (span.to - span.from),
      needs: [...(blocked ? (['blocked'] as const) : []), ...new Set(way.acts.map((a) => a.type))],
      example: asked(exchange, call, way.acts),
    }))
    .sort((a, b) => a.needs.length - b.needs.length || b.share - a.share);
}

/** All places that a way comes to; one that ends nowhere is released. */
function placesIn({ ends }: Way): (Landing | null)[] {
  const [end] = ends;
  return end!.outcome === 'routed' ? [end!.lands, ...end!.then.map((t) => t.lands)] : [null];
}

/** Who can end up somewhere: calls from outside, by entrances, and phones that dial it. */
export interface ReachedBy {
  groups: (Entrance & { end: ReachedEnd })[];
  phones: { count: number; of: number; example: AskedCall | null };
}

/** Everybody whose calls can end up at an object: only what can lead there is asked. */
export function whoReaches(reaching: Reaching, id: string): ReachedBy {
  const { exchange, situation, span } = reaching;
  const { kind, object } = exchange.destinations.get(id)!;
  const meant = { kind, id, before: object, after: object } as Difference;
  const { progress } = reaching;
  const all = entrancesOf(reaching, affectedBy([exchange.plan], [meant], situation));
  const groups = all.flatMap((entrance, i) => {
    progress?.(i / all.length);
    const end = reachOf(reaching, entrance, [id]).find((e) => e.object?.id === id);
    return end ? [{ ...entrance, end }] : [];
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
