import type { Card } from '../../formats';
import type { Extension, Plan } from '../../plan';
import { cellsOf, lookupOf } from './cells';
import { COLUMNS, COLUMN_KEYS } from './columns';

const EXPORTED = COLUMN_KEYS.filter((key) => !COLUMNS[key].secret);

/** A sheet of extensions, their people and mailboxes: a row of titles, then one row each. Read again it changes nothing. */
export function writeSheet(plan: Plan, extensions: readonly Extension[]): string[][] {
  const look = lookupOf(plan);
  return [
    EXPORTED.map((key) => COLUMNS[key].title),
    ...extensions.map((e) => {
      const cells = cellsOf(e, look);
      return EXPORTED.map((key) => cells[key]);
    }),
  ];
}

/** The directory: people and places that can be called, each once, by its first extension. */
export function directoryOf(plan: Plan, extensions: readonly Extension[]): Card[] {
  const look = lookupOf(plan);
  const seen = new Set<string>();
  return extensions.flatMap((e): Card[] => {
    if (e.kind === 'fax' || e.kind === 'virtual' || (e.person !== null && seen.has(e.person))) return [];
    if (e.person) seen.add(e.person);
    const person = e.person ? look.people.get(e.person)! : null;
    return [
      {
        uid: person?.id ?? e.id,
        name: person?.name ?? e.name,
        kind: person ? 'individual' : 'location',
        organisation: plan.organisation.name,
        unit: person?.teams.map((t) => look.nameOf.get(t)!).join(', ') || look.nameOf.get(e.site)!,
        email: person?.email ?? null,
        number: look.numbersOf.get(e.id)?.find((n) => n.state === 'active')?.e164 ?? null,
        extension: e.digits,
        language: person?.language || look.sites.get(e.site)!.language,
      },
    ];
  });
}
