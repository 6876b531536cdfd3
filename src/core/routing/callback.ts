import { CALLED_BACK } from '../destinations';
import { deviceObstacle } from '../destinations/phone';
import type { Extension } from '../plan';
import { readText, type OutsideNumber } from '../numbers';
import type { Ending } from '../exchange/answer';
import { NO_ANSWER } from '../exchange/cause';
import type { Exchange } from '../exchange/exchange';
import type { Situation } from '../exchange/situation';
import type { CameIn } from './leave-through';
import { ending, refTo, type Run } from './run';
import { walk } from './walk';

const CALLBACK_MINUTES = 60;

/**
 * A call back to an emergency call made less than an hour ago (ENGINE E4): to a callback number it reaches the phone that
 * called last, ahead of everything its owner or the plan wants; where that phone is busy or gone, the people whom its site
 * names ring. To a main number it goes its usual way with a mark. Null: its usual way.
 */
export function emergencyCallback(run: Run, called: OutsideNumber, cameIn: CameIn): Ending | null {
  const caller = lastEmergencyCaller(run.exchange, run.situation, called.e164, run.call.at);
  if (!caller) return null;
  const object = refTo('extension', caller);
  if (isMainNumber(run, called.e164!)) {
    const site = run.exchange.sites.get(caller.site)!;
    const told = site.emergencyNotify.length;
    run.step(
      'incoming',
      'emergency-callback-main',
      `${caller.name} made an emergency call with this main number less than an hour ago: ${told === 0 ? 'nobody is named to be' : `${told} ${told === 1 ? 'person is' : 'people are'}`} told, and the call goes its usual way with a mark.`,
      { object },
    );
    return null;
  }
  run.step(
    'incoming',
    'emergency-callback',
    `${caller.name} made an emergency call with this number less than an hour ago: the call goes there, ahead of blocking, hours and wishes.`,
    { object },
  );
  const obstacle = deviceObstacle(caller, phoneMoment(run, cameIn), true);
  if (!obstacle) return walk(run, { type: 'destination', id: caller.id, part: CALLED_BACK }, cameIn);
  return namedPeople(run, caller, obstacle.sentence, cameIn);
}

const phoneMoment = ({ exchange, situation }: Run, { site }: CameIn) => ({ exchange, situation, fromSite: site });

/** The phone that last called the emergency service with a number, within the hour before a moment. */
export function lastEmergencyCaller(
  exchange: Exchange,
  { emergencyCalls }: Situation,
  e164: string | null,
  now: number,
): Extension | null {
  if (!e164 || !emergencyCalls) return null;
  const since = now - CALLBACK_MINUTES * 60_000;
  let last: { at: number; phone: Extension } | null = null;
  for (const made of emergencyCalls) {
    const at = Date.parse(made.at);
    const phone = exchange.extensions.get(made.extension);
    if (!phone || at < since || at > now || (last && at < last.at)) continue;
    const shown = readText(made.shownNumber, exchange.places.get(phone.site)!).e164 ?? made.shownNumber;
    if (shown === e164) last = { at, phone };
  }
  return last?.phone ?? null;
}

function isMainNumber(run: Run, e164: string): boolean {
  const number = run.exchange.numberByE164.get(e164);
  if (!number) return false;
  const { sites, trunks } = run.exchange.plan;
  return sites.some((s) => s.mainNumber === number.id) || trunks.some((t) => t.ownNumber === number.id);
}

/** The people whom the site of a phone names ring together instead of it; null when none of them can. */
function namedPeople(run: Run, caller: Extension, why: string, cameIn: CameIn): Ending | null {
  const { exchange } = run;
  const site = exchange.sites.get(caller.site)!;
  const phones = exchange.plan.extensions.filter(
    (e) => e.person !== null && site.emergencyNotify.includes(e.person) && e.id !== caller.id,
  );
  const ringing = phones.filter((e) => deviceObstacle(e, phoneMoment(run, cameIn), true) === null);
  const names = ringing.map((e) => e.name).join(', ');
  run.step(
    'incoming',
    'emergency-callback-people',
    ringing.length > 0
      ? `${why} The people named for ${site.name} ring instead: ${names}.`
      : `${why} Nobody who is named for ${site.name} can be rung; the call goes its usual way with a mark.`,
    { object: refTo('site', site) },
  );
  const [first] = ringing;
  if (!first) return null;
  const seconds = Math.max(...ringing.map((e) => e.ringSeconds));
  return ending({
    outcome: 'routed',
    lands: { kind: 'extension', id: first.id, digits: first.digits, label: `${first.digits} ${first.name}` },
    then: [
      {
        when: 'no answer',
        afterSeconds: run.atSeconds + seconds,
        lands: { kind: 'tone', id: null, digits: null, label: `released, cause ${NO_ANSWER.q850}` },
      },
    ],
  });
}
