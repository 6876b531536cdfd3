import type { MenuResult } from './menu';
import { heardPhrase } from '../exchange/hear';
import { hears, type Moment, type Offer, type OfferedSound, type Onward } from './offer';

/** Most names that are read out for a choice. */
export const MOST_READ_OUT = 9;
/** Seconds a caller has to choose among names read out, for each of them. */
const SECONDS_A_NAME = 3;

export interface ChosenPerson {
  to: Onward | null;
  afterSeconds: number;
  keysTaken: number;
  sentence: string;
  also: NonNullable<Offer['also']>;
  heard: OfferedSound[];
}

/** The person behind a spelt name: the only one, or the one chosen by number when several are read out. */
export function choosePerson(result: Extract<MenuResult<string>, { type: 'chosen' }>, moment: Moment): ChosenPerson {
  const ids = [...new Set(result.all.map((r) => r.leads))];
  const nameOf = (id: string) => moment.exchange.extensions.get(id)!.name;
  const to = (id: string): Onward => ({ type: 'destination', id });
  const base = { afterSeconds: result.afterSeconds, keysTaken: result.keysTaken, also: [], heard: [] };
  if (ids.length === 1) return { ...base, to: to(ids[0]!), sentence: `${result.digits} spells ${nameOf(ids[0]!)}.` };
  const offered = ids.slice(0, MOST_READ_OUT);
  const list = offered.map((id, i) => `${i + 1} ${nameOf(id)}`).join(', ');
  const also = [
    {
      code: 'names-read-out' as const,
      sentence: `${result.digits} spells ${ids.length} names; they are read out: ${list}.`,
    },
  ];
  const heardUntil = moment.atSeconds + result.afterSeconds + offered.length * SECONDS_A_NAME;
  const press = moment.keys[result.keysTaken];
  const choice = press && press.atSeconds <= heardUntil + SECONDS_A_NAME ? offered[Number(press.key) - 1] : undefined;
  const names = {
    ...heardPhrase(moment.exchange, 'names', moment.language),
    text: list,
    seconds: offered.length * SECONDS_A_NAME,
    sound: null,
  };
  const stopped = choice ? press!.atSeconds - moment.atSeconds : Infinity;
  const heard = hears(names, result.afterSeconds, stopped);
  if (!press || !choice)
    return {
      ...base,
      also,
      heard,
      to: null,
      afterSeconds: heardUntil - moment.atSeconds,
      sentence: 'None of the names is chosen.',
    };
  return {
    also,
    heard,
    to: to(choice),
    afterSeconds: press.atSeconds - moment.atSeconds,
    keysTaken: result.keysTaken + 1,
    sentence: `The caller chooses ${nameOf(choice)}.`,
  };
}
