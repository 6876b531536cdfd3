import type { Span } from '../cells';
import { innerOf } from './inner';

/** Moments by which a longer row of acts comes later to a place than a shorter one. */
const SLIVER_MS = 15 * 60_000;

const joins = new WeakMap<readonly Span[], WeakMap<readonly Span[], Span[] | null>>();

/** Spans and others as one list; null where the others add no more than slivers. Remembered: many calls come to a place at the same times. */
export function joined(spans: readonly Span[], others: readonly Span[]): readonly Span[] | null {
  if (spans === others) return null;
  const known = innerOf(joins, spans);
  let found = known.get(others);
  if (found === undefined) known.set(others, (found = isBeyond(others, spans) ? inOrder([...spans, ...others]) : null));
  return found;
}

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
