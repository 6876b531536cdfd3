import type { DialCell } from '../cells';
import type { Ending, Landing, Outcome, Then } from '../exchange';
import { isHeardAlike, type Hearing } from '../exchange/hear';
import type { Landed } from '../routing';
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
  hearing: readonly Hearing[];
}

export function endOf(told: Landed): End {
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

/** A landing is known by what it is, not by what it is called: a new name changes no call. Where it leaves, by its trunk. */
const isSameLanding = (a: Landing | null, b: Landing | null): boolean =>
  a === null || b === null
    ? a === b
    : a.kind === b.kind && (a.kind === 'outside' ? a.id === b.id : (a.id ?? a.label) === (b.id ?? b.label));

/** What follows without an answer, and when. Who waits until a queue closes does so for as long as that takes, whenever they called. */
function followsAlike({ then: one }: End, { then: other }: End): boolean {
  if (one.length !== other.length) return false;
  let closes: readonly [number, number] | null = null;
  for (let i = 0; i < one.length; i++) {
    const [a, b] = [one[i]!, other[i]!];
    if (!isSameLanding(a.lands, b.lands)) return false;
    const isClosing = a.when === 'closes';
    if (isClosing !== (b.when === 'closes')) return false;
    const [from, to]: readonly [number, number] = closes ?? [0, 0];
    if (isClosing) closes = [a.afterSeconds, b.afterSeconds];
    else if (a.afterSeconds - from !== b.afterSeconds - to) return false;
  }
  return true;
}

const isSameCause = (a: Ending['cause'], b: Ending['cause']): boolean =>
  a === b || (a !== null && b !== null && a.q850 === b.q850 && a.sip === b.sip);

/**
 * In what two ends of a call differ for anybody in it; empty: in nothing. `sent` tells whether the same digits are sent, where
 * that is known for all calls of a cell; else those of these two are compared.
 */
export function differing(was: End, willBe: End, sent?: boolean): Aspect[] {
  const out: Aspect[] = [];
  const isSameEnd =
    was.outcome === willBe.outcome && isSameLanding(was.lands, willBe.lands) && isSameCause(was.cause, willBe.cause);
  if (!isSameEnd) out.push('end');
  if (!followsAlike(was, willBe)) out.push('afterwards');
  if (was.trunk !== willBe.trunk) out.push('trunk');
  if (!(sent ?? was.digitsSent === willBe.digitsSent)) out.push('digits sent');
  if (was.shownNumber !== willBe.shownNumber) out.push('number shown');
  if (was.afterSeconds !== willBe.afterSeconds) out.push('seconds');
  // Where all comes later, so does what is heard: then only what it is counts.
  if (!isHeardAlike(was.hearing, willBe.hearing, out.length === 0)) out.push('heard');
  return out;
}

/** What a trunk is sent for the strings of a cell; null where that leads nowhere outside, or something shorter is taken. */
export function sentIn(cell: DialCell, end: End): { put: string; drop: number } | null {
  if (cell.type !== 'rule' || cell.takenEarly || end.trunk === null || end.digitsSent === null) return null;
  return cell.sent[cell.rule.rung.trunks.indexOf(end.trunk)] ?? null;
}
