import type { DraftKind } from '@/core/plan';
import { Refused } from '../../access/rights';

/** An edit that is stale: which, and what stands there now. */
export class Stale extends Refused {
  constructor(kind: DraftKind, id: string, seen: number | null, current: object | null, rowVersion: number | null) {
    super(409, 'stale', 'Somebody was faster.', 'rowVersion', { kind, id, seen, current, rowVersion });
  }
}
