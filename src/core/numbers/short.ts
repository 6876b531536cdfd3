import { compileKnownMap, run, type Automaton } from '../digits';
import { COUNTRY_FACTS } from './facts';

/** A change to the table of facts that the plan makes: one more short number, or one that is not in use. */
export interface ShortNumberChange {
  country: string;
  /** a digit map; plain digits for emergency numbers */
  map: string;
  kind: 'service' | 'emergency' | 'emergency test';
  inUse: boolean;
}

/** Short numbers of one country, prepared for reading. */
export interface ShortNumbers {
  emergency: readonly string[];
  /** code of a marked test call, where there is one */
  emergencyTest: string | null;
  service: Automaton | null;
}

const unchanged = new Map<string, ShortNumbers>();

/** Short numbers of a country: our table with the changes of the plan. 112 where nothing is known, as mobile networks take it everywhere. */
export function shortNumbersOf(country: string, changes: readonly ShortNumberChange[] = []): ShortNumbers {
  const own = changes.filter((c) => c.country === country);
  const known = own.length === 0 ? unchanged.get(country) : undefined;
  if (known) return known;
  const facts = COUNTRY_FACTS[country];
  const changed = (kind: ShortNumberChange['kind'], table: readonly string[]) => {
    const list = own.filter((c) => c.kind === kind);
    const out = table.filter((map) => !list.some((c) => !c.inUse && c.map === map));
    return [...out, ...list.filter((c) => c.inUse && !out.includes(c.map)).map((c) => c.map)];
  };
  const service = changed('service', facts?.service.map((s) => s.map) ?? []);
  const prepared: ShortNumbers = {
    emergency: changed('emergency', facts?.emergency ?? ['112']),
    emergencyTest: changed('emergency test', facts?.emergencyTest ? [facts.emergencyTest] : [])[0] ?? null,
    service: service.length > 0 ? compileKnownMap(service.join('|')).automaton : null,
  };
  if (own.length === 0) unchanged.set(country, prepared);
  return prepared;
}

/** Emergency numbers of a country as our table has them. */
export function emergencyNumbersOf(country: string): readonly string[] {
  return shortNumbersOf(country).emergency;
}

export function isServiceNumber(digits: string, short: ShortNumbers): boolean {
  if (!short.service) return false;
  const state = run(short.service, digits);
  return state >= 0 && short.service.accepts[state]!.length > 0;
}
