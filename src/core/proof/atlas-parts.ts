import type { DialCell } from '../cells';
import type { CallKind } from '../numbers';
import { trace, type Ending, type Exchange, type Situation } from '../routing';
import type { Literal } from './literals';

/* What regions of an atlas are told apart by, and how they are called. */

/** A word for a kind as a word for several. */
export const severalOf = (word: string): string =>
  word.endsWith('y') ? `${word.slice(0, -1)}ies` : word.endsWith('x') ? `${word}es` : `${word}s`;

export const isBefore = (a: string, b: string) => a.length < b.length || (a.length === b.length && a < b);

type Known = Pick<DialCell, 'takenEarly' | 'waits'>;

export const regionKey = ({ outcome, kind, rule, trunk, cause }: Ending, { takenEarly }: Known): string =>
  JSON.stringify([outcome, kind, rule, trunk, cause, takenEarly]);

/** What is said of strings that end alike. */
export function regionOf(exchange: Exchange, { outcome, kind, rule, trunk }: Ending, { takenEarly, waits }: Known) {
  const trunkName = trunk === null ? '' : exchange.trunks.get(trunk)!.name;
  return {
    outcome,
    kind: kind as CallKind | null,
    rule,
    label: nameOfRule(exchange, rule),
    trunk,
    trunkName,
    takenEarly,
    waits,
  };
}

function nameOfRule(exchange: Exchange, rule: string | null): string {
  if (rule === null) return '';
  if (rule === 'emergency') return 'Emergency';
  const { plan } = exchange;
  return (
    exchange.destinations.get(rule)?.object.name ??
    plan.rungs.find((r) => r.id === rule)?.name ??
    plan.serviceCodes.find((c) => c.id === rule)?.name ??
    rule
  );
}

/** The right that was asked last, by the reason that the trace gives. */
export function rightOf(exchange: Exchange, call: Parameters<typeof trace>[1], situation: Situation): string | null {
  return trace(exchange, call, situation).steps.findLast((s) => s.type === 'right')?.code ?? null;
}

/**
 * Whatever is known of one phone that nothing is said about beside the plan holds of all: it rings. Empty where something may
 * be said about this one, or where it is no phone.
 */
export function plainPhone(exchange: Exchange, rule: Literal, named: ReadonlySet<string>): string {
  if (rule.type !== 'destination' || rule.kind !== 'extension') return '';
  const { id, kind, site, person, reachPlan } = exchange.extensions.get(rule.id)!;
  const plain = kind !== 'virtual' && reachPlan === null && !named.has(id) && !(person && named.has(person));
  // Between sites a link may be full.
  return plain ? `${kind} ${site}` : '';
}

/** Everything whose state a situation tells, by id. */
export function namedIn(situation: Situation): ReadonlySet<string> {
  const { busy, away, off, doNotDisturb, presence, forwarding, reach, answers, hotDesks, lines } = situation;
  return new Set([
    ...[busy, away, off, doNotDisturb].flatMap((list) => list ?? []),
    ...Object.keys(presence ?? {}),
    ...[forwarding, reach, hotDesks, lines].flatMap((list) => list?.map((x) => x.extension) ?? []),
    ...(answers?.map((a) => a.id) ?? []),
  ]);
}
