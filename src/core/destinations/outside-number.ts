import type { OutsideNumber } from '../plan';
import type { Behaviour } from './offer';

/** An outside number of the plan: the call leaves by the ladder of its site. */
export const outsideNumber: Behaviour<OutsideNumber> = {
  offer: (object) => ({
    landing: null,
    outside: { dial: object.dial, number: object.id, owner: null, showsCaller: true },
    code: 'leads-outside',
    sentence: `${object.name} leads outside: ${object.dial} is dialled.`,
    way: null,
  }),
  ways: () => [],
  lands: () => true,
};
