import { dialledCells, measured, type DialledCells } from '../cells';
import { DEAD, LONGEST_DIALLED, SYMBOLS, automatonOfLiterals, mapOfAutomaton, run as runAutomaton } from '../digits';
import { KINDS, type Extension } from '../plan';
import type { DialContext } from '../exchange/context';
import { contextOf, outcomeOf, type Ending, type Exchange, type Situation } from '../routing';
import { isBefore, namedIn, plainPhone, regionKey, regionOf, rightOf, severalOf } from './atlas-parts';
import { dialsOf, idOf, literalAt, type Literal } from './literals';
import { mapOfGroups, plainIn, type PlainGroup } from './plain-phones';
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
  const { counts, witnesses, mapOf, countsFrom } = measured(dialled);
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
    under(digits) {
      const bySymbol = symbolsAfter(digits, standing.strings);
      return [...SYMBOLS].flatMap((symbol) => {
        const head = digits + symbol;
        const state = runAutomaton(automaton, head);
        if (state === DEAD || head.length > LONGEST_DIALLED) return [];
        const sums = new Map<number, bigint>();
        const add = (region: Region | undefined, count: bigint) => {
          if (region && count > 0n) sums.set(placeOf.get(region)!, (sums.get(placeOf.get(region)!) ?? 0n) + count);
        };
        add(ofLabel.get(automaton.accepts[state]![0]!), 1n);
        countsFrom(state, head.length).forEach((count, label) => add(ofLabel.get(label), count));
        for (const [region, count] of bySymbol.get(symbol) ?? []) add(region, BigInt(count));
        const parts = [...sums].map(([region, count]) => ({ region, count: String(count) }));
        return parts.length > 0 ? [{ symbol, parts }] : [];
      });
    },
    regionOf: (dial) =>
      standing.strings.find(({ dials }) => dials.includes(dial))?.region ??
      ofLabel.get(automaton.accepts[runAutomaton(automaton, dial)]![0]!)!,
  };
}

/** Of the strings that stand in the plan and begin with some digits: how many of each region go on with which symbol. */
function symbolsAfter(digits: string, strings: Literals['strings']): Map<string, Map<Region, number>> {
  const out = new Map<string, Map<Region, number>>();
  for (const { region, dials } of strings)
    for (const dial of dials) {
      if (dial.length <= digits.length || !dial.startsWith(digits)) continue;
      const symbol = dial[digits.length]!;
      let counts = out.get(symbol);
      if (!counts) out.set(symbol, (counts = new Map()));
      counts.set(region, (counts.get(region) ?? 0) + 1);
    }
  return out;
}

/** Strings that are named of a region of many that no short map takes. */
const MOST_TOGETHER = 40;

interface Literals {
  regions: Region[];
  /** the strings of each region */
  strings: readonly { region: Region; dials: readonly string[] }[];
}

/** What becomes of a string, and the right that decided. */
interface Found {
  end: Ending;
  right: string | null;
}

/** A region of strings that stand in the plan, as it grows. */
interface Growing {
  region: Region;
  dials: string[];
  /** those of plain phones among them, and all others */
  groups: PlainGroup[];
  others: string[];
}

/** Every string that stands in the plan, each with what has it: emergency numbers before objects. */
function literals(exchange: Exchange, phone: Extension, at: number, situation: Situation, together: boolean): Literals {
  const context = contextOf(exchange, phone, { at, situation });
  const dialled = cellsOf(exchange, phone, at, situation);
  const { automaton, cells } = dialled;
  const regions = new Map<string, Growing>();
  const asked = (dial: string): Found => {
    const call = { from: { type: 'extension' as const, id: phone.id }, dial, enBloc: true, at };
    return { end: outcomeOf(exchange, call, situation), right: rightOf(exchange, call, situation) };
  };
  const put = (
    literal: Literal,
    dials: readonly string[],
    label: number,
    group: PlainGroup | null,
    { end, right }: Found = asked(dials[0]!),
  ) => {
    const kind = together && literal.type === 'destination' ? literal.kind : null;
    const cell = cells[label]!;
    const key = `${kind} ${regionKey(kind ? { ...end, rule: kind } : end, cell)}`;
    const known = regions.get(key);
    if (known) {
      for (const d of dials) known.dials.push(d);
      if (group) known.groups.push(group);
      else known.others.push(...dials);
      known.region.waits ||= cell.waits;
      return;
    }
    const region: Region = {
      map: '',
      exact: true,
      count: '',
      ...regionOf(exchange, end, cell),
      ...(kind ? { rule: null, label: severalOf(KINDS[kind].word) } : {}),
      right,
      example: dials[0]!,
    };
    regions.set(key, { region, dials: [...dials], groups: group ? [group] : [], others: group ? [] : [...dials] });
  };
  const plain = plainIn(exchange, context, dialled);
  const named = namedIn(situation);
  const isApart = (literal: Literal): boolean =>
    literal.type === 'destination' && (literal.id === phone.id || plainPhone(exchange, literal, named) === '');
  const apart = new Map<string, Literal>();
  for (const dial of [
    ...dialsOf(context, phone.id),
    ...[...named].flatMap((id) => dialsOfNamed(exchange, context, id)),
  ]) {
    const literal = literalAt(context, dial);
    if (literal && isApart(literal)) apart.set(dial, literal);
  }
  for (const group of plain.groups) {
    const dials = apart.size === 0 ? group.dials : group.dials.filter((d) => !apart.has(d));
    if (dials.length === 0) continue;
    if (together) put(group.literal, dials, group.label, group);
    else {
      const { end, right } = asked(dials[0]!);
      for (const dial of dials) {
        const literal = literalAt(context, dial)!;
        put(literal, [dial], group.label, null, { end: { ...end, rule: idOf(literal) }, right });
      }
    }
  }
  const labelOf = (dial: string) => automaton.accepts[runAutomaton(automaton, dial)]![0]!;
  const others = new Map([...plain.rest, ...apart]);
  for (const [dial, literal] of others) put(literal, [dial], labelOf(dial), null);
  for (const { region, dials, groups, others } of regions.values()) {
    const short = !together
      ? null
      : groups.length > 0
        ? mapOfGroups(plain, groups, others, apart)
        : mapOfAutomaton(automatonOfLiterals(dials));
    region.exact = short !== null || !together || dials.length <= MOST_TOGETHER;
    region.map = short ?? dials.slice(0, region.exact ? dials.length : MOST_TOGETHER).join('|');
    region.count = String(dials.length);
    region.example = dials.reduce((a, b) => (isBefore(b, a) ? b : a));
  }
  const strings = [...regions.values()];
  return { regions: strings.map((r) => r.region), strings };
}

/** Strings of a phone, or of the phones of a person, of whom a situation tells something. */
const dialsOfNamed = ({ plan, extensions }: Exchange, context: DialContext, id: string): string[] =>
  (extensions.has(id) ? [id] : plan.extensions.filter((e) => e.person === id).map((e) => e.id)).flatMap((phone) =>
    dialsOf(context, phone),
  );
