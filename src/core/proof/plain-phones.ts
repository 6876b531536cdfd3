import type { DialledCells } from '../cells';
import { automatonOfLiterals, mapOfAutomaton, run } from '../digits';
import type { DialContext } from '../exchange/context';
import type { Exchange } from '../routing';
import { plainPhone } from './atlas-parts';
import { literalsOf, type Literal } from './literals';

/** Strings of phones that ring alike and are taken alike. */
export interface PlainGroup {
  /** what is known of them, and by which cell they are taken */
  key: string;
  label: number;
  dials: readonly string[];
  /** the first of them */
  literal: Literal;
}

interface Plain {
  groups: PlainGroup[];
  /** everything else that has a string */
  rest: [string, Literal][];
  maps: Map<string, string | null>;
}

const known = new WeakMap<Exchange, WeakMap<DialContext, WeakMap<DialledCells, Plain>>>();
const NOBODY: ReadonlySet<string> = new Set();

/** The strings that stand in a context, those of phones of which nothing is said beside the plan in groups; found once. */
export function plainIn(exchange: Exchange, context: DialContext, cells: DialledCells): Plain {
  const ofExchange = known.get(exchange) ?? new WeakMap<DialContext, WeakMap<DialledCells, Plain>>();
  known.set(exchange, ofExchange);
  const ofContext = ofExchange.get(context) ?? new WeakMap<DialledCells, Plain>();
  ofExchange.set(context, ofContext);
  let found = ofContext.get(cells);
  if (!found) ofContext.set(cells, (found = grouped(exchange, context, cells)));
  return found;
}

function grouped(exchange: Exchange, context: DialContext, { automaton }: DialledCells): Plain {
  const groups = new Map<string, PlainGroup & { dials: string[] }>();
  const rest: [string, Literal][] = [];
  for (const [dial, literal] of literalsOf(context)) {
    const plain = plainPhone(exchange, literal, NOBODY);
    if (!plain) {
      rest.push([dial, literal]);
      continue;
    }
    const label = automaton.accepts[run(automaton, dial)]![0]!;
    const key = `${plain} ${label}`;
    const group = groups.get(key);
    if (group) group.dials.push(dial);
    else groups.set(key, { key, label, dials: [dial], literal });
  }
  return { groups: [...groups.values()], rest, maps: new Map() };
}

/**
 * The short map of just the strings of some groups but a few, or null. Where all of them have none it is not looked for: without a
 * few of them it would be longer still.
 */
export function mapWithout({ maps }: Plain, groups: readonly PlainGroup[], dials: readonly string[]): string | null {
  const key = groups.map((g) => g.key).join('\n');
  const all = groups.flatMap((g) => g.dials);
  if (!maps.has(key)) maps.set(key, mapOfAutomaton(automatonOfLiterals(all)));
  const map = maps.get(key)!;
  return map === null || all.length === dials.length ? map : mapOfAutomaton(automatonOfLiterals([...dials]));
}
