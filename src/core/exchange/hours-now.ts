import { isoAt, nextChange, stateAt, type Mode, type Notice } from '../hours';
import type { Exchange } from './exchange';
import type { Situation } from './situation';

/** What an hours object of the plan says of a moment, and why in words. */
export interface HoursNow {
  open: boolean;
  mode: Mode;
  /** a notice's own destination */
  leadsTo: string | null;
  why: string;
}

/** Notices in force for an hours object, from the top down. */
export function noticesFor(situation: Situation, hoursId: string): (Notice & { leadsTo: string | null })[] {
  return (situation.notices ?? [])
    .filter((n) => n.hours === hoursId)
    .map((n) => ({
      id: n.id,
      from: Date.parse(n.from),
      until: n.until ? Date.parse(n.until) : null,
      open: n.open,
      leadsTo: n.leadsTo ?? null,
    }));
}

/** The notice in force at one number, route, attendant or queue itself; of several the top one (ENGINE E10). */
export function noticeAt(
  situation: Situation,
  of: string,
  at: number,
): { id: string; open: boolean; leadsTo: string | null } | null {
  const found = situation.notices?.find(
    (n) => n.of === of && Date.parse(n.from) <= at && (!n.until || at < Date.parse(n.until)),
  );
  return found ? { id: found.id, open: found.open, leadsTo: found.leadsTo ?? null } : null;
}

/** The state of an hours object at a moment, with the reason and until when it holds. */
export function hoursNow(exchange: Exchange, situation: Situation, hoursId: string, at: number): HoursNow {
  const object = exchange.hours.get(hoursId)!;
  const { hours, name } = object;
  const notices = noticesFor(situation, hoursId);
  let stretch = notices.length === 0 ? object.stretch : null;
  if (!stretch || at < stretch.from || at >= stretch.to) {
    const change = nextChange(hours, notices, at);
    stretch = { from: at, to: change ?? Infinity, state: stateAt(hours, notices, at) };
    // What has no end in sight today may have one when asked later: only a stretch with an end is kept.
    if (notices.length === 0 && change !== null) object.stretch = stretch;
  }
  const { open, mode, because } = stretch.state;
  const leadsTo = mode === 'notice' ? (notices.find((n) => n.id === because)?.leadsTo ?? null) : null;
  const until =
    stretch.to === Infinity ? '' : ` until ${isoAt(hours.clock, stretch.to).slice(0, 16).replace('T', ' ')}`;
  return { open, mode, leadsTo, why: `${name} ${said(mode, open, because)}${until}` };
}

function said(mode: Mode, open: boolean, because: string | null): string {
  const word = open ? 'is open' : 'is closed';
  switch (mode) {
    case 'holiday':
      return `is closed for ${because}`;
    case 'exception':
      return `${word} by an exception`;
    case 'notice':
      return `${word} by notice ${because}`;
    default:
      return word;
  }
}
