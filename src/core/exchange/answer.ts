import type { DestinationKind } from '../plan/destination-kinds';
import type { CallKind } from '../numbers';
import type { MatchState } from '../digits';
import type { Cause } from './cause';
import type { ReasonCode } from './reasons';

/** What a call can land on; `tone` without an id is a release by the exchange. */
export type LandingKind =
  Exclude<DestinationKind, 'outsideNumber' | 'timeSwitch' | 'parkPlace' | 'reachPlan'> | 'outside';

/** Where a call ends up (ENGINE E11). */
export interface Landing {
  kind: LandingKind;
  id: string | null;
  digits: string | null;
  label: string;
}

export interface ObjectRef {
  kind: string;
  id: string;
  label: string;
}

/** A rule that was not taken and why. */
export interface NotTaken {
  rule: string;
  label: string;
  code: ReasonCode;
  why: string;
}

export interface TraceStep {
  type:
    | 'digits'
    | 'rule'
    | 'right'
    | 'number'
    | 'trunk'
    | 'callerId'
    | 'emergency'
    | 'incoming'
    | 'route'
    | 'feature'
    | 'destination'
    | 'end';
  code: ReasonCode;
  atSeconds: number;
  object: ObjectRef | null;
  in: string | null;
  out: string | null;
  sentence: string;
  notTaken: NotTaken[];
}

/** What the exchange knows after each dialled symbol. */
export interface RailCell {
  symbol: string;
  state: MatchState;
}

export type Outcome = 'routed' | 'refused' | 'unroutable' | 'incomplete' | 'failed' | 'loop';

export interface Then {
  when: string;
  afterSeconds: number;
  lands: Landing;
}

/** The answer to one call (ENGINE E13; names and units as in CONTRACT). */
export interface Trace {
  outcome: Outcome;
  lands: Landing | null;
  then: Then[];
  kind: CallKind | null;
  rule: string | null;
  trunk: string | null;
  digitsSent: string | null;
  shownNumber: string | null;
  e164: string | null;
  cause: Cause | null;
  secondsWaited: number;
  rail: RailCell[];
  /** doubts that the call itself shows, such as a caller ID its trunk does not own */
  doubts: string[];
  steps: TraceStep[];
}

/** Who calls. */
export type Caller =
  | { type: 'extension'; id: string }
  | { type: 'trunk'; id: string; calling: string | null }
  /** by whichever trunk owns the dialled number; `calling` null is a withheld number */
  | { type: 'outside'; calling: string | null };

export interface Call {
  from: Caller;
  /** symbols 0-9 * # (and + first, en bloc) */
  dial: string;
  /** true: sent as one block, no timers; false: one symbol after another */
  enBloc: boolean;
  /** moment of the first symbol, milliseconds since 1970 UTC */
  at: number;
  /** the caller hides the number for this call */
  withhold?: boolean;
}
