import { dialledCells, overTime, phoneGroups, type Span } from '../cells';
import type { DialContext } from '../exchange/context';
import { contextOf, type Exchange } from '../routing';

/**
 * Cuts what can be dialled at each group of phones into cells, at every state of the hours in a span: a step for each, to be taken
 * when there is nothing else to do, that says what was cut. Whoever asks then for an impact, an atlas or promises does not wait for it.
 */
export function* cutAhead(exchange: Exchange, span: Span): Generator<DialContext> {
  const cut = new Set<DialContext>();
  for (const { phone } of phoneGroups([exchange]))
    for (const { answer: context } of overTime([exchange], {}, span, ([watched], at) =>
      contextOf(watched!, phone, { at, situation: {} }),
    )) {
      if (cut.has(context)) continue;
      cut.add(context);
      dialledCells(exchange, context);
      yield context;
    }
}
