import { outcomeAt, type Exchange, type Situation } from '@/core/routing';

/** Where a call ends that comes to a destination at a moment, by name; how it fails where it does. */
export function endsOf(exchange: Exchange, id: string, at: number, situation: Situation): string {
  const { lands, outcome } = outcomeAt(exchange, id, at, situation);
  return lands?.label ?? outcome;
}
