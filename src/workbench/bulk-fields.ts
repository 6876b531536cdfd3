import type { Input } from '@/contract';
import type { FieldFacts } from '@/core/plan';
import { saidOf } from './fact-said';
import type { Option } from './form-data';
import type { Chosen } from './paged-ledger';

/* What many rows may be changed in at once, and what was set of it as the change that the API takes. */

export type BulkLedger = 'person' | 'extension' | 'mailbox' | 'number';
type Kind = 'extension' | 'person' | 'mailbox' | 'number';

/** What a bulk change may choose from. */
export interface BulkOptions {
  classes: Option[];
  teams: Option[];
  prompts: Option[];
  trunks: Option[];
  sites: Option[];
  facts: Record<Kind, FieldFacts[]>;
}

export type BulkFieldName = `${Kind}.${string}`;

/** What stands in the fields, by kind of object; empty stays as it is. */
export type BulkTyped = Record<Kind, Record<string, string>> & { addTeam: string; removeTeam: string };

/** The groups of fields, with the ledgers that have them. */
export const BULK_PARTS: readonly {
  title: string;
  ledgers: readonly BulkLedger[];
  fields: readonly BulkFieldName[];
  teams?: true;
}[] = [
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

const FIELDS = BULK_PARTS.flatMap((p) => p.fields);
const partsOf = (name: BulkFieldName) => name.split('.') as [Kind, string];

/** Nothing set. */
export function emptyBulk(): BulkTyped {
  const typed: BulkTyped = { extension: {}, person: {}, mailbox: {}, number: {}, addTeam: '', removeTeam: '' };
  for (const name of FIELDS) {
    const [kind, field] = partsOf(name);
    typed[kind][field] = '';
  }
  return typed;
}

/** Where what a field may refer to stands among the options; other references are found by typing. */
const LISTS = { class: 'classes', prompt: 'prompts', trunk: 'trunks', site: 'sites' } as const;
const NOTHING = 'nothing';

export interface BulkFact {
  fact: FieldFacts;
  list: readonly Option[];
  search: string | undefined;
  /** what may be set besides: that there is none */
  others: readonly Option[];
}

/** A field with what it may be set to. */
export function bulkFact({ facts, ...options }: BulkOptions, name: BulkFieldName): BulkFact {
  const [kind, field] = partsOf(name);
  const fact = facts[kind].find((f) => f.field === field)!;
  const list = fact.ref && fact.ref in LISTS ? options[LISTS[fact.ref as keyof typeof LISTS]] : null;
  const empties = field === 'language' ? 'the site’s' : fact.nullable && field !== 'activeFrom' ? 'none' : null;
  return {
    fact,
    list: list ?? [],
    search: fact.ref && !list ? fact.ref : undefined,
    others: empties === null ? [] : [{ id: NOTHING, label: empties }],
  };
}

/** The rows that were chosen, and what was set as the change of them. */
export function bulkBody(
  ledger: BulkLedger,
  { ids, filter, facets }: Chosen,
  { facts }: BulkOptions,
  typed: BulkTyped,
): Input<'bulk'>['body'] {
  const parts: Record<Kind, Record<string, unknown>> = { extension: {}, person: {}, mailbox: {}, number: {} };
  for (const name of FIELDS) {
    const [kind, field] = partsOf(name);
    const text = typed[kind][field];
    if (!text) continue;
    const none = field === 'language' ? '' : null;
    parts[kind][field] =
      text === NOTHING
        ? none
        : saidOf(
            facts[kind].find((f) => f.field === field)!,
            text,
          );
  }
  const part = (kind: 'mailbox' | 'number') => (Object.keys(parts[kind]).length > 0 ? { [kind]: parts[kind] } : {});
  return {
    of: { ledger, ids, filter: ids ? '' : filter, facets: ids ? {} : facets },
    change: {
      ...parts.extension,
      ...parts.person,
      ...part('mailbox'),
      ...part('number'),
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
  return FIELDS.find((f) => f === at || f === `extension.${at}` || f === `person.${at}`) ?? null;
}
