import { readText, showNumber, type NumberPlace } from '../../numbers';
import type { Extension, Mailbox, Person, Plan, PlanNumber, Site } from '../../plan';
import type { ColumnKey } from './columns';

/* What stands in a sheet's cells for an extension, and everything that is looked up while sheets are read and written. */

export interface Lookup {
  plan: Plan;
  sites: ReadonlyMap<string, Site>;
  people: ReadonlyMap<string, Person>;
  mailboxes: ReadonlyMap<string, Mailbox>;
  numbers: ReadonlyMap<string, PlanNumber>;
  byE164: ReadonlyMap<string, PlanNumber>;
  /** numbers by what they belong to, in their order */
  numbersOf: ReadonlyMap<string, readonly PlanNumber[]>;
  named: Record<'site' | 'class' | 'team', ReadonlyMap<string, string>>;
  nameOf: ReadonlyMap<string, string>;
}

const byId = <T extends { id: string }>(list: readonly T[]) => new Map(list.map((o) => [o.id, o]));

/** Names are compared without regard to capitals. */
export const nameKey = (name: string) => name.trim().toLowerCase();

export function lookupOf(plan: Plan): Lookup {
  const numbersOf = new Map<string, PlanNumber[]>();
  for (const n of plan.numbers) {
    if (!n.belongsTo) continue;
    const known = numbersOf.get(n.belongsTo);
    if (known) known.push(n);
    else numbersOf.set(n.belongsTo, [n]);
  }
  const named = (list: readonly { id: string; name: string }[]) => new Map(list.map((o) => [nameKey(o.name), o.id]));
  return {
    plan,
    sites: byId(plan.sites),
    people: byId(plan.people),
    mailboxes: byId(plan.mailboxes),
    numbers: byId(plan.numbers),
    byE164: new Map(plan.numbers.map((n) => [n.e164, n])),
    numbersOf,
    named: { site: named(plan.sites), class: named(plan.classes), team: named(plan.teams) },
    nameOf: new Map([...plan.sites, ...plan.classes, ...plan.teams].map((o) => [o.id, o.name])),
  };
}

export const yesNo = (value: boolean) => (value ? 'yes' : 'no');

/** The cells of an extension as an export writes them; secrets are never among them. */
export function cellsOf(e: Extension, look: Lookup): Record<ColumnKey, string> {
  const person = e.person ? look.people.get(e.person) : undefined;
  const mailbox = e.mailbox ? look.mailboxes.get(e.mailbox) : undefined;
  const name = (id: string) => look.nameOf.get(id) ?? id;
  return {
    digits: e.digits,
    name: e.name,
    kind: e.kind,
    site: name(e.site),
    class: name(e.class),
    person: person?.name ?? '',
    email: person?.email ?? '',
    teams: person?.teams.map(name).join('; ') ?? '',
    language: person?.language ?? '',
    spelling: person?.spelling ?? '',
    numbers: (look.numbersOf.get(e.id) ?? []).map((n) => n.e164).join('; '),
    outgoingNumber: e.outgoingNumber ? look.numbers.get(e.outgoingNumber)!.e164 : '',
    withholdNumber: yesNo(e.withholdNumber),
    ringSeconds: String(e.ringSeconds),
    mailbox: yesNo(mailbox !== undefined),
    pin: '',
    mailTo: mailbox?.email ?? '',
    attachSound: mailbox ? yesNo(mailbox.attachSound) : '',
    afterMail: mailbox?.afterMail ?? '',
    place: e.place,
    sipPassword: '',
    note: e.note,
  };
}

export type Cell<T> = { ok: true; value: T } | { ok: false; sentence: string };
export const right = <T>(value: T): Cell<T> => ({ ok: true, value });
export const wrong = (sentence: string): Cell<never> => ({ ok: false, sentence });

const YES = new Set(['yes', 'y', 'true', '1', 'x', 'ja', 'j', 'on', 'oui', 'si', 'sí']);
const NO = new Set(['no', 'n', 'false', '0', 'nej', 'nein', 'off', 'non', '']);

export function readYesNo(text: string): Cell<boolean> {
  const word = nameKey(text);
  return YES.has(word) ? right(true) : NO.has(word) ? right(false) : wrong(`“${text}” is neither yes nor no.`);
}

/** The id of a thing by its name. */
export function readName(text: string, what: keyof Lookup['named'], look: Lookup): Cell<string> {
  const id = look.named[what].get(nameKey(text));
  if (id) return right(id);
  const names = [...look.named[what].values()]
    .slice(0, 5)
    .map((known) => look.nameOf.get(known))
    .join(', ');
  return wrong(`There is no ${what} “${text}”${names ? `; there is ${names}` : ''}.`);
}

/** A number of the inventory in any spelling that a site writes, or with its country code and the plus lost. */
export function readOwnNumber(text: string, site: Site, look: Lookup): Cell<PlanNumber> {
  const place: NumberPlace = { country: site.country, area: site.area, additions: look.plan.numberAdditions };
  const { e164, why } = readText(text, place);
  const known = look.byE164.get(e164 ?? '') ?? look.byE164.get(`+${text.replace(/[^0-9]/g, '')}`);
  if (known) return right(known);
  return wrong(
    e164
      ? `${showNumber(e164, site.country)} is not one of your numbers; add it under Numbers first.`
      : `${why ?? `“${text}” is no number`}.`,
  );
}
