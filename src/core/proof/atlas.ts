import { countsByLabel, dialledCells, measured, type DialledCells } from '../cells';
import { DEAD, LONGEST_DIALLED, SYMBOLS, automatonOfLiterals, mapOfAutomaton, run as runAutomaton } from '../digits';
import { KINDS, type Extension } from '../plan';
import { contextOf, outcomeOf, type Ending, type Exchange, type Situation } from '../routing';
import { isBefore, namedIn, plainPhone, regionKey, regionOf, rightOf, severalOf } from './atlas-parts';
import { literalsOf } from './literals';
import type { Next, Region } from './regions';

/** The cells of a phone's dialling context. */
export const cellsOf = (exchange: Exchange, phone: Extension, at: number, situation: Situation): DialledCells =>
  dialledCells(exchange, contextOf(exchange, phone, { at, situation }));

export interface Atlas {
  regions: Region[];
  /** what follows some digits, symbol by symbol */
  under(digits: string): Next;
  /** the region of a string of 1 to 32 symbols */
  regionOf(dial: string): Region;
}

/** Whatever can be dialled. */
const ANYTHING = '[0-9*#][0-9*#].|+[0-9*#].';
/**
 * The atlas of a phone at a moment: every string of 1 to 32 symbols in exactly one region, as if sent as one block. `together` makes
 * one region of all objects of a kind that end alike. The phone must exist in the plan.
 */
export function atlasOf(
  exchange: Exchange,
  phoneId: string,
  at: number,
  situation: Situation = {},
  together = false,
): Atlas {
  const phone = exchange.extensions.get(phoneId)!;
  const dialled = cellsOf(exchange, phone, at, situation);
  const { automaton, cells } = dialled;
  const { counts, witnesses, mapOf } = measured(dialled);
  const call = (dial: string) => ({ from: { type: 'extension' as const, id: phoneId }, dial, enBloc: true, at });
  const parts = new Map<string, { labels: number[]; end: Ending; count: bigint; example: string }>();
  cells.forEach((cell, label) => {
    const example = witnesses[label];
    if (cell.type === 'literal' || !example) return;
    const end = outcomeOf(exchange, call(example), situation);
    const key = regionKey(end, cell);
    const part = parts.get(key);
    if (!part) parts.set(key, { labels: [label], end, count: counts[label]!, example });
    else {
      part.labels.push(label);
      part.count += counts[label]!;
      if (isBefore(example, part.example)) part.example = example;
    }
  });
  const ofLabel = new Map<number, Region>();
  const regions = [...parts.values()].map(({ labels, end, count, example }): Region => {
    const cell = cells[labels[0]!]!;
    const map = mapOf(labels);
    const wide = cell.type === 'rule' ? cell.rule.rung.map : ANYTHING;
    const region: Region = {
      map: map ?? wide,
      exact: map !== null,
      ...regionOf(exchange, end, { ...cell, waits: labels.some((l) => cells[l]!.waits) }),
      count: String(count),
      right: rightOf(exchange, call(example), situation),
      example,
    };
    for (const label of labels) ofLabel.set(label, region);
    return region;
  });
  const standing = literals(exchange, phone, at, situation, together);
  const all = [...regions, ...standing.regions];
  const placeOf = new Map(all.map((r, i) => [r, i]));
  return {
    regions: all,
    under: (digits) =>
      [...SYMBOLS].flatMap((symbol) => {
        const head = digits + symbol;
        const state = runAutomaton(automaton, head);
        if (state === DEAD || head.length > LONGEST_DIALLED) return [];
        const sums = new Map<number, bigint>();
        const add = (region: Region | undefined, count: bigint) => {
          if (region && count > 0n) sums.set(placeOf.get(region)!, (sums.get(placeOf.get(region)!) ?? 0n) + count);
        };
        add(ofLabel.get(automaton.accepts[state]![0]!), 1n);
        countsByLabel(automaton, cells.length, state, head.length).forEach((count, label) =>
          add(ofLabel.get(label), count),
        );
        for (const [dial, region] of standing.ofString) if (dial.startsWith(head)) add(region, 1n);
        const parts = [...sums].map(([region, count]) => ({ region, count: String(count) }));
        return parts.length > 0 ? [{ symbol, parts }] : [];
      }),
    regionOf: (dial) =>
      standing.ofString.get(dial) ?? ofLabel.get(automaton.accepts[runAutomaton(automaton, dial)]![0]!)!,
  };
}

/** Strings that are named of a region of many that no short map takes. */
const MOST_TOGETHER = 40;

interface Literals {
  regions: Region[];
  ofString: ReadonlyMap<string, Region>;
}

/** Every string that stands in the plan, each with what has it: emergency numbers before objects. */
function literals(exchange: Exchange, phone: Extension, at: number, situation: Situation, together: boolean): Literals {
  const context = contextOf(exchange, phone, { at, situation });
  const { automaton, cells } = cellsOf(exchange, phone, at, situation);
  const named = namedIn(situation);
  const alike = new Map<string, { end: Ending; right: string | null }>();
  const regions = new Map<string, { region: Region; dials: string[] }>();
  /** where strings of plain phones go, by what is known of them and by cell */
  const plainOf = new Map<string, string[]>();
  for (const [dial, rule] of literalsOf(context)) {
    const label = automaton.accepts[runAutomaton(automaton, dial)]![0]!;
    const cell = cells[label]!;
    const call = { from: { type: 'extension' as const, id: phone.id }, dial, enBloc: true, at };
    const plain = rule.type === 'destination' && rule.id === phone.id ? '' : plainPhone(exchange, rule, named);
    const quick = plain && together ? plainOf.get(`${plain} ${label}`) : undefined;
    if (quick) {
      quick.push(dial);
      continue;
    }
    let found = plain && alike.get(plain);
    if (!found) {
      found = { end: outcomeOf(exchange, call, situation), right: rightOf(exchange, call, situation) };
      if (plain) alike.set(plain, found);
    }
    const end = plain && rule.type === 'destination' ? { ...found.end, rule: rule.id } : found.end;
    const kind = together && rule.type === 'destination' ? rule.kind : null;
    const key = `${kind} ${regionKey(kind ? { ...end, rule: kind } : end, cell)}`;
    const region = regions.get(key);
    if (region) {
      region.dials.push(dial);
      region.region.waits ||= cell.waits;
      if (plain && together) plainOf.set(`${plain} ${label}`, region.dials);
    } else {
      const dials = [dial];
      if (plain && together) plainOf.set(`${plain} ${label}`, dials);
      regions.set(key, {
        region: {
          map: '',
          exact: true,
          count: '',
          ...regionOf(exchange, end, cell),
          ...(kind ? { rule: null, label: severalOf(KINDS[kind].word) } : {}),
          right: found.right,
          example: dial,
        },
        dials,
      });
    }
  }
  const ofString = new Map<string, Region>();
  for (const { region, dials } of regions.values()) {
    const short = together ? mapOfAutomaton(automatonOfLiterals(dials)) : null;
    region.exact = short !== null || !together || dials.length <= MOST_TOGETHER;
    region.map = short ?? dials.slice(0, region.exact ? dials.length : MOST_TOGETHER).join('|');
    region.count = String(dials.length);
    region.example = dials.reduce((a, b) => (isBefore(b, a) ? b : a));
    for (const dial of dials) ofString.set(dial, region);
  }
  return { regions: [...regions.values()].map((r) => r.region), ofString };
}
