import type { SituationPiece } from '@/core/analysis';
import { KINDS, fieldsOf, type LedgerKind, type PlanNumber } from '@/core/plan';
import type { Situation } from '@/core/routing';
import { may } from '../../access/rights';
import { PAGE_ROWS, fitting, ledgerKind, ledgerRows, type LedgerAsk } from '../ground/ledger';
import { landingCells } from '../ground/ledger-cells';
import { byLabel, named } from '../ground/options';
import { sightIn, type By, type Given } from '../ground/question';
import { adding, mayAdd } from './short-ledger';

/* Lists that may be long, by pages. */

/** The first page of a long ledger as its address asks for it, and what adding one needs. */
export function longLedger(
  given: Given,
  input: By & {
    kind: LedgerKind;
    asked: Record<string, string | undefined>;
    addFields: readonly string[];
  },
) {
  const { kind, asked, reader, addFields } = input;
  const { draft } = given;
  const sight = sightIn(draft, reader);
  const facets = Object.entries(KINDS[kind].ledger!.facets).map(([name, { title, from }]) => ({
    name,
    title,
    options:
      typeof from === 'string'
        ? named(sight.list(from as 'site')).sort(byLabel)
        : from.map((c) => ({ id: c, label: c })),
  }));
  const chosen = Object.fromEntries(facets.map((f) => [f.name, asked[f.name] ?? '']));
  const ask = { filter: asked.filter ?? '', sort: asked.sort ?? '', facets: chosen };
  return {
    kind,
    first: ledgerRows(reader, given, kind, ask, ''),
    pageRows: PAGE_ROWS,
    facets: facets.filter((f) => f.options.length > 1),
    canEdit: mayAdd(reader, kind),
    mayBulk: may(reader, 'bulk'),
    account: reader.account,
    add: adding(given, reader, kind, addFields),
    bulk: {
      words: KINDS[kind].words,
      options: {
        class: named(sight.list('class')),
        team: named(sight.list('team')),
        prompt: named(sight.list('prompt')),
        trunk: named(sight.list('trunk')),
        site: named(sight.list('site')),
      },
      long: [],
      facts: {
        extension: fieldsOf('extension'),
        person: fieldsOf('person'),
        mailbox: fieldsOf('mailbox'),
        number: fieldsOf('number'),
      },
    },
  };
}

/** One more page of a long ledger. */
export function ledgerPage(
  given: Given,
  { kind, ask, after, reader }: By & { kind: string; ask: LedgerAsk; after: string },
) {
  return ledgerRows(reader, given, ledgerKind(kind), ask, after);
}

/** Ids of all rows that fit. */
export function ledgerIds(given: Given, { kind, ask, reader }: By & { kind: LedgerKind; ask: LedgerAsk }): string[] {
  return fitting(reader, given, kind, ask).map((e) => e.id);
}

/** Where numbers land, by id: what takes longer than their rows. */
export function landings(
  { draft }: Given,
  {
    ids,
    now,
    situation,
    pieces,
    reader,
  }: By & { ids: readonly string[]; now: number; situation: Situation; pieces: readonly SituationPiece[] },
) {
  const sight = sightIn(draft, reader);
  const numbers = ids.flatMap((id): PlanNumber[] => {
    const n = draft.exchange().numbers.get(id);
    return n && sight.sees('number', n) ? [n] : [];
  });
  return sight.cut(landingCells(draft.exchange(), numbers, now, { situation, pieces }));
}
