import type { DraftKind } from '@/core/plan';
import { Refused } from '../../access/rights';

/** What a stale edit met. */
export interface StaleFacts {
  kind: DraftKind;
  id: string;
  /** whether the edit took it for new */
  fresh: boolean;
  /** the object as it stands; null: it is gone */
  current: object | null;
  rowVersion: number | null;
  /** the fields in which somebody else was faster; null: the whole object was to be replaced */
  fields: string[] | null;
}

/** An edit that is stale: which, and what stands there now. */
export class Stale extends Refused {
  constructor(facts: StaleFacts) {
    super(409, 'stale', 'Somebody was faster.', 'rowVersion', { ...facts });
  }
}
