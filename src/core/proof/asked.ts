import type { Call, Exchange, Situation } from '../routing';
import { holding, type Act } from './acts';

/** A call in the words of the command line and the Ask line. */
export interface AskedCall {
  /** digits of a phone, `outside:` with a number, or `withheld` */
  from: string;
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
  return {
    from: from.type === 'extension' ? extensions.get(from.id)!.digits : outside,
    dial,
    at: new Date(at).toISOString(),
    enBloc: enBloc ?? false,
    ...(acts.length > 0 ? { situation: holding({}, acts) } : {}),
  };
}
