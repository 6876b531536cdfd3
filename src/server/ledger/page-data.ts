import { fieldsOf, type Plan } from '@/core/plan';
import { areaOf } from '../access/areas';
import { may } from '../access/rights';
import { draftPlan } from '../draft';
import { limitUse } from '../draft/limits';
import { optionsFor } from '../options';
import { pageActor } from '../page';
import { PAGE_ROWS, ledgerRows } from './index-of';
import type { LedgerKind } from './sources';

interface FacetData {
  name: string;
  title: string;
  options: { id: string; label: string }[];
}

const list = (name: string, title: string, objects: readonly { id: string; name: string }[]): FacetData => ({
  name,
  title,
  options: [...objects]
    .map((o) => ({ id: o.id, label: o.name }))
    .sort((a, b) => a.label.localeCompare(b.label, undefined, { numeric: true })),
});
const words = (name: string, title: string, choices: readonly string[]): FacetData => ({
  name,
  title,
  options: choices.map((c) => ({ id: c, label: c.replace('-', ' ') })),
});

/** What rows of each kind can be chosen by. */
const FACETS: Record<LedgerKind, (plan: Plan) => FacetData[]> = {
  person: (p) => [list('site', 'Site', p.sites), list('team', 'Team', p.teams), list('class', 'Class', p.classes)],
  extension: (p) => [
    list('site', 'Site', p.sites),
    list('team', 'Team', p.teams),
    list('class', 'Class', p.classes),
    words('kind', 'Kind', ['person', 'place', 'fax', 'virtual']),
  ],
  mailbox: (p) => [list('site', 'Site', p.sites), list('team', 'Team', p.teams)],
  number: (p) => [
    list('site', 'Site', p.sites),
    list('trunk', 'Trunk', p.trunks),
    words('state', 'State', ['reserved', 'active', 'porting-in', 'retired']),
    words('use', 'Use', ['free', 'used']),
  ],
};

/** The first page of a long ledger as its address asks for it, and what adding one needs. */
export async function ledgerPageData(
  kind: LedgerKind,
  asked: Record<string, string | undefined>,
  addFields: readonly string[] = [],
  defaults: Record<string, unknown> = {},
) {
  const actor = await pageActor();
  const draft = await draftPlan();
  const facets = FACETS[kind](draft.plan);
  const chosen = Object.fromEntries(facets.map((f) => [f.name, asked[f.name] ?? '']));
  const ask = { filter: asked.filter ?? '', sort: asked.sort ?? '', facets: chosen };
  const facts = addFields.map((field) => fieldsOf(kind).find((f) => f.field === field)!);
  return {
    kind,
    first: await ledgerRows(actor, draft, kind, ask, null),
    pageRows: PAGE_ROWS,
    facets: facets.filter((f) => f.options.length > 1),
    canEdit: may(actor, 'edit', { area: areaOf(kind), site: null }) || may(actor, 'edit'),
    mayBulk: may(actor, 'bulk'),
    account: actor.account,
    add: {
      limits: kind === 'mailbox' ? (await limitUse(draft.plan)).filter((l) => l.name === 'mailboxes') : [],
      facts,
      ...optionsFor(
        draft.plan,
        facts.flatMap((f) => f.ref ?? []),
      ),
      defaults,
    },
  };
}
