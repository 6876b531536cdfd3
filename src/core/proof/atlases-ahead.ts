import { dialledCells, type DialledCells, type Span } from '../cells';
import type { Exchange } from '../routing';
import { atlasOf, type Atlas } from './atlas';
import { contextsAhead } from './cut-ahead';

/**
 * Draws an atlas for each way in which what can be dialled is cut, at every state of the hours in a span: a step for each, to be
 * taken when there is nothing else to do, that says what was drawn. The maps of its regions stay, for all phones that dial alike.
 */
export function* atlasesAhead(exchange: Exchange, span: Span): Generator<{ cells: DialledCells; atlas: Atlas }> {
  const drawn = new Set<DialledCells>();
  for (const { phone, at, context } of contextsAhead(exchange, span)) {
    const cells = dialledCells(exchange, context);
    if (drawn.has(cells)) continue;
    drawn.add(cells);
    const atlas = atlasOf(exchange, phone.id, at, {}, true);
    atlas.under('');
    yield { cells, atlas };
  }
}
