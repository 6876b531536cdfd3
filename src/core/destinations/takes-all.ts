import type { ReasonCode } from '../exchange/reasons';
import type { Behaviour } from './offer';

interface Named {
  id: string;
  name: string;
  digits: string | null;
}

/** A place that takes every call, with nothing after it; what it says of itself in a trace. */
export function takesAll<T extends Named>(
  kind: 'conference' | 'fax' | 'pageGroup' | 'tone',
  code: ReasonCode,
  say: (object: T) => string,
): Behaviour<T> {
  return {
    offer: (object) => ({
      landing: { kind, id: object.id, digits: object.digits, label: object.name },
      code,
      sentence: say(object),
      way: null,
    }),
    ways: () => [],
    lands: () => true,
  };
}
