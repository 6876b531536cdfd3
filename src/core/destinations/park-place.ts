import type { ParkPlace } from '../plan';
import { NO_ANSWER } from '../exchange/cause';
import { leadOr, type Behaviour } from './offer';

/** A park place holds a call until it is fetched; nobody fetched it: it returns. */
export const parkPlace: Behaviour<ParkPlace> = {
  offer: (object) => ({
    landing: null,
    code: 'parked',
    sentence: `The call is parked on ${object.name} for up to ${object.returnSeconds} s.`,
    way: {
      when: 'not fetched',
      afterSeconds: object.returnSeconds,
      to: leadOr(object.returnTo, NO_ANSWER),
      code: 'park-returns',
      sentence: `Nobody fetched the call from ${object.name}.`,
    },
  }),
  ways: (object) => [{ when: 'not fetched', drive: 'wait', to: leadOr(object.returnTo, NO_ANSWER) }],
  lands: () => false,
};
