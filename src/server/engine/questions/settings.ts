import { usedOf } from '@/core/acts/limits';
import { may } from '../../access/rights';
import { findOptions, named } from '../ground/options';
import { keptFor, sightIn, type By, type Given } from '../ground/question';
import type { Option } from '@/contract/shared';
import { isKind, type AnyObject, type RefTarget } from '@/core/plan';
import { directoryOf, writeSheet } from '@/core/acts/import';
import { fitting } from '../ground/ledger';
import type { Extension } from '@/core/plan';
import { Refused } from '../../access/rights';
import type { Card } from '@/core/formats';

/* What settings, pickers and files need of the plan. */

export function organisation({ draft }: Given, { reader }: By) {
  return {
    used: keptFor(draft.plan, 'used', null, () => usedOf(draft.plan)),
    value: draft.plan.organisation,
    rowVersion: draft.rowVersions.of('organisation', 'organisation') ?? 1,
    mayEdit: may(reader, 'edit', { area: 'sites', site: null }),
    sites: named(draft.plan.sites),
  };
}

/** What a reference may point to, found by text. */
export function options({ draft }: Given, { target, text, reader }: By & { target: string; text: string }): Option[] {
  if (target !== 'destination' && !isKind(target))
    throw new Refused(404, 'no-such-kind', `There is no kind of object called ${target}.`);
  return findOptions(sightIn(draft, reader), target as RefTarget, text);
}

interface Chosen extends By {
  filter: string;
  facets: Record<string, string>;
}

const chosen = (given: Given, { filter, facets, reader }: Chosen): Extension[] =>
  fitting(reader, given.draft, 'extension', { filter, sort: '', facets }).map(
    (e) => e.object as AnyObject as Extension,
  );

/** Extensions with their people and mailboxes as rows of a sheet. */
export const sheetRows = (given: Given, input: Chosen): string[][] =>
  writeSheet(given.draft.plan, chosen(given, input));

/** The directory as cards. */
export const cards = (given: Given, input: Chosen): Card[] => directoryOf(given.draft.plan, chosen(given, input));
