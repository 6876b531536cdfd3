import type { DialCell } from '../cells';
import type { Ending, Landing, Outcome, Then } from '../exchange';
import type { Aspect } from './facts';

/** How a call ends, as it is told beside how it would end. */
export interface End {
  outcome: Outcome;
  lands: Landing | null;
  /** by which it leaves */
  trunk: string | null;
  shownNumber: string | null;
  digitsSent: string | null;
  /** of what is not routed */
  cause: Ending['cause'];
  /** what follows without an answer */
  then: Then[];
  /** seconds until somebody takes it */
  afterSeconds: number;
  /** what is heard and when, to be compared only */
  hearing: string;
}

/** An ending with what is asked of it here. */
export type Told = Ending & {
  secondsWaited: number;
  landedAt: number;
  hearing: string;
  speaks: string;
  passed: readonly string[];
};

export function endOf(told: Told): End {
  const { outcome, lands, trunk, shownNumber, digitsSent, cause, then, secondsWaited, landedAt, hearing } = told;
  return {
    outcome,
    lands,
    // By which trunk a call came is nothing to anybody in it; by which it leaves is.
    trunk: digitsSent === null ? null : trunk,
    shownNumber,
    digitsSent,
    cause,
    then: then.map(({ when, afterSeconds, lands: to }) => ({ when, afterSeconds, lands: to })),
    afterSeconds: Math.max(landedAt, secondsWaited),
    hearing,
  };
}

/** When each thing is heard, and how long: the first two words of each line. */
const TIMES = /^\S+ \S+ /gm;

/** A landing is known by what it is, not by what it is called: a new name changes no call. Where it leaves, by its trunk. */
const landing = (l: Landing | null): string =>
  l === null ? '' : l.kind === 'outside' ? `outside ${l.id}` : `${l.kind} ${l.id ?? l.label}`;

/** What follows without an answer, and when. Who waits until a queue closes does so for as long as that takes, whenever they called. */
function following({ then }: End): string {
  let closes: number | null = null;
  const told = then.map(({ when, afterSeconds, lands }) => {
    if (when === 'closes') closes = afterSeconds;
    const seconds = when === 'closes' ? when : closes === null ? afterSeconds : `closes, then ${afterSeconds - closes}`;
    return [seconds, landing(lands)];
  });
  return JSON.stringify(told);
}

/**
 * In what two ends of a call differ for anybody in it; empty: in nothing. `sent` tells whether the same digits are sent, where
 * that is known for all calls of a cell; else those of these two are compared.
 */
export function differing(was: End, willBe: End, sent?: boolean): Aspect[] {
  const out: Aspect[] = [];
  const ends = (e: End) => `${e.outcome} ${landing(e.lands)} ${JSON.stringify(e.cause)}`;
  if (ends(was) !== ends(willBe)) out.push('end');
  if (following(was) !== following(willBe)) out.push('afterwards');
  if (was.trunk !== willBe.trunk) out.push('trunk');
  if (!(sent ?? was.digitsSent === willBe.digitsSent)) out.push('digits sent');
  if (was.shownNumber !== willBe.shownNumber) out.push('number shown');
  if (was.afterSeconds !== willBe.afterSeconds) out.push('seconds');
  // Where all comes later, so does what is heard: then only what it is counts.
  const heard = (e: End) => (out.length === 0 ? e.hearing : e.hearing.replace(TIMES, ''));
  if (heard(was) !== heard(willBe)) out.push('heard');
  return out;
}

/** What a trunk is sent for the strings of a cell; null where that leads nowhere outside, or something shorter is taken. */
export function sentIn(cell: DialCell, end: End): { put: string; drop: number } | null {
  if (cell.type !== 'rule' || cell.takenEarly || end.trunk === null || end.digitsSent === null) return null;
  return cell.sent[cell.rule.rung.trunks.indexOf(end.trunk)] ?? null;
}
