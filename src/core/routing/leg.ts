import type { Extension, OutsideNumber, Trunk } from '../plan';

/** The extension that the digits and numbers of a leg are those of; an outside number of the plan stands for one. */
export type LegOwner = Pick<
  Extension,
  'id' | 'name' | 'digits' | 'site' | 'person' | 'outgoingNumber' | 'withholdNumber'
>;

/** A right that a leg needs (ENGINE E6): of which class, for whom, and which of the three. */
export interface LegRight {
  class: string;
  who: string;
  right: 'allow' | 'forward' | 'transfer';
  /** whether the PIN that the class may ask for is asked */
  asksPin: boolean;
}

/** One call on its way out: who it is for, on whose behalf, what it needs. */
export interface Leg {
  /** whose numbers are shown; null for digits that an outside caller chose */
  owner: LegOwner | null;
  /** who calls, as the *for* and *not for* lists of rules see it (ENGINE E6) */
  caller: Caller;
  /** the site from which it comes, for links and codecs (ENGINE E7) */
  fromSite: string;
  rights: readonly LegRight[];
  /** forwarded, so that it carries the original caller or a mark */
  diverted: boolean;
  /** whether the original caller may be shown at all */
  showsCaller: boolean;
  /** calling number of an outside caller; null when withheld or when there is none */
  original: string | null;
  /** the trunk by which the call came in; null for a call from inside */
  entered: Trunk | null;
  /** it needs transit of both trunks (ENGINE E6 b) */
  transit: boolean;
}

/** Who calls, for lists of rules; an outside caller stands at the site of the trunk it came by. */
export type Caller = Pick<Extension, 'person' | 'site'>;

/** An outside number of the plan as the owner of the leg that it dials. */
export const ownerFrom = (number: OutsideNumber): LegOwner => ({
  id: number.id,
  name: number.name,
  digits: number.digits ?? '',
  site: number.site,
  person: null,
  outgoingNumber: null,
  withholdNumber: false,
});
