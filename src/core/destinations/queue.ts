import type { Queue } from '../plan';
import { BUSY, NO_ANSWER, UNREACHABLE } from '../exchange/cause';
import { noticeAt } from '../exchange/hours-now';
import { heardPhrase, heardPrompt, spoken, type Heard } from '../exchange/hear';
import {
  hears,
  leadOr,
  type Behaviour,
  type CourseWayOn,
  type Moment,
  type Offer,
  type OfferedSound,
  type WayOn,
} from './offer';
import { memberObstacle } from './member';

/** A queue takes a caller on entry, unless nobody is signed in or too many wait; then time or a key may lead on. */
export const queue: Behaviour<Queue> = {
  offer(object, moment) {
    const notice = noticeAt(moment.exchange, moment.situation, object.id, moment.at);
    if (notice?.leadsTo)
      return passes(
        object,
        'notice',
        `Notice “${notice.name}” holds at ${object.name} and leads elsewhere.`,
        leadOr(notice.leadsTo, UNREACHABLE),
        'notice-leads',
      );
    const signedIn = signedInAgents(object, moment);
    if (signedIn.length === 0)
      return passes(
        object,
        'nobody signed in',
        `Nobody is signed in to ${object.name}.`,
        leadOr(object.nobodySignedIn, UNREACHABLE),
        'queue-nobody',
      );
    const free = signedIn.filter((id) => memberObstacle(moment.exchange.extensions.get(id)!, moment) === null);
    const waiting = moment.situation.queues?.find((q) => q.id === object.id)?.waiting ?? 0;
    // Whoever would be served at once does not wait: an agent is free for each before and one more (ENGINE E11).
    if (object.mostWaiting !== null && waiting >= object.mostWaiting && free.length <= waiting)
      return passes(
        object,
        'full',
        `${waiting} callers wait in ${object.name} already; ${object.mostWaiting} may.`,
        leadOr(object.full, BUSY),
        'queue-full',
      );
    return taken(object, moment, signedIn.length, free.length);
  },
  lands: () => true,
  ways(object, _exchange, _part, now) {
    const notice = now?.noticeAt(object.id);
    if (notice?.leadsTo) return [{ when: 'notice', drive: 'none', to: leadOr(notice.leadsTo, UNREACHABLE) }];
    const ways: CourseWayOn[] = [];
    // Somebody who is always signed in keeps the queue from being empty of agents.
    if (object.permanentAgents.length === 0)
      ways.push({ when: 'nobody signed in', drive: 'none', to: leadOr(object.nobodySignedIn, UNREACHABLE) });
    if (object.mostWaiting !== null) ways.push({ when: 'full', drive: 'none', to: leadOr(object.full, BUSY) });
    if (object.longestWaitSeconds !== null)
      ways.push({ when: 'waited too long', drive: 'wait', to: leadOr(object.waitedTooLong, NO_ANSWER) });
    if (object.exitKey !== null)
      ways.push({ when: `key ${object.exitKey}`, drive: 'caller', to: leadOr(object.exitTo, NO_ANSWER) });
    return ways;
  },
};

/** Permanent agents, and those who signed in; a situation that names nobody has the permanent ones only. */
export function signedInAgents(object: Queue, moment: Pick<Moment, 'situation'>): string[] {
  const here = moment.situation.agents ?? [];
  const list = [...object.permanentAgents, ...object.agents.filter((id) => here.includes(id))];
  return [...new Set(list)];
}

function passes(
  object: Queue,
  when: string,
  sentence: string,
  to: WayOn['to'],
  code: 'queue-nobody' | 'queue-full' | 'notice-leads',
): Offer {
  return { landing: null, code, sentence, way: { when, afterSeconds: 0, to, code, sentence } };
}

function taken(object: Queue, moment: Moment, signedIn: number, free: number): Offer {
  const intro = heardPrompt(moment.exchange, object.intro, moment.language);
  const lead = object.introFirst ? (intro?.seconds ?? 0) : 0;
  const also: Offer['also'] = [];
  if (object.recorded)
    also.push({
      code: 'recorded',
      sentence: `Calls in ${object.name} are recorded; ${spoken(moment.exchange, object.consent)} says so.`,
    });
  if (object.intro)
    also.push({
      code: 'prompt-plays',
      sentence: `${spoken(moment.exchange, object.intro)} plays ${object.introFirst ? 'before agents ring' : 'while agents ring'}.`,
    });
  const key = keyPressed(object, moment);
  const base = {
    heard: heardWaiting(object, moment, key?.after ?? object.longestWaitSeconds),
    code: 'queue-takes' as const,
    sentence: `${object.name} takes the caller: ${free} of ${signedIn} ${signedIn === 1 ? 'agent' : 'agents'} free, calls are offered ${object.strategy} for ${object.ringSeconds} s each${lead > 0 ? ` after ${lead} s` : ''}.`,
    also,
  };
  const landing = { kind: 'queue' as const, id: object.id, digits: object.digits, label: object.name };
  if (key?.callback) {
    also.push({
      code: 'queue-callback',
      sentence: `The caller presses ${key.key} and is called back, keeping the place in ${object.name}.`,
    });
    return { ...base, landing, keysTaken: key.taken, way: null };
  }
  if (key) {
    const sentence = `The caller presses ${key.key} and leaves ${object.name}.`;
    const to = leadOr(object.exitTo, NO_ANSWER);
    return {
      ...base,
      landing: null,
      keysTaken: key.taken,
      way: { when: `key ${key.key}`, afterSeconds: key.after, to, code: 'queue-left', sentence },
    };
  }
  if (object.longestWaitSeconds === null) return { ...base, landing, way: null };
  return {
    ...base,
    landing,
    way: {
      when: 'waited too long',
      afterSeconds: object.longestWaitSeconds,
      to: leadOr(object.waitedTooLong, NO_ANSWER),
      code: 'queue-waited',
      sentence: `After ${object.longestWaitSeconds} s the caller leaves ${object.name}.`,
    },
  };
}

/** The first key of the caller that means something here, before the longest wait is over. */
function keyPressed(
  object: Queue,
  moment: Moment,
): { key: string; after: number; taken: number; callback: boolean } | null {
  for (const [i, press] of moment.keys.entries()) {
    const after = press.atSeconds - moment.atSeconds;
    if (after < 0) continue;
    if (object.longestWaitSeconds !== null && after >= object.longestWaitSeconds) return null;
    const callback = press.key === object.callbackKey && after >= object.callbackAfterSeconds;
    if (callback || press.key === object.exitKey) return { key: press.key, after, taken: i + 1, callback };
  }
  return null;
}

/** Seconds of waiting after which what is said over and over again is not told any more. */
const MOST_TOLD = 600;

/** What a caller hears who waits: the consent, the introduction, then the place in the queue as often as it is said. */
function heardWaiting(object: Queue, { exchange, language, situation }: Moment, until: number | null): OfferedSound[] {
  const end = until ?? Infinity;
  const consent = object.recorded
    ? (heardPrompt(exchange, object.consent, language) ?? heardPhrase(exchange, 'recording', language))
    : null;
  const heard = hears(consent, 0, end);
  heard.push(...hears(heardPrompt(exchange, object.intro, language), consent?.seconds ?? 0, end));
  const every = object.announceEverySeconds;
  const waiting = situation.queues?.find((q) => q.id === object.id)?.waiting ?? 0;
  const position = heardPhrase(exchange, 'position', language, String(waiting + 1));
  const told = Math.min(end, MOST_TOLD);
  if (every !== null) for (let at = every; at < told; at += every) heard.push(...hears(position, at, end));
  const music = heardPrompt(exchange, object.music ?? exchange.sites.get(object.site)!.music, language);
  return music ? withMusic(heard, music, told) : heard;
}

/** Music wherever nothing else is heard, begun anew each time. */
function withMusic(heard: readonly OfferedSound[], music: Heard, end: number): OfferedSound[] {
  const out: OfferedSound[] = [];
  let silent = 0;
  for (const h of [...heard, null]) {
    const until = h ? h.afterSeconds : end;
    if (until > silent) out.push({ ...music, afterSeconds: silent, until });
    if (!h) break;
    out.push(h);
    silent = Math.max(silent, h.until);
  }
  return out;
}
