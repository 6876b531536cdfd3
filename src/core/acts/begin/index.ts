/** What an organisation begins with. */
import { v7 as uuid } from 'uuid';
import type { DayOrder, DraftKind } from '../../plan';
import { emptyPlan } from '../../plan';
import { proposeSite } from '../sites';

/** What somebody says who begins with nothing. */
export interface Beginning {
  organisation: { name: string; language: string; dayOrder: DayOrder };
  site: { name: string; country: string; zone: string; address: string; area: string | null };
}

/** Kinds of calls that the first class lets people make: none that costs much. */
const STAFF = ['internal', 'service', 'local', 'national', 'mobile', 'freephone', 'shared-cost', 'private'];

export interface FirstObject {
  kind: DraftKind;
  id: string;
  value: Record<string, unknown>;
}

/**
 * The organisation, its first site with what the country proposes (outside prefix, emergency numbers, digits), a class of
 * service for those who work there, and the ladder that calls of the site will leave by.
 */
export function firstObjects({ organisation, site }: Beginning): FirstObject[] {
  const [classId, ladder, siteId] = [uuid(), uuid(), uuid()];
  const { language, outsidePrefix, range } = proposeSite(emptyPlan(organisation.name), site.country);
  const rights = Object.fromEntries(
    STAFF.map((k) => [k, { allow: true, pin: false, forward: false, transfer: false }]),
  );
  return [
    { kind: 'organisation', id: 'organisation', value: organisation },
    { kind: 'class', id: classId, value: { id: classId, name: 'Staff', rights } },
    { kind: 'ladder', id: ladder, value: { id: ladder, name: `Outbound from ${site.name}`.slice(0, 80) } },
    {
      kind: 'site',
      id: siteId,
      value: {
        ...site,
        id: siteId,
        language: organisation.language || language,
        outsidePrefix: outsidePrefix || null,
        ranges: range ? [range] : [],
        ladder,
      },
    },
  ];
}
