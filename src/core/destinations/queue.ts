import { agentsOfQueue, levelOf, type Queue } from '../plan';
import { BUSY, NO_ANSWER, UNREACHABLE } from '../exchange/cause';
import { closesAt, hoursNow, noticeAt } from '../exchange/hours-now';
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
import { overAndOver } from './over-and-over';

/** A queue takes a caller on entry, unless it is closed, nobody is signed in or too many wait; then time or a key may lead on. */
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
    const shut = closedNow(object, moment);
    if (shut) return shut;
    const signedIn = signedInAgents(object, moment);
    if (signedIn.length === 0)
      return passes(
        object,
        'nobody signed in',
        `Nobody is signed in to ${object.name}.`,
        leadOr(object.nobodySignedIn, UNREACHABLE),
        'queue-nobody',
      );
    const paused = moment.situation.paused ?? [];
    const free = signedIn.filter(
      (id) => !paused.includes(id) && memberObstacle(moment.exchange.extensions.get(id)!, moment) === null,
    );
    const first = free.filter((id) => levelOf(object, id) === 1).length;
    const waiting = moment.situation.queues?.find((q) => q.id === object.id)?.waiting ?? 0;
    // Whoever would be served at once does not wait: an agent is free for each before and one more (ENGINE E11).
    if (object.mostWaiting !== null && waiting >= object.mostWaiting && first <= waiting)
      return passes(
        object,
        'full',
        `${waiting} callers wait in ${object.name} already; ${object.mostWaiting} may.`,
        leadOr(object.full, BUSY),
        'queue-full',
      );
    return taken(object, moment, { signedIn, free });
  },
  lands: () => true,
  ways(object, _exchange, _part, now) {
    const notice = now?.noticeAt(object.id);
    if (notice?.leadsTo) return [{ when: 'notice', drive: 'none', to: leadOr(notice.leadsTo, UNREACHABLE) }];
    const ways: CourseWayOn[] = [];
    if (object.hours !== null) {
      const hours = now?.hoursAt(object.hours);
      if (hours?.leadsTo) return [{ when: 'notice', drive: 'none', to: leadOr(hours.leadsTo, UNREACHABLE) }];
      const to = leadOr(object.closed, UNREACHABLE);
      if (hours && !hours.open) return [{ when: 'closed', drive: 'none', to }];
      if (!hours) ways.push({ when: 'closed', drive: 'none', to });
      if (object.closingEmpties) ways.push({ when: 'closes', drive: 'wait', to });
    }
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
  return agentsOfQueue(object).filter((id) => object.permanentAgents.includes(id) || here.includes(id));
}

/** What a queue that has hours does while it is closed; null: callers are let in. */
function closedNow(object: Queue, { exchange, situation, at }: Moment): Offer | null {
  if (object.hours === null) return null;
  const now = hoursNow(exchange, situation, object.hours, at);
  const sentence = `${object.name} lets nobody in: ${now.why}.`;
  if (now.leadsTo) return passes(object, 'notice', sentence, leadOr(now.leadsTo, UNREACHABLE), 'notice-leads');
  return now.open ? null : passes(object, 'closed', sentence, leadOr(object.closed, UNREACHABLE), 'queue-closed');
}

function passes(
  object: Queue,
  when: string,
  sentence: string,
  to: WayOn['to'],
  code: 'queue-nobody' | 'queue-full' | 'queue-closed' | 'notice-leads',
): Offer {
  return { landing: null, code, sentence, way: { when, afterSeconds: 0, to, code, sentence } };
}

function taken(
  object: Queue,
  moment: Moment,
  { signedIn, free }: { signedIn: readonly string[]; free: readonly string[] },
): Offer {
  const language = object.language || moment.language;
  const intro = heardPrompt(moment.exchange, object.intro, language);
  const lead = object.introFirst ? (intro?.seconds ?? 0) : 0;
  const also: Offer['also'] = [];
  if (object.recorded)
    also.push({
      code: 'recorded',
      sentence: `Calls in ${object.name} are recorded; ${object.consent ? spoken(moment.exchange, object.consent) : 'the usual phrase'} says so.`,
    });
  if (object.intro)
    also.push({
      code: 'prompt-plays',
      sentence: `${spoken(moment.exchange, object.intro)} plays ${object.introFirst ? 'before agents ring' : 'while agents ring'}.`,
    });
  const before = moment.told ? offeredBefore(object, moment, signedIn) : [];
  if (before.length > 0)
    also.push({
      code: 'queue-before',
      sentence: `Agents of both are offered callers of ${before.join(', ')} first.`,
    });
  const way = endOfWait(object, moment);
  const key = keyPressed(object, moment, way?.afterSeconds ?? null);
  const base = {
    ...(object.language ? { language: object.language } : {}),
    heard: moment.told ? heardWaiting(object, { ...moment, language }, key?.after ?? way?.afterSeconds ?? null) : [],
    code: 'queue-takes' as const,
    sentence: `${object.name} takes the caller: ${whoIsFree(object, signedIn, free)}, calls are offered ${object.strategy} for ${object.ringSeconds} s each${lead > 0 ? ` after ${lead} s` : ''}.`,
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
  return { ...base, landing, way };
}

/** Names of queues whose callers the same agents are offered first (ENGINE E11). */
const offeredBefore = (object: Queue, { exchange }: Moment, signedIn: readonly string[]): string[] =>
  exchange.plan.queues
    .filter((q) => q.priority > object.priority && agentsOfQueue(q).some((a) => signedIn.includes(a)))
    .map((q) => q.name);

/** How many agents are free of those signed in, and who comes in later. */
function whoIsFree(object: Queue, signedIn: readonly string[], free: readonly string[]): string {
  const at = (list: readonly string[], level: number) => list.filter((id) => levelOf(object, id) === level).length;
  const all = at(signedIn, 1);
  const later = [
    { level: 2, after: object.secondAfterSeconds },
    { level: 3, after: object.thirdAfterSeconds },
  ].filter(({ level }) => at(signedIn, level) > 0);
  return [
    `${at(free, 1)} of ${all} ${all === 1 ? 'agent' : 'agents'} free`,
    ...later.map(({ level, after }) => `${at(free, level)} of ${at(signedIn, level)} more after ${after} s`),
  ].join(', ');
}

/** As far as an end of the open time is looked for. */
const DAY_SECONDS = 86_400;

/** What ends the wait of a caller whom nobody answers: the longest wait, or the closing of the queue, whichever comes first. */
function endOfWait(object: Queue, moment: Moment): WayOn | null {
  const longest = object.longestWaitSeconds;
  const empties = object.closingEmpties ? object.hours : null;
  if (empties !== null) moment.exchange.waits?.(empties, moment.at, longest ?? DAY_SECONDS);
  const closes = empties === null ? null : closesAt(moment.exchange, moment.situation, empties, moment.at);
  // The first whole second at which it is closed.
  const until = closes === null ? Infinity : Math.ceil((closes - moment.at) / 1000);
  if (until < (longest ?? Infinity))
    return {
      when: 'closes',
      afterSeconds: until,
      to: leadOr(object.closed, UNREACHABLE),
      code: 'queue-closed',
      sentence: `${object.name} closes after ${until} s, and who waits is sent on.`,
    };
  if (longest === null) return null;
  return {
    when: 'waited too long',
    afterSeconds: longest,
    to: leadOr(object.waitedTooLong, NO_ANSWER),
    code: 'queue-waited',
    sentence: `After ${longest} s the caller leaves ${object.name}.`,
  };
}

/** The first key of the caller that means something here, before the wait is over. */
function keyPressed(
  object: Queue,
  moment: Moment,
  until: number | null,
): { key: string; after: number; taken: number; callback: boolean } | null {
  for (const [i, press] of moment.keys.entries()) {
    const after = press.atSeconds - moment.atSeconds;
    if (after < 0) continue;
    if (until !== null && after >= until) return null;
    const callback = press.key === object.callbackKey && after >= object.callbackAfterSeconds;
    if (callback || press.key === object.exitKey) return { key: press.key, after, taken: i + 1, callback };
  }
  return null;
}

/** Seconds of waiting after which what is said over and over again is not told any more. */
const MOST_TOLD = 600;

/** What a caller hears who waits: the consent, the introduction, then the place in the queue as often as it is said, and the offer to be called back. */
function heardWaiting(object: Queue, { exchange, language, situation }: Moment, until: number | null): OfferedSound[] {
  const end = until ?? Infinity;
  const told = Math.min(end, MOST_TOLD);
  const consent = object.recorded
    ? (heardPrompt(exchange, object.consent, language) ?? heardPhrase(exchange, 'recording', language))
    : null;
  const intro = heardPrompt(exchange, object.intro, language);
  const heard = [...hears(consent, 0, end), ...hears(intro, consent?.seconds ?? 0, end)];
  let spokenUntil = (consent?.seconds ?? 0) + (intro?.seconds ?? 0);
  for (const { at, sound, waits } of sayings(object, { exchange, language, situation }, told)) {
    if (at < spokenUntil && !waits) continue;
    const from = Math.max(at, spokenUntil);
    if (from >= told) continue;
    heard.push(...hears(sound, from, end));
    spokenUntil = from + sound.seconds;
  }
  const music = heardPrompt(exchange, object.music ?? exchange.sites.get(object.site)!.music, language);
  return music ? overAndOver(heard, music, told) : heard;
}

/** Something that is said while somebody waits. */
interface Saying {
  at: number;
  sound: Heard;
  /** it is said later where something else is heard then, instead of not */
  waits: boolean;
}

/** What is said in the order of its time until an end, seconds: the place in the queue again and again, the offer once. */
function sayings(
  object: Queue,
  { exchange, language, situation }: Pick<Moment, 'exchange' | 'language' | 'situation'>,
  until: number,
): Saying[] {
  const { announceEverySeconds: every, callbackKey, callbackAfterSeconds } = object;
  const waiting = situation.queues?.find((q) => q.id === object.id)?.waiting ?? 0;
  const position = heardPhrase(exchange, 'position', language, String(waiting + 1));
  const out: Saying[] = [];
  if (every !== null) for (let at = every; at < until; at += every) out.push({ at, sound: position, waits: false });
  if (callbackKey !== null)
    out.push({
      at: callbackAfterSeconds,
      sound: heardPhrase(exchange, 'callback', language, callbackKey),
      waits: true,
    });
  return out.sort((a, b) => a.at - b.at);
}
