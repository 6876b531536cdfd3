import { contextOf, ruleAt, type Exchange, type Situation } from '../routing';
import { cycles } from './cycles';

/** People whose forwarding of one kind leads round in a circle, so that callers reach nobody; ids of extensions in order. */
export function forwardingCircles(exchange: Exchange, situation: Situation): string[][] {
  const forwards = (situation.forwarding ?? []).filter(
    (f) => f.when === 'always' && exchange.extensions.has(f.extension),
  );
  const edges = forwards.flatMap((f) => {
    const owner = exchange.extensions.get(f.extension)!;
    const rule = ruleAt(contextOf(exchange, owner), f.to);
    return rule?.type === 'destination' ? [{ from: f.extension, to: rule.id, drive: 'none' as const }] : [];
  });
  const nodes = [...new Set(edges.flatMap((e) => [e.from, e.to]))].sort();
  return cycles(nodes, edges).map((c) => c.nodes);
}
