import type { Input } from '@/contract';
import type { FieldFacts } from '@/core/plan';
import type { SheetKind } from '@/core/plan/facts/sheet-kinds';
import { saidOf } from './fact-said';
import type { Option } from './form-data';
import type { Chosen } from './paged-ledger';

/* What many rows may be changed in at once, and what was set of it as the change that the API takes. */

export type BulkLedger = 'person' | 'extension' | 'mailbox' | 'number' | SheetKind;
/** What the fields belong to; `fields` are those of a kind with a ledger of its own. */
type Kind = 'extension' | 'person' | 'mailbox' | 'number' | 'fields';

/** What a bulk change may choose from. */
export interface BulkOptions {
  /** what the rows are called */
  words: string;
  /** by what a reference points to */
  options: Record<string, Option[]>;
  /** what is found by typing */
  long: readonly string[];
  facts: Partial<Record<Kind, FieldFacts[]>>;
}

export type BulkFieldName = `${Kind}.${string}`;

/** What stands in the fields, by kind of object; empty stays as it is. */
export type BulkTyped = Record<Kind, Record<string, string>> & { addTeam: string; removeTeam: string };

interface BulkPart {
  title: string;
  ledgers: readonly BulkLedger[];
  fields: readonly BulkFieldName[];
  teams?: true;
}

/** The groups of fields of the long ledgers. */
const LONG_PARTS: readonly BulkPart[] = [
  {
    title: 'Numbers',
    ledgers: ['number'],
    fields: ['number.state', 'number.activeFrom', 'number.trunk', 'number.site'],
  },
  {
    title: 'Extension and person',
    ledgers: ['person', 'extension'],
    fields: [
      'extension.class',
      'extension.outgoingNumber',
      'extension.withholdNumber',
      'extension.ringSeconds',
      'person.language',
    ],
    teams: true,
  },
  {
    title: 'Mailbox',
    ledgers: ['person', 'extension', 'mailbox'],
    fields: [
      'mailbox.on',
      'mailbox.attachSound',
      'mailbox.afterMail',
      'mailbox.announceNumber',
      'mailbox.announceTime',
      'mailbox.mostMessages',
      'mailbox.longestMessageSeconds',
      'mailbox.greeting',
    ],
  },
];

const ownFields = ({ facts }: BulkOptions) => (facts.fields ?? []).map((f): BulkFieldName => `fields.${f.field}`);
const fieldsIn = (options: BulkOptions) => [...LONG_PARTS.flatMap((p) => p.fields), ...ownFields(options)];
const partsOf = (name: BulkFieldName) => name.split('.') as [Kind, string];

/** The groups of fields of a ledger. */
export function bulkParts(ledger: BulkLedger, options: BulkOptions): readonly BulkPart[] {
  const own = ownFields(options);
  if (own.length > 0) return [{ title: 'Set for all of them', ledgers: [ledger], fields: own }];
  return LONG_PARTS.filter((p) => p.ledgers.includes(ledger));
}

/** Nothing set. */
export function emptyBulk(options: BulkOptions): BulkTyped {
  const typed: BulkTyped = {
    extension: {},
    person: {},
    mailbox: {},
    number: {},
    fields: {},
    addTeam: '',
    removeTeam: '',
  };
  for (const name of fieldsIn(options)) {
    const [kind, field] = partsOf(name);
    typed[kind][field] = '';
  }
  return typed;
}

const NOTHING = 'nothing';

export interface BulkFact {
  fact: FieldFacts;
  list: readonly Option[];
  search: string | undefined;
  /** what may be set besides: that there is none */
  others: readonly Option[];
}

/** A field with what it may be set to. */
export function bulkFact({ facts, options, long }: BulkOptions, name: BulkFieldName): BulkFact {
  const [kind, field] = partsOf(name);
  const fact = facts[kind]!.find((f) => f.field === field)!;
  const list = fact.ref ? options[fact.ref] : null;
  const empties = field === 'language' ? 'the site’s' : fact.nullable && field !== 'activeFrom' ? 'none' : null;
  return {
    fact,
    list: list ?? [],
    search: fact.ref && (!list || long.includes(fact.ref)) ? fact.ref : undefined,
    others: empties === null ? [] : [{ id: NOTHING, label: empties }],
  };
}

/** The rows that were chosen, and what was set as the change of them. */
export function bulkBody(
  ledger: BulkLedger,
  { ids, filter, facets }: Chosen,
  options: BulkOptions,
  typed: BulkTyped,
): Input<'bulk'>['body'] {
  const parts: Record<Kind, Record<string, unknown>> = {
    extension: {},
    person: {},
    mailbox: {},
    number: {},
    fields: {},
  };
  for (const name of fieldsIn(options)) {
    const [kind, field] = partsOf(name);
    const text = typed[kind][field];
    if (!text) continue;
    const none = field === 'language' ? '' : null;
    parts[kind][field] =
      text === NOTHING
        ? none
        : saidOf(
            options.facts[kind]!.find((f) => f.field === field)!,
            text,
          );
  }
  const part = (kind: 'mailbox' | 'number' | 'fields') =>
    Object.keys(parts[kind]).length > 0 ? { [kind]: parts[kind] } : {};
  return {
    of: { ledger, ids, filter: ids ? '' : filter, facets: ids ? {} : facets },
    change: {
      ...parts.extension,
      ...parts.person,
      ...part('mailbox'),
      ...part('number'),
      ...part('fields'),
      ...(typed.addTeam ? { addTeams: [typed.addTeam] } : {}),
      ...(typed.removeTeam ? { removeTeams: [typed.removeTeam] } : {}),
    },
  } as Input<'bulk'>['body'];
}

/** The field that an error of the change belongs to, by its path in the body; null: none. */
export function bulkFieldOf(path: string): BulkFieldName | 'addTeam' | 'removeTeam' | null {
  const at = path.replace(/^change\./, '');
  if (/^addTeams/.test(at)) return 'addTeam';
  if (/^removeTeams/.test(at)) return 'removeTeam';
  if (at.startsWith('fields.')) return at as BulkFieldName;
  const known = LONG_PARTS.flatMap((p) => p.fields);
  return known.find((f) => f === at || f === `extension.${at}` || f === `person.${at}`) ?? null;
}
