import type { Landing } from '../exchange/answer';
import type { Cause } from '../exchange/cause';
import type { Exchange, HoursNow } from '../exchange/exchange';
import type { Heard } from '../exchange/hear';
import type { NoticeNow } from '../exchange/hours-now';
import type { ReasonCode } from '../exchange/reasons';
import type { Situation } from '../exchange/situation';
import type { Extension } from '../plan';

/** Where a call goes on from a destination. */
export type Onward =
  /** `part`: which step of a reach plan, 1 for just the phone of an extension, or from 10 on a step of its own reach plan */
  | { type: 'destination'; id: string; part?: number }
  /** digits that the caller dials on from here, as at a phone of the place’s site (ENGINE E6 b) */
  | { type: 'dialled'; digits: string; from: string }
  /** digits as dialled at the owner's phone, by the owner's forwarding */
  | { type: 'forward'; digits: string; owner: string; untaken?: Untaken }
  | { type: 'end'; outcome: 'failed' | 'refused'; cause: Cause };

/** Where a forwarded call goes on when the outside phone does not press the key to take it. */
export interface Untaken {
  afterSeconds: number;
  to: Onward;
}

/** A labelled way on: what happened, after how many seconds of being offered the call, and where it leads. */
export interface WayOn {
  when: string;
  afterSeconds: number;
  to: Onward;
  code: ReasonCode;
  sentence: string;
}

/** A leg that leaves the building, as a phone of the site would dial it. */
export interface OutsideLeg {
  dial: string;
  /** the outside number of the plan that dials; null: digits that the owner set themselves */
  number: string | null;
  /** the extension on whose behalf, where there is one */
  owner: string | null;
  /** false: the original caller is never shown */
  showsCaller: boolean;
}

/** Something heard at a place. */
export interface OfferedSound extends Heard {
  afterSeconds: number;
  until: number;
}

/** A sound from a moment on, to its end or to an earlier one; nothing for nothing. */
export function hears(sound: Heard | null, afterSeconds: number, until = Infinity): OfferedSound[] {
  if (sound === null) return [];
  const { prompt, phrase, language, text, seconds, figure, sound: recording } = sound;
  const ends = Math.min(until, afterSeconds + seconds);
  return [{ prompt, phrase, language, text, seconds, figure, sound: recording, afterSeconds, until: ends }];
}

/**
 * What a destination does with a call: it either takes it (`landing`, or `outside` where that leg is permitted) and names
 * the way on if nobody does, or passes it on at once.
 */
export interface Offer {
  landing: Landing | null;
  outside?: OutsideLeg;
  code: ReasonCode;
  sentence: string;
  /** what else is said or happens here, before the way on */
  also?: { code: ReasonCode; sentence: string }[];
  /** what the caller hears here, in seconds since the call came; `until` where a key or the way on stops it */
  heard?: OfferedSound[];
  /** the language that the call speaks from here on; left out: as before */
  language?: string;
  /** what stands before the caller on the phone that gets the call from here; left out: as before */
  shownName?: string;
  /** key presses of the caller that were used here */
  keysTaken?: number;
  /** taken when nobody takes the call here; null when the call ends here for good */
  way: WayOn | null;
}

/** The call as a destination meets it. */
export interface Moment {
  exchange: Exchange;
  situation: Situation;
  /** when it arrives, milliseconds since 1970 UTC, and seconds since the first symbol */
  at: number;
  atSeconds: number;
  /** whether the caller is outside */
  outside: boolean;
  /** whether that caller hides the number */
  withheld: boolean;
  /** the site from which the call reaches us: the caller's, or that of the trunk it came by */
  fromSite: string;
  /** the language that the call speaks (BCP 47) */
  language: string;
  /** keys that the caller still presses, in order, in seconds since the first symbol */
  keys: readonly { atSeconds: number; key: string }[];
  /** by which way the call came here, as that is labelled; empty: straight from where it came in */
  when: string;
  /** whether anybody asks what is heard; else offers need not say it */
  told: boolean;
  /** why an outside phone would not ring, in a sentence: no rule takes it, a right is missing, no trunk; null when it does */
  barred(leg: OutsideLeg): string | null;
  /** the place of ours that digits reach from a phone of ours; null: they lead outside, or nowhere */
  insideOf(owner: Extension, digits: string): string | null;
}

/** Whose calls come to a place: those of outside callers, or anybody’s. */
export type Callers = 'outside' | 'anybody';

/** What holds at the one moment that a course is asked for. */
export interface CourseNow {
  hoursAt(hoursId: string): HoursNow;
  /** the notice in force at a number, route, attendant or queue itself */
  noticeAt(id: string): NoticeNow | null;
  situation: Situation;
}

/** What makes a call take a way: nothing, ringing, waiting, a key of the caller, or an answer. Cycles are judged by it. */
export type Drive = 'none' | 'ring' | 'wait' | 'caller' | 'answered';

/** One of all the ways on that a destination can take, whatever the situation. */
export interface CourseWayOn {
  when: string;
  to: Onward;
  drive: Drive;
}

/** One kind of destination (ENGINE E11). */
export interface Behaviour<T> {
  /** what happens to one call in one situation; `part` as in Onward */
  offer(object: T, moment: Moment, part: number): Offer;
  /**
   * All ways on, for the course; personal forwarding is no part of the plan and not among them. `now` is what holds when only
   * one moment is asked about, null where every mode is possible; `callers` says whose calls come there.
   */
  ways(object: T, exchange: Exchange, part: number, now: CourseNow | null, callers: Callers): CourseWayOn[];
  /** whether calls can end here */
  lands(object: T, exchange: Exchange, part: number): boolean;
}

/** A way to a destination, or to the end of the call when none is set. */
export function leadOr(id: string | null, cause: Cause): Onward {
  return id ? { type: 'destination', id } : { type: 'end', outcome: 'failed', cause };
}
