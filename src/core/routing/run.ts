import type { CallKind } from '../numbers';
import { labelOf, type AnyObject, type ObjectKind } from '../plan';
import type { Call, Landing, NotTaken, ObjectRef, Outcome, RailCell, Then, TraceStep } from '../exchange/answer';
import type { Cause } from '../exchange/cause';
import type { Exchange } from '../exchange/exchange';
import type { ReasonCode } from '../exchange/reasons';
import type { Situation } from '../exchange/situation';

/** How one call ended, before steps and rail are added. */
export interface Ending {
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
}

const NOTHING: Ending = {
  outcome: 'failed',
  lands: null,
  then: [],
  kind: null,
  rule: null,
  trunk: null,
  digitsSent: null,
  shownNumber: null,
  e164: null,
  cause: null,
};

/** An ending with the given parts; the rest is null. */
export const ending = (parts: Partial<Ending> & { outcome: Outcome }): Ending => ({ ...NOTHING, ...parts });

/** What is said in a step beyond its type, reason and sentence. */
interface StepDetail {
  object?: ObjectRef | null;
  in?: string | null;
  out?: string | null;
  notTaken?: NotTaken[];
}

/** One call on its way: what is asked, what holds, and what has been said so far. */
export class Run {
  readonly steps: TraceStep[] = [];
  readonly doubts: string[] = [];
  rail: RailCell[] = [];
  /** seconds since the first symbol */
  atSeconds = 0;
  secondsWaited = 0;
  /** keys of the situation that were used up */
  keysUsed = 0;
  /** the caller dialled a code that hides the number */
  withheld = false;

  constructor(
    readonly exchange: Exchange,
    readonly call: Call,
    readonly situation: Situation,
    /** false: nobody reads the steps, so none are kept */
    readonly told = true,
  ) {}

  step(type: TraceStep['type'], code: ReasonCode, sentence: string, detail: StepDetail = {}): void {
    if (!this.told) return;
    this.steps.push({
      type,
      code,
      atSeconds: this.atSeconds,
      object: detail.object ?? null,
      in: detail.in ?? null,
      out: detail.out ?? null,
      sentence,
      notTaken: detail.notTaken ?? [],
    });
  }

  /** Keys that the caller still presses, in order. */
  keysLeft(): { atSeconds: number; key: string }[] {
    const { keys } = this.situation;
    if (!keys) return [];
    return [...keys].sort((a, b) => a.atSeconds - b.atSeconds).slice(this.keysUsed);
  }

  wait(seconds: number): void {
    this.atSeconds += seconds;
    this.secondsWaited += seconds;
  }
}

const refs = new WeakMap<AnyObject, ObjectRef>();

/** An object of the plan as answers name it; made once, since the label of a number is costly to write. */
export function refTo(kind: ObjectKind, object: AnyObject): ObjectRef {
  let ref = refs.get(object);
  if (!ref) refs.set(object, (ref = { kind, id: object.id, label: labelOf(kind, object) }));
  return ref;
}
