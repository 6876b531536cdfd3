import { dialledCells, overTime, phoneGroups, type Span } from '../cells';
import type { DialContext } from '../exchange/context';
import type { Extension } from '../plan';
import { contextOf, type Exchange } from '../routing';

/** By what a phone of each group dials at every state of the hours in a span, and a moment at which it does; what many dial by comes again. */
export function* contextsAhead(
  exchange: Exchange,
  span: Span,
): Generator<{ phone: Extension; at: number; context: DialContext }> {
  for (const { phone } of phoneGroups([exchange]))
    for (const { at, answer: context } of overTime([exchange], {}, span, ([watched], moment) =>
      contextOf(watched!, phone, { at: moment, situation: {} }),
    ))
      yield { phone, at, context };
}

/**
 * Cuts what can be dialled at each group of phones into cells, at every state of the hours in a span: a step for each, to be taken
 * when there is nothing else to do, that says what was cut. Whoever asks then for an impact, an atlas or promises does not wait for it.
 */
export function* cutAhead(exchange: Exchange, span: Span): Generator<DialContext> {
  const cut = new Set<DialContext>();
  for (const { context } of contextsAhead(exchange, span)) {
    if (cut.has(context)) continue;
    cut.add(context);
    dialledCells(exchange, context);
    yield context;
  }
}
