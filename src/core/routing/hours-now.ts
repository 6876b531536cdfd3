import { isoAt, nextChange, stateAt, type Hours, type Mode, type Notice } from '../hours';
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

/** The state of an hours object at a moment, with the reason and until when it holds. */
export function hoursNow(exchange: Exchange, situation: Situation, hoursId: string, at: number): HoursNow {
  const { hours, name } = exchange.hours.get(hoursId)!;
  const notices = noticesFor(situation, hoursId);
  const state = stateAt(hours, notices, at);
  const leadsTo = state.mode === 'notice' ? (notices.find((n) => n.id === state.because)?.leadsTo ?? null) : null;
  return {
    open: state.open,
    mode: state.mode,
    leadsTo,
    why: `${name} ${said(state.mode, state.open, state.because)}${until(hours, notices, at)}`,
  };
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

function until(hours: Hours, notices: readonly Notice[], at: number): string {
  const change = nextChange(hours, notices, at);
  return change === null ? '' : ` until ${isoAt(hours.clock, change).slice(0, 16).replace('T', ' ')}`;
}
