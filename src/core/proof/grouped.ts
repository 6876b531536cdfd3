import type { Span } from '../cells';
import { KINDS, labelOf, wordOf, type AnyObject, type Difference } from '../plan';
import type { Exchange } from '../routing';
import { shapeOfActs } from './acts';
import { asked, type AskedCall } from './asked';
import type { CallersCount } from './call-words';
import { callersIn, type ChangedCell, type Comparing } from './changed';
import type { Aspect } from './facts';
import type { End } from './noticed';

/** How a call ends, without what is only held against another's. */
export type ToldEnd = Omit<End, 'hearing'>;

/** Calls that change alike, for the same reason. */
export interface ImpactGroup extends CallersCount {
  /** phones, numbers and strings brought by trunks whose calls change */
  count: number;
  /** the sites of these phones, numbers and trunks, by id */
  sites: string[];
  /** dialled strings of 1 to 32 symbols, of one phone; in decimal */
  strings: string;
  /** for how much of the time, 0 to 1 */
  share: number;
  aspects: Aspect[];
  /** a call as the Ask line and the command line take it */
  example: { call: AskedCall };
  was: ToldEnd | null;
  willBe: ToldEnd | null;
  /** the edits behind it: without any one of them the example would end as it was */
  edits: { kind: string; id: string; label: string }[];
}

const told = (end: End | null): ToldEnd | null => {
  if (!end) return null;
  const { hearing: _, ...rest } = end;
  return rest;
};

/** What cells have in common that are told together: where it ended and would end, by kind where that is a phone. */
export function shapeOf({ call, aspects, was, willBe, acts }: ChangedCell): string {
  const end = (e: End | null) =>
    e && [
      e.outcome,
      e.lands?.kind,
      e.lands?.kind === 'extension' ? '' : (e.lands?.id ?? e.lands?.label),
      e.trunk,
      e.cause,
    ];
  const then = (e: End | null) => e?.then.map((t) => [t.when, t.lands.kind]);
  const after = aspects.includes('afterwards') ? [then(was), then(willBe)] : [];
  return JSON.stringify([call.from.type, aspects, end(was), end(willBe), after, shapeOfActs(acts)]);
}

/** Cells that change alike, told together; `edits` are behind them. */
export function groupOf(
  { willBe, span }: Comparing,
  cells: readonly ChangedCell[],
  edits: readonly Difference[],
): ImpactGroup {
  const callers = callersIn(cells);
  const strings = new Map<string, bigint>();
  for (const c of cells) {
    if (c.call.from.type !== 'extension') continue;
    if (c.dials) for (const dial of c.dials) strings.set(dial, 1n);
    else strings.set(c.call.dial, c.strings);
  }
  const longest = Math.max(...cells.map((c) => lastsIn(c.stretches)));
  const example = cells[0]!;
  return {
    count: callers.phones + callers.numbers + callers.brought,
    ...callers,
    sites: sitesOf(willBe, cells),
    strings: String([...strings.values()].reduce((a, b) => a + b, 0n)),
    share: longest / (span.to - span.from),
    aspects: [...example.aspects],
    example: { call: asked(willBe, example.call, example.acts) },
    was: told(example.was),
    willBe: told(example.willBe),
    edits: edits.map((e) => ({ kind: e.kind, id: e.id, label: nameOf(e) })),
  };
}

/** The sites of the phones, numbers and trunks of some calls; phones of a group are all at one. */
function sitesOf({ extensions, numberByE164, trunks }: Exchange, cells: readonly ChangedCell[]): string[] {
  const out = new Set<string>();
  for (const { callers, number, call } of cells) {
    if (call.from.type === 'trunk') out.add(trunks.get(call.from.id)?.site ?? '');
    for (const group of callers) out.add(extensions.get(group[0]!)?.site ?? '');
    if (number !== null) out.add(numberByE164.get(number)?.site ?? '');
  }
  out.delete('');
  return [...out].sort();
}

const lastsIn = (stretches: readonly Span[]) => stretches.reduce((sum, s) => sum + s.to - s.from, 0);

/** What an edited object is called, with its word. */
function nameOf({ kind, before, after }: Difference): string {
  const object = after ?? before!;
  return kind === 'organisation' ? wordOf(kind) : `${KINDS[kind].word} ${labelOf(kind, object as AnyObject)}`;
}
