import { DEAD, LONGEST_DIALLED, Rows, SYMBOLS, SYMBOL_COUNT, run, step, type Automaton } from '../digits';
import { ladderOf, type Exchange } from '../exchange/exchange';
import type { CompiledRung } from '../exchange/rung';
import type { NumberReader } from '../numbers';
import type { Site } from '../plan';
import { contextOf } from '../routing';
import { askedOf, begin, readAs, readBy, readOn, type ReadBy } from './read-by';

/** Strings to which others are held, and by what they are known: the text of a map. */
export interface Within {
  name: string;
  automaton: Automaton;
}

/** A rule of a site with digits by which callers from outside can leave there. */
export interface LeadingOut {
  rung: string;
  digits: readonly string[];
}

const ofPlan = new WeakMap<Exchange, Map<string, readonly LeadingOut[]>>();

/**
 * What callers from outside dial to leave by each outbound rule of a site: the shortest digits that the rule reads as a number in
 * use, and the shortest that it reads as none. Only what `within` takes, and what nothing inside and no emergency number has.
 */
export function leadingOut(exchange: Exchange, site: Site, within: Within | null = null): readonly LeadingOut[] {
  const ofExchange = ofPlan.get(exchange) ?? new Map<string, readonly LeadingOut[]>();
  ofPlan.set(exchange, ofExchange);
  const name = `${site.id} ${within?.name ?? ''}`;
  let found = ofExchange.get(name);
  if (!found) {
    const { emergency, objects } = contextOf(exchange, { person: null, site: site.id });
    const had = [emergency.automaton, objects.automaton];
    const rungs = ladderOf(exchange, site);
    found = rungs.map((rung) => ({ rung: rung.rung.id, digits: shortestOf(exchange, site, rung, had, within) }));
    ofExchange.set(name, found);
  }
  return found;
}

const takes = (automaton: Automaton, state: number): boolean => state !== DEAD && automaton.accepts[state]!.length > 0;

const known = new WeakMap<NumberReader, Map<string, readonly string[]>>();

function shortestOf(
  exchange: Exchange,
  site: Site,
  { rung, map }: CompiledRung,
  had: readonly Automaton[],
  within: Within | null,
): readonly string[] {
  const by = readBy(exchange.places.get(site.id)!, rung, askedOf(exchange));
  const ofReader = known.get(by.reader) ?? new Map<string, readonly string[]>();
  known.set(by.reader, ofReader);
  const name = JSON.stringify([rung.map, by.strip, by.start, within?.name]);
  const taking = within ? [map.automaton, within.automaton] : [map.automaton];
  let found = ofReader.get(name);
  if (!found) ofReader.set(name, (found = searched(by, taking, [])));
  // Few rules take what something else has.
  return found.some((digits) => had.some((a) => takes(a, run(a, digits)))) ? searched(by, taking, had) : found;
}

/** The shortest digits that some automata all take and others do not, read as a number in use, and read as none: all are walked side by side. */
function searched(by: ReadBy, taking: readonly Automaton[], had: readonly Automaton[]): readonly string[] {
  const automata = [...taking, ...had];
  const rows = new Rows(automata.length + 1);
  const { row } = rows;
  row[automata.length] = begin(by);
  rows.add();
  const found = new Map<boolean, string>();
  let ring = [''];
  for (let length = 1; length <= LONGEST_DIALLED && ring.length > 0 && found.size < 2; length++) {
    const outer: string[] = [];
    const first = rows.size - ring.length;
    ring.forEach((text, i) => {
      for (let symbol = 0; symbol < SYMBOL_COUNT; symbol++) {
        automata.forEach((a, k) => (row[k] = step(a, rows.at(first + i, k), symbol)));
        if (taking.some((_, k) => row[k] === DEAD)) continue;
        row[automata.length] = readOn(by, rows.at(first + i, automata.length), symbol);
        if (rows.find() >= 0) continue;
        const digits = text + SYMBOLS[symbol];
        if (automata.every((a, k) => takes(a, row[k]!) === k < taking.length)) {
          const { valid } = readAs(by, row[automata.length]!);
          if (!found.has(valid)) found.set(valid, digits);
        }
        rows.add();
        outer.push(digits);
      }
    });
    ring = outer;
  }
  return [...found.values()];
}
