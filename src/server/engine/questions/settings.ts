import { usedOf } from '@/core/acts/limits';
import { may } from '../../access/rights';
import { findOptions, named, optionsFor } from '../ground/options';
import { keptFor, sightIn, type By, type Given } from '../ground/question';
import type { Option } from '@/contract/shared';
import { factsOf, isKind, organisationSchema, type AnyObject, type FieldFacts, type RefTarget } from '@/core/plan';
import { directoryOf, writeSheet } from '@/core/acts/import';
import { writeObjects } from '@/core/acts/sheets';
import type { SheetKind } from '@/core/plan/facts/sheet-kinds';
import { fitting } from '../ground/ledger';
import type { Extension } from '@/core/plan';
import { Refused } from '../../access/rights';
import type { Card } from '@/core/formats';

/* What settings, pickers and files need of the plan. */

const ORGANISATION_FIELDS: FieldFacts[] = Object.entries(organisationSchema.shape).map(([field, schema]) => ({
  field,
  ...factsOf(schema),
}));

export function organisation({ draft }: Given, { reader }: By) {
  return {
    used: keptFor(draft.plan, 'used', [], () => usedOf(draft.plan)),
    form: {
      kind: 'organisation' as const,
      label: draft.plan.organisation.name,
      object: draft.plan.organisation as unknown as Record<string, unknown>,
      rowVersion: draft.rowVersions.of('organisation', 'organisation') ?? 1,
      fields: ORGANISATION_FIELDS,
      ...optionsFor(
        sightIn(draft, reader),
        ORGANISATION_FIELDS.flatMap((f) => f.ref ?? []),
        new Set(
          [draft.plan.organisation.blockedLeadTo, draft.plan.organisation.withheldLeadTo].filter((v) => v !== null),
        ),
      ),
      canEdit: may(reader, 'edit', { area: 'sites', site: null }),
    },
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
  fitting(reader, given, 'extension', { filter, sort: '', facets }).map((e) => e.object as AnyObject as Extension);

/** All objects of a kind that the reader sees as rows of a sheet. */
export const kindRows = ({ draft }: Given, { kind, reader }: By & { kind: SheetKind }): string[][] =>
  writeObjects(kind, (of) => sightIn(draft, reader).list(of) as AnyObject[]);

/** Extensions with their people and mailboxes as rows of a sheet. */
export const sheetRows = (given: Given, input: Chosen): string[][] =>
  writeSheet(given.draft.plan, chosen(given, input));

/** The directory as cards. */
export const cards = (given: Given, input: Chosen): Card[] => directoryOf(given.draft.plan, chosen(given, input));
