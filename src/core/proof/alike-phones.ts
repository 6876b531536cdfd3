import type { DialContext, Layer } from '../exchange/context';
import type { Exchange, Situation } from '../routing';
import { stringOf, type Literal } from './literals';

/** A string that stands in the plan, for all that lead to phones which take calls alike. */
export interface LiteralGroup {
  dial: string;
  literal: Literal;
  /** another string of the group, for whoever has the first one; null: there is none */
  other: string | null;
}

/** Everything named in what holds beside the plan, whatever is said of it. */
export function namesIn(value: unknown, out = new Set<string>()): ReadonlySet<string> {
  if (typeof value === 'string') out.add(value);
  else if (value !== null && typeof value === 'object')
    for (const [key, inner] of Object.entries(value)) namesIn(inner, out.add(key));
  return out;
}

/** What decides how a phone takes calls, as text; null: something is known of it alone. */
export function takesCallsAs(exchange: Exchange, id: string, named: ReadonlySet<string>): string | null {
  const phone = exchange.extensions.get(id)!;
  const { person, mailbox, reachPlan } = phone;
  if (reachPlan !== null || [id, person, mailbox].some((name) => name !== null && named.has(name))) return null;
  if (exchange.presenceChoices.has(id)) return null;
  const box = mailbox === null ? null : exchange.destinations.get(mailbox)?.object;
  const { ringSeconds, lines, callWaiting, rejectsWithheld, site, kind } = phone;
  const teams = person === null ? null : (exchange.people.get(person)?.teams ?? []);
  const left = { ...box, id: null, name: null, digits: null, owners: null, emails: null };
  return JSON.stringify([
    kind,
    site,
    phone.class,
    ringSeconds,
    lines,
    callWaiting,
    rejectsWithheld,
    teams,
    box && left,
  ]);
}

const known = new WeakMap<Exchange, Map<string, WeakMap<Layer, LiteralGroup[]>>>();

/**
 * The strings that stand in a dialling context, those that lead to phones which take calls alike as one. What is named in the
 * situation or in `apart` stands alone.
 */
export function literalGroups(
  exchange: Exchange,
  { emergency, objects }: DialContext,
  situation: Situation,
  apart: readonly string[],
): readonly LiteralGroup[] {
  const forms = new Map((emergency.rules as Literal[]).map((rule) => [stringOf(rule), rule]));
  const first = [...forms].map(([dial, literal]): LiteralGroup => ({ dial, literal, other: null }));
  const ofExchange = known.get(exchange) ?? new Map<string, WeakMap<Layer, LiteralGroup[]>>();
  known.set(exchange, ofExchange);
  const name = JSON.stringify([situation, apart]);
  const ofName = ofExchange.get(name) ?? new WeakMap<Layer, LiteralGroup[]>();
  ofExchange.set(name, ofName);
  let groups = ofName.get(objects);
  if (!groups) ofName.set(objects, (groups = grouped(exchange, objects, new Set([...namesIn(situation), ...apart]))));
  return [...first, ...groups.filter((g) => !forms.has(g.dial))];
}

function grouped(exchange: Exchange, objects: Layer, named: ReadonlySet<string>): LiteralGroup[] {
  const byKey = new Map<string, LiteralGroup>();
  const seen = new Set<string>();
  const out: LiteralGroup[] = [];
  for (const literal of objects.rules as Literal[]) {
    const dial = stringOf(literal);
    if (seen.has(dial)) continue;
    seen.add(dial);
    const phone = literal.type === 'destination' && literal.kind === 'extension' ? literal.id : null;
    const key = phone === null ? null : takesCallsAs(exchange, phone, named);
    const group = key === null ? undefined : byKey.get(`${key} ${dial.length}`);
    if (group) group.other ??= dial;
    else {
      const made = { dial, literal, other: null };
      out.push(made);
      if (key !== null) byKey.set(`${key} ${dial.length}`, made);
    }
  }
  return out;
}
