import { isoAt, nextChange, stateAt, type Mode, type Notice } from '../hours';
import type { Announcement, AnyObject, DestinationKind, ObjectKind, ObjectOf } from '../plan';
import type { CompiledHours, Exchange, HoursNow } from './exchange';
import type { Situation } from './situation';

type SituationNotice = NonNullable<Situation['notices']>[number];

/** A notice in force: what it says, what it is called, and where it leads. */
export interface NoticeNow {
  id: string;
  name: string;
  open: boolean;
  leadsTo: string | null;
}

const noticeNow = (n: SituationNotice, exchange: Exchange): NoticeNow => ({
  id: n.id,
  name: n.name ?? n.id,
  open: n.open,
  leadsTo: leadOf(n, exchange),
});

/**
 * Where a notice leads: one that plays something is a place of its own. What the plan doesn't have leads nowhere: the notice was set
 * by what is live, and may be asked of a draft in which that is gone.
 */
function leadOf(n: SituationNotice, exchange: Exchange): string | null {
  if (n.prompt && exchange.prompts.has(n.prompt)) return n.id;
  return n.leadsTo && exchange.destinations.has(n.leadsTo) ? n.leadsTo : null;
}

/** Notices for an hours object, from the top down. */
export function hoursNotices(
  exchange: Exchange,
  situation: Situation,
  hoursId: string,
): (Notice & Pick<NoticeNow, 'leadsTo' | 'name'>)[] {
  if (!situation.notices) return [];
  return situation.notices
    .filter((n) => n.hours === hoursId)
    .map((n) => ({
      ...noticeNow(n, exchange),
      from: Date.parse(n.from),
      until: n.until ? Date.parse(n.until) : null,
    }));
}

/** The notice in force at one number, route, attendant or queue itself; of several the top one (ENGINE E10). */
export function noticeAt(exchange: Exchange, situation: Situation, of: string, at: number): NoticeNow | null {
  if (!situation.notices) return null;
  exchange.watch?.(null, at);
  const found = situation.notices.find(
    (n) => n.of === of && Date.parse(n.from) <= at && (!n.until || at < Date.parse(n.until)),
  );
  return found ? noticeNow(found, exchange) : null;
}

/** Whatever a call can be at: something of the plan, or a notice that plays a prompt and then leads on. */
export function placeOf(exchange: Exchange, situation: Situation, id: string): Place {
  const found = exchange.destinations.get(id);
  if (found) return found;
  const notice = situation.notices!.find((n) => n.id === id)!;
  const prompt = exchange.prompts.get(notice.prompt!)!;
  const leadsTo = notice.leadsTo && exchange.destinations.has(notice.leadsTo) ? notice.leadsTo : null;
  const object: Announcement = {
    id: prompt.id,
    name: notice.name ?? notice.id,
    site: '',
    digits: null,
    note: '',
    prompt: prompt.id,
    leadsTo,
  };
  return { kind: 'announcement', object, named: { kind: 'prompt', object: prompt } };
}

interface Place {
  kind: DestinationKind;
  object: ObjectOf[DestinationKind];
  /** what answers name there, where that is something else */
  named?: { kind: ObjectKind; object: AnyObject };
}

/** The state of an hours object at a moment, with the reason and until when it holds. */
export function hoursNow(exchange: Exchange, situation: Situation, hoursId: string, at: number): HoursNow {
  exchange.watch?.(hoursId, at);
  const object = exchange.hours.get(hoursId)!;
  const notices = hoursNotices(exchange, situation, hoursId);
  const { stretches } = object;
  const next = firstAfter(stretches, at);
  const known = stretches[next - 1];
  if (notices.length === 0 && known && at < known.to) return known.now;
  const change = nextChange(object.hours, notices, at);
  const now = sayHours(object, notices, at, change);
  if (notices.length === 0) {
    // What has no end in sight today may have one when asked later: it is kept for those who ask for the same moment.
    const until = change ?? at + 1;
    if (stretches.length >= MOST_STRETCHES) stretches.length = 0;
    // The same stretch met earlier in it begins with the moment that was asked first.
    const later = stretches[next];
    if (later && later.from < until) later.from = at;
    else stretches.splice(Math.min(next, stretches.length), 0, { from: at, to: until, now });
  }
  return now;
}

/** Stretches of one hours object that are kept: those of about a year. */
const MOST_STRETCHES = 2000;

/** The position of the first stretch that begins after a moment. */
function firstAfter(stretches: readonly { from: number }[], at: number): number {
  let [low, high] = [0, stretches.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (stretches[middle]!.from <= at) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Longest time in which an end of the open time is looked for: nobody waits longer. */
const DAY_MS = 86_400_000;

/**
 * The first moment after this one at which hours that are open are not any more, within a day; null: none. It is asked on behalf
 * of who waits, and decides nothing about where a call comes to: whoever watches what an answer depends on is not told.
 */
export function closesAt(exchange: Exchange, situation: Situation, hoursId: string, at: number): number | null {
  const { hours } = exchange.hours.get(hoursId)!;
  const notices = hoursNotices(exchange, situation, hoursId);
  for (let next = nextChange(hours, notices, at); next !== null; next = nextChange(hours, notices, next)) {
    if (next > at + DAY_MS) return null;
    if (!stateAt(hours, notices, next).open) return next;
  }
  return null;
}

function sayHours(
  { hours, name }: CompiledHours,
  notices: readonly (Notice & Pick<NoticeNow, 'leadsTo' | 'name'>)[],
  at: number,
  change: number | null,
): HoursNow {
  const { open, mode, because } = stateAt(hours, notices, at);
  const notice = mode === 'notice' ? notices.find((n) => n.id === because) : undefined;
  const until = change === null ? '' : ` until ${isoAt(hours.clock, change).slice(0, 16).replace('T', ' ')}`;
  return {
    open,
    mode,
    leadsTo: notice?.leadsTo ?? null,
    notice: notice?.name ?? null,
    why: `${name} ${said(mode, open, notice?.name ?? because)}${until}`,
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
