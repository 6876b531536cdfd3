import type { Call, Exchange, Situation } from '../routing';
import { holding, type Act } from './acts';

/** A call in the words of the command line and the Ask line. */
export interface AskedCall {
  /** digits of a phone, `outside:` with a number, `withheld`, or `trunk:` with its id */
  from: string;
  /** who calls by a trunk, E.164; none: it is withheld, or told by `from` */
  calling?: string;
  dial: string;
  /** ISO 8601 */
  at: string;
  enBloc: boolean;
  situation?: Situation;
}

/** Puts a call with what happens on its way in these words. */
export function asked({ extensions }: Exchange, call: Call, acts: readonly Act[]): AskedCall {
  const { from, dial, at, enBloc } = call;
  const outside = from.type === 'extension' || from.calling === null ? 'withheld' : `outside:${from.calling}`;
  const who = from.type === 'trunk' ? `trunk:${from.id}` : outside;
  return {
    from: from.type === 'extension' ? extensions.get(from.id)!.digits : who,
    ...(from.type === 'trunk' && from.calling !== null ? { calling: from.calling } : {}),
    dial,
    at: new Date(at).toISOString(),
    enBloc: enBloc ?? false,
    ...(acts.length > 0 ? { situation: holding({}, acts) } : {}),
  };
}
