import type { Conference, Fax, PageGroup, ParkPlace, Tone, WebLink } from '../plan';
import { NO_ANSWER } from '../routing/cause';
import type { ReasonCode } from '../routing/reasons';
import { leadOr, type Behaviour } from './offer';

interface Named {
  id: string;
  name: string;
  digits: string | null;
}

/** A place that takes every call, with nothing after it. */
function takesAll<T extends Named>(
  kind: 'conference' | 'fax' | 'pageGroup' | 'tone' | 'webLink',
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

export const conference = takesAll<Conference>('conference', 'conference', (c) => `The caller joins ${c.name}.`);
export const fax = takesAll<Fax>(
  'fax',
  'fax',
  (f) => `${f.name} takes the pages${f.email ? ` and mails them to ${f.email}` : ''}.`,
);
export const pageGroup = takesAll<PageGroup>(
  'pageGroup',
  'page',
  (p) => `${p.name} speaks from ${p.members.length} phones.`,
);
export const tone = takesAll<Tone>('tone', 'tone', (t) => `The caller hears the ${t.tone} tone.`);
export const webLink = takesAll<WebLink>('webLink', 'web-link', (w) => `${w.address} takes over the call.`);

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
