import { labelOf, type AnyObject, type ObjectKind, type Trunk } from '../plan';
import type { Call, Ending, HeardInTrace, NotTaken, ObjectRef, Outcome, RailCell, TraceStep } from '../exchange/answer';
import type { Exchange } from '../exchange/exchange';
import type { Hearing } from '../exchange/hear';
import type { ReasonCode } from '../exchange/reasons';
import type { Situation } from '../exchange/situation';

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
  asserted: null,
  divertedBy: null,
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

/** What a caller brings along from place to place. */
type Speaking = Pick<Run, 'language' | 'keysUsed'>;

/** One call on its way: what is asked, what holds, and what has been said so far. */
export class Run {
  readonly steps: TraceStep[] = [];
  readonly doubts: string[] = [];
  rail: RailCell[] = [];
  /** seconds since the first symbol */
  atSeconds = 0;
  secondsWaited = 0;
  /** what the caller hears on the way, in order of its beginning */
  readonly heard: HeardInTrace[] = [];
  /** the same to be held against another's: what it is and when, without what is said as it is then; null: nobody asks */
  hearing: Hearing[] | null = null;
  /** phones at which the call was before it landed, that passed it on without ringing */
  readonly passed: string[] = [];
  /** what led it outside, where it landed there: an outside number of the plan; null: digits of a caller or a phone */
  through: string | null = null;
  /** the language that the way speaks from here on; empty: that of the site where the call came in */
  language = '';
  /** what stands before the caller on the phone that gets the call */
  shownName = '';
  /** keys of the situation that were used up */
  keysUsed = 0;
  /** the caller dialled a code that hides the number */
  withheld = false;
  /** somebody took the call: what is waited for from here on belongs to what follows without an answer */
  landed = false;
  /** when that was, in seconds since the first symbol */
  landedAt = 0;
  /** the language that was spoken there and the keys used until then; what is looked at after it does not count */
  atLanding: Speaking = { language: '', keysUsed: 0 };
  /** the same of whoever was sent on last, when that was */
  sentOn: Speaking = { language: '', keysUsed: 0 };
  /** the trunk by which the call came in; null from inside */
  enteredBy: Trunk | null = null;

  constructor(
    public exchange: Exchange,
    readonly call: Call,
    readonly situation: Situation,
    /** false: nobody reads the steps, so none are kept */
    readonly told = true,
    /** every rule that did not fit is told, however many failed for one reason */
    readonly everyRule = false,
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

  /** From here on the call goes on at a moment that does not move with its beginning: nobody is told any more what it asks when. */
  unwatched(): void {
    const { watch, waits } = this.exchange;
    if (watch ?? waits) this.exchange = { ...this.exchange, watch: undefined, waits: undefined };
  }

  wait(seconds: number): void {
    this.atSeconds += seconds;
    if (!this.landed) this.secondsWaited += seconds;
  }

  /** The moment the call has come to, milliseconds since 1970 UTC. */
  get now(): number {
    return this.call.at + this.atSeconds * 1000;
  }

  /** The same call as it stands, for asking what would happen: what is said stays there and nothing is used up. */
  aside(): Run {
    const run = new Run(this.exchange, this.call, this.situation, this.told, this.everyRule);
    run.atSeconds = this.atSeconds;
    run.keysUsed = this.keysUsed;
    run.withheld = this.withheld;
    run.landed = this.landed;
    run.language = this.language;
    return run;
  }
}

const refs = new WeakMap<AnyObject, ObjectRef>();

/** An object of the plan as answers name it; made once, since the label of a number is costly to write. */
export function refTo(kind: ObjectKind, object: AnyObject): ObjectRef {
  let ref = refs.get(object);
  if (!ref) refs.set(object, (ref = { kind, id: object.id, label: labelOf(kind, object) }));
  return ref;
}
