import type { Exchange } from '../routing/exchange';
import type { Situation } from '../routing/situation';
import type { Cause } from '../routing/cause';
import type { Landing } from '../routing/answer';
import type { ReasonCode } from '../routing/reasons';

/** Where a call goes on from a destination. */
export type Onward =
  | { type: 'destination'; id: string }
  /** digits as dialled at the owner's phone, by the owner's forwarding */
  | { type: 'forward'; digits: string; owner: string }
  | { type: 'end'; outcome: 'failed' | 'refused'; cause: Cause };

/** A labelled way on: what happened, after how many seconds of being offered the call, and where it leads. */
export interface WayOn {
  when: string;
  afterSeconds: number;
  to: Onward;
  code: ReasonCode;
  sentence: string;
}

/**
 * What a destination does with a call: it either takes it (`landing`) and names the way on if nobody does, or passes it
 * on at once.
 */
export interface Offer {
  landing: Landing | null;
  code: ReasonCode;
  sentence: string;
  /** taken when nobody takes the call here; null when the call ends here for good */
  way: WayOn | null;
}

/** One kind of destination (ENGINE E11): a function from object and situation to what happens. */
export type Behaviour<T> = (object: T, situation: Situation, exchange: Exchange) => Offer;
