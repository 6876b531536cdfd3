import { z } from 'zod';
import type { DraftKind, InboundRoute, ObjectKind, PlanNumber } from '../plan';
import { outcomeAt, takes, type Exchange } from '../routing';
import { rulesThrough, ruleStretchSchema } from './rule-week';
import { OUTSIDE_CALLER } from './calls-around';
import { endsOfNumber, endsThrough, stretchSchema, weekAround, type SituationPiece } from './week';

/** A week of one object: where calls that come there end. Moments in milliseconds since 1970 UTC, half-open. */
export const weekSchema = z.strictObject({
  zone: z.string(),
  from: z.number(),
  to: z.number(),
  /** the call that is asked about, as the Ask line writes it; null where none leads just there */
  ask: z.strictObject({ from: z.string(), dial: z.string() }).nullable(),
  stretches: z.array(stretchSchema),
  /** of an inbound route: which time rule decides when */
  rules: z.array(ruleStretchSchema).nullable(),
});
export type Week = z.output<typeof weekSchema>;

/** The number that a route takes and that says where its calls go; null when none of ours comes there. */
function numberOfRoute(exchange: Exchange, route: InboundRoute): PlanNumber | null {
  const first = route.numbers[0] ? exchange.numbers.get(route.numbers[0]) : undefined;
  if (first) return first;
  const compiled = exchange.routes.find((r) => r.route.id === route.id);
  return (compiled && exchange.plan.numbers.find((n) => takes(compiled, n.e164))) ?? null;
}

/** The number by which calls from outside come to an object; null where none does. */
function numberFor(exchange: Exchange, kind: DraftKind, id: string): PlanNumber | null {
  if (kind === 'number') return exchange.numbers.get(id) ?? null;
  if (kind === 'inboundRoute') {
    const route = exchange.plan.inboundRoutes.find((r) => r.id === id);
    return route ? numberOfRoute(exchange, route) : null;
  }
  if (kind !== 'extension') return null;
  const numbers = exchange.numberOf.get(id) ?? [];
  // Of several the one that takes calls says where they end.
  return numbers.find((n) => n.state === 'active') ?? numbers[0] ?? null;
}

/** Where callers end through the week that a moment is in; null for what no call comes to. */
export function weekOf(
  exchange: Exchange,
  kind: ObjectKind,
  id: string,
  at: number,
  pieces: readonly SituationPiece[],
): Week | null {
  const number = numberFor(exchange, kind, id);
  if (number) {
    const { zone } = exchange.sites.get(number.site)!;
    const span = weekAround(zone, at);
    return {
      zone,
      ...span,
      ask: { from: `outside:${OUTSIDE_CALLER}`, dial: number.e164 },
      stretches: endsOfNumber(exchange, number, span, pieces),
      rules: kind === 'inboundRoute' ? rulesThrough(exchange, id, span, pieces) : null,
    };
  }
  const place = kind === 'extension' ? undefined : exchange.destinations.get(id);
  if (!place) return null;
  const { zone } = exchange.sites.get(place.object.site)!;
  const span = weekAround(zone, at);
  const digits = 'digits' in place.object ? place.object.digits : null;
  const phone = exchange.plan.extensions.find((e) => e.site === place.object.site && e.kind !== 'virtual');
  return {
    zone,
    ...span,
    ask: digits && phone ? { from: phone.digits, dial: digits } : null,
    stretches: endsThrough(exchange, (x, moment, s) => outcomeAt(x, id, moment, s), span, pieces),
    rules: null,
  };
}
