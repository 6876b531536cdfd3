import type { Announcement } from '../plan';
import { heardPrompt, promptSeconds, spoken } from '../exchange/hear';
import { hears, type Behaviour } from './offer';

/** An announcement is heard; the caller then goes on, or the call ends there. */
export const announcement: Behaviour<Announcement> = {
  offer(object, { exchange, language }) {
    const sound = heardPrompt(exchange, object.prompt, language);
    const heard = hears(sound, 0);
    const sentence = `${object.name} plays ${spoken(exchange, object.prompt)}.`;
    if (!object.leadsTo)
      return {
        landing: { kind: 'announcement', id: object.id, digits: object.digits, label: object.name },
        code: 'prompt-plays',
        sentence,
        heard,
        way: null,
      };
    const to = { type: 'destination', id: object.leadsTo } as const;
    return {
      landing: null,
      code: 'prompt-plays',
      sentence,
      heard,
      way: {
        when: 'heard',
        afterSeconds: sound?.seconds ?? 0,
        to,
        code: 'prompt-heard',
        sentence: 'The announcement is over.',
      },
    };
  },
  lands: (object) => object.leadsTo === null,
  ways: (object, exchange) =>
    object.leadsTo
      ? [
          {
            when: 'heard',
            drive: promptSeconds(exchange, object.prompt, '') > 0 ? 'wait' : 'none',
            to: { type: 'destination', id: object.leadsTo },
          },
        ]
      : [],
};
