import { firstBadSymbol } from '../digits';
import { dialledFromOutside, type Call, type Exchange } from '../routing';
import { readCaller } from './caller';
import type { AskParts } from './split';
import { readWhen } from './when';

/** The parts of a question as they come from a form, the command line or the API. */
export interface Question extends AskParts {
  /** calling number for `trunk:ID` */
  calling?: string | null;
  enBloc?: boolean;
  withhold?: boolean;
}

export type CallResult =
  | { ok: true; call: Call; zone: string }
  | { ok: false; path: 'from' | 'dial' | 'at' | 'calling'; sentence: string; offset?: number };

/**
 * A question as a call. Time without an offset is wall time at the caller's site, or where the dialled number belongs for
 * callers from outside. `now` is milliseconds since 1970 UTC.
 */
export function readCall(question: Question, exchange: Exchange, now: number): CallResult {
  const from = readCaller(question.from, exchange, question.calling ?? null);
  if (!from.ok) return { ok: false, path: 'from', sentence: from.sentence };
  const calling = question.calling ?? null;
  if (calling !== null && from.caller.type !== 'trunk')
    return { ok: false, path: 'calling', sentence: 'A calling number goes with a trunk only, as in trunk:ID.' };
  if (calling !== null && !/^\+?[0-9*#][0-9*#\s\-./()]{0,40}$/.test(calling))
    return {
      ok: false,
      path: 'calling',
      sentence: `“${calling.slice(0, 40)}” is no calling number: digits, with + in front where it is international.`,
    };
  const outside = from.caller.type === 'outside';
  const dial = outside ? question.dial.trim() : question.dial.replace(/[\s\-./()]/g, '');
  if (!outside) {
    const bad = firstBadSymbol(dial);
    if (bad >= 0)
      return { ok: false, path: 'dial', offset: bad, sentence: `“${dial[bad]}” can't be dialled; 0-9, * and # can.` };
    if (dial.length > 32)
      return { ok: false, path: 'dial', offset: 32, sentence: 'More than 32 symbols can’t be dialled.' };
  }
  const zone = zoneOf(exchange, from.site, dial);
  const when = readWhen(question.when, zone, now, exchange.plan.organisation.dayOrder);
  if (!when.ok) return { ok: false, path: 'at', sentence: when.sentence };
  const enBloc = question.enBloc ?? from.caller.type !== 'extension';
  return {
    ok: true,
    zone,
    call: { from: from.caller, dial, enBloc, at: when.at, withhold: question.withhold ?? false },
  };
}

function zoneOf(exchange: Exchange, site: string | null, dial: string): string {
  const first = exchange.plan.sites[0];
  if (site) return exchange.sites.get(site)!.zone;
  if (!first) return 'UTC';
  const { number } = dialledFromOutside(exchange, dial);
  return (number ? exchange.sites.get(number.site)! : first).zone;
}
