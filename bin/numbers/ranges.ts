import { Metadata, type CountryCode } from 'libphonenumber-js/max';
import library from 'libphonenumber-js/metadata.max.json';
import {
  ANY_DIGIT,
  DEAD,
  SYMBOL_COUNT,
  determinise,
  minimise,
  positionsOf,
  type Automaton,
  type MapNode,
} from '@/core/digits';
import { GLOBAL_CODES, type NumberType, type RangeData } from '@/core/numbers';
import { patternNode } from './pattern';

/* Turns the library's patterns of validity and type into one automaton over E.164 digits, and keeps what else is needed to read numbers. */

const LIBRARY_TYPES: readonly (readonly [string, NumberType])[] = [
  ['MOBILE', 'mobile'],
  ['PREMIUM_RATE', 'premium'],
  ['TOLL_FREE', 'freephone'],
  ['SHARED_COST', 'shared-cost'],
  ['VOIP', 'national'],
  ['PERSONAL_NUMBER', 'shared-cost'],
  ['PAGER', 'shared-cost'],
  ['UAN', 'shared-cost'],
  ['VOICEMAIL', 'shared-cost'],
];

/** What the library's metadata holds for one country or global code; its own types leave most of it out. */
interface Plan {
  callingCode(): string;
  IDDPrefix(): unknown;
  defaultIDDPrefix(): unknown;
  nationalPrefix(): unknown;
  nationalPrefixForParsing(): unknown;
  nationalPrefixTransformRule(): unknown;
  nationalNumberPattern(): string;
  leadingDigits(): unknown;
  possibleLengths(): number[];
  type(name: string): { pattern(): string; possibleLengths(): number[] } | undefined;
}

function planOf(countryOrCode: string): Plan {
  const metadata = new Metadata();
  metadata.selectNumberingPlan(countryOrCode as CountryCode);
  return metadata.numberingPlan as unknown as Plan;
}

/** Everything that core/numbers reads at run time. */
export function rangeData(): RangeData {
  const codes: Record<string, string[]> = { ...library.country_calling_codes };
  for (const code of Object.keys(library.nonGeographic)) codes[code] = [];
  const names: string[] = [];
  const labels = new Map<string, number>();
  const nameOf = (label: string) => {
    if (!labels.has(label)) labels.set(label, names.push(label) - 1);
    return labels.get(label)!;
  };
  const parts = Object.entries(codes)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([code, countries]) => ({ code, automaton: labelled(code, countries, nameOf) }));
  const lengths = Object.fromEntries(
    Object.entries(codes).map(([code, countries]) => [
      code,
      [...new Set((countries.length > 0 ? countries : [code]).flatMap((c) => planOf(c).possibleLengths()))].sort(
        (a, b) => a - b,
      ),
    ]),
  );
  return {
    version: String(library.version),
    codes,
    lengths,
    countries: countryPrefixes(codes),
    names,
    ...packed(parts),
  };
}

const text = (value: unknown) => (typeof value === 'string' ? value : '');

function countryPrefixes(codes: Record<string, string[]>): RangeData['countries'] {
  const out: RangeData['countries'] = {};
  for (const country of Object.values(codes).flat().sort()) {
    const plan = planOf(country);
    const abroad = text(plan.IDDPrefix());
    out[country] = {
      code: plan.callingCode(),
      prefix: text(plan.nationalPrefix()),
      abroad: /^[0-9]+$/.test(abroad) ? abroad : text(plan.defaultIDDPrefix()) || '00',
      parse: text(plan.nationalPrefixForParsing()),
      rewrite: text(plan.nationalPrefixTransformRule()),
    };
  }
  return out;
}

/** The automaton of one calling code over significant digits; its accepting states carry the label of what they are. */
function labelled(code: string, countries: string[], nameOf: (label: string) => number): Automaton {
  const nodes: MapNode[] = [];
  const ids = new Map<string, number>();
  const rule = (key: string, node: () => MapNode): number => {
    if (!ids.has(key)) ids.set(key, nodes.push(node()) - 1);
    return ids.get(key)!;
  };
  const pattern = (p: string) => rule(p, () => patternNode(p));
  const lengthRule = (lengths: readonly number[]) =>
    rule(`length ${lengths.join()}`, () => ({ type: 'choice', items: lengths.map((n) => anyDigits(n, n)) }));
  const judges = (countries.length > 0 ? countries : [code]).map((country) => {
    const plan = planOf(country);
    const typeRule = (name: string) => {
      const type = plan.type(name);
      return type?.pattern() ? { pattern: pattern(type.pattern()), length: lengthRule(type.possibleLengths()) } : null;
    };
    return {
      country: countries.length > 0 ? country : null,
      general: pattern(plan.nationalNumberPattern()),
      leading: plan.leadingDigits()
        ? rule(`leading ${text(plan.leadingDigits())}`, () => ({
            type: 'sequence',
            items: [patternNode(text(plan.leadingDigits())), anyDigits(0, 17)],
          }))
        : null,
      fixed: typeRule('FIXED_LINE'),
      types: LIBRARY_TYPES.flatMap(([name, type]) => {
        const found = typeRule(name);
        return found ? [{ type, ...found }] : [];
      }),
    };
  });
  const all = determinise(
    nodes.map((node) => positionsOf({ text: '', alternatives: [{ node, timer: false }] })),
    2_000_000,
  );
  const labelOf = (matched: readonly number[]): number => {
    const has = new Set(matched);
    const typeOf = (j: (typeof judges)[number]): NumberType | null => {
      const fits = (r: { pattern: number; length: number } | null) =>
        r !== null && has.has(r.pattern) && has.has(r.length);
      if (!has.has(j.general)) return null;
      return fits(j.fixed) ? 'national' : (j.types.find(fits)?.type ?? null);
    };
    const judge =
      judges.length === 1
        ? judges[0]
        : judges.find((j) => (j.leading === null ? typeOf(j) !== null : has.has(j.leading)));
    const type = judge ? typeOf(judge) : null;
    return judge && type ? nameOf(judge.country ? `${judge.country} ${type}` : GLOBAL_CODES[code]!) : -1;
  };
  const accepts = all.accepts.map((matched) => {
    const label = labelOf(matched);
    return label < 0 ? [] : [label];
  });
  return minimise({ next: all.next, accepts, timers: accepts.map(() => []) });
}

function anyDigits(min: number, max: number): MapNode {
  return { type: 'repeat', item: { type: 'set', mask: ANY_DIGIT, from: 0, to: 0 }, min, max };
}

/** All calling codes behind one start, as one smallest automaton with ten columns, in base64 of 16-bit little-endian numbers. */
function packed(parts: { code: string; automaton: Automaton }[]): { states: number; next: string; labels: string } {
  const next: number[] = new Array<number>(SYMBOL_COUNT).fill(DEAD);
  const accepts: (readonly number[])[] = [[]];
  const stateFor = () => {
    for (let s = 0; s < SYMBOL_COUNT; s++) next.push(DEAD);
    return accepts.push([]) - 1;
  };
  for (const { code, automaton } of parts) {
    let at = 0;
    for (const digit of code.slice(0, -1)) {
      const place = at * SYMBOL_COUNT + Number(digit);
      at = next[place] === DEAD ? (next[place] = stateFor()) : next[place]!;
    }
    const base = accepts.length;
    next[at * SYMBOL_COUNT + Number(code.at(-1))] = base;
    for (const to of automaton.next) next.push(to === DEAD ? DEAD : to + base);
    accepts.push(...automaton.accepts);
  }
  const small = minimise(alive({ next: Int32Array.from(next), accepts, timers: accepts.map(() => []) }));
  const states = small.accepts.length;
  const columns = Int16Array.from(
    { length: states * 10 },
    (_, i) => small.next[Math.floor(i / 10) * SYMBOL_COUNT + (i % 10)]!,
  );
  const labels = Int16Array.from(small.accepts, (a) => a[0] ?? -1);
  return { states, next: base64(columns), labels: base64(labels) };
}

/** The same automaton with ways into states that never accept cut. */
function alive(automaton: Automaton): Automaton {
  const reaches = automaton.accepts.map((a) => a.length > 0);
  for (let again = true; again;) {
    again = false;
    for (let state = reaches.length - 1; state >= 0; state--) {
      if (reaches[state]) continue;
      for (let s = 0; s < 10; s++) {
        const to = automaton.next[state * SYMBOL_COUNT + s]!;
        if (to !== DEAD && reaches[to]) again = reaches[state] = true;
      }
    }
  }
  return { ...automaton, next: automaton.next.map((to) => (to !== DEAD && reaches[to] ? to : DEAD)) };
}

function base64(numbers: Int16Array): string {
  return Buffer.from(numbers.buffer, numbers.byteOffset, numbers.byteLength).toString('base64');
}
