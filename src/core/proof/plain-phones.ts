import type { DialledCells } from '../cells';
import {
  DEAD,
  DIFFERENCE,
  UNION,
  automatonOfLiterals,
  combine,
  mapOfAutomaton,
  minimise,
  run,
  type Automaton,
} from '../digits';
import type { DialContext, Layer } from '../exchange/context';
import type { Exchange } from '../routing';
import { plainPhone } from './atlas-parts';
import { innerOf } from './inner';
import { stringsIn, type Literal } from './literals';

/** Strings of phones that ring alike and are taken alike. */
export interface PlainGroup {
  /** what is known of them, and by which cell they are taken */
  key: string;
  label: number;
  dials: readonly string[];
  /** the first of them */
  literal: Literal;
}

/** The short map of all strings of some groups, or null, and the smallest automaton that takes them. */
interface MapOfGroups {
  map: string | null;
  automaton: Automaton;
}

interface Plain {
  groups: PlainGroup[];
  /** everything else that has a string */
  rest: [string, Literal][];
  maps: Map<string, MapOfGroups>;
}

/** The strings of a layer, those of phones of which nothing is said beside the plan by what is known of these. */
interface InLayer {
  /** what is known of each string's phone, in the order of the layer */
  known: readonly string[];
  plain: ReadonlyMap<string, readonly string[]>;
  rest: readonly [string, Literal][];
}

const ofExchange = new WeakMap<Exchange, WeakMap<Layer, InLayer>>();
/** The last of each layer: most edits change nothing of it. */
const last = new WeakMap<Layer, InLayer>();
const NOBODY: ReadonlySet<string> = new Set();

function inLayer(exchange: Exchange, layer: Layer): InLayer {
  const found = innerOf(ofExchange, exchange);
  let mine = found.get(layer);
  if (!mine) {
    const strings = stringsIn(layer);
    const known = Array.from(strings.values(), (literal) => plainPhone(exchange, literal, NOBODY));
    const before = last.get(layer);
    mine = before && known.every((text, i) => text === before.known[i]) ? before : parted(strings, known);
    last.set(layer, mine);
    found.set(layer, mine);
  }
  return mine;
}

function parted(strings: ReadonlyMap<string, Literal>, known: readonly string[]): InLayer {
  const plain = new Map<string, string[]>();
  const rest: [string, Literal][] = [];
  let i = 0;
  for (const entry of strings) {
    const of = known[i++]!;
    const dials = plain.get(of);
    if (of === '') rest.push(entry);
    else if (dials) dials.push(entry[0]);
    else plain.set(of, [entry[0]]);
  }
  return { known, plain, rest };
}

const ofContext = new WeakMap<InLayer, WeakMap<Layer, WeakMap<DialledCells, Plain>>>();

/** The strings that stand in a context, those of phones of which nothing is said beside the plan in groups; found once. */
export function plainIn(exchange: Exchange, { emergency, objects }: DialContext, cells: DialledCells): Plain {
  const mine = inLayer(exchange, objects);
  const found = innerOf(innerOf(ofContext, mine), emergency);
  let plain = found.get(cells);
  if (!plain) found.set(cells, (plain = grouped(mine, stringsIn(emergency), stringsIn(objects), cells)));
  return plain;
}

function grouped(
  { plain, rest }: InLayer,
  forms: ReadonlyMap<string, Literal>,
  strings: ReadonlyMap<string, Literal>,
  { automaton }: DialledCells,
): Plain {
  const groups = new Map<string, PlainGroup & { dials: string[] }>();
  for (const [of, dials] of plain)
    for (const dial of dials) {
      if (forms.has(dial)) continue;
      const label = automaton.accepts[run(automaton, dial)]![0]!;
      const key = `${of} ${label}`;
      const group = groups.get(key);
      if (group) group.dials.push(dial);
      else groups.set(key, { key, label, dials: [dial], literal: strings.get(dial)! });
    }
  const others = rest.filter(([dial]) => !forms.has(dial));
  return { groups: [...groups.values()], rest: [...forms, ...others], maps: new Map() };
}

const takes = (automaton: Automaton, dial: string): boolean => {
  const state = run(automaton, dial);
  return state !== DEAD && automaton.accepts[state]!.length > 0;
};

/**
 * The short map of just the strings of some groups and some others besides, or null. What stands `apart` is among the strings only
 * where it is one of the others. Where there is no map with all that may stand apart none is looked for without: it would be longer still.
 */
export function mapOfGroups(
  { maps }: Plain,
  groups: readonly PlainGroup[],
  others: readonly string[],
  apart: ReadonlyMap<string, unknown>,
): string | null {
  const usual = others.filter((dial) => !apart.has(dial));
  const key = [...groups.map((g) => g.key), ...usual].join('\n');
  let known = maps.get(key);
  if (!known) {
    const all = [...groups.flatMap((g) => g.dials), ...usual];
    const automaton = minimise(automatonOfLiterals(all), (a, s) => (a.accepts[s]!.length > 0 ? 1 : 0));
    maps.set(key, (known = { automaton, map: mapOfAutomaton(automaton) }));
  }
  const { map, automaton } = known;
  const come = others.filter((dial) => apart.has(dial) && !takes(automaton, dial));
  const gone = [...apart.keys()].filter((dial) => takes(automaton, dial) && !others.includes(dial));
  if (map === null || (come.length === 0 && gone.length === 0)) return map;
  const left = gone.length > 0 ? combine(automaton, automatonOfLiterals(gone), DIFFERENCE) : automaton;
  return mapOfAutomaton(come.length > 0 ? combine(left, automatonOfLiterals(come), UNION) : left);
}
