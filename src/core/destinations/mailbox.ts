import type { Extension, Mailbox } from '../plan';
import { BUSY, NO_ANSWER } from '../exchange/cause';
import type { Exchange } from '../exchange/exchange';
import { heardPhrase, heardPrompt, type Heard } from '../exchange/hear';
import type { MessageSituation } from '../plan/facts/message-situations';
import {
  hears,
  leadOr,
  type Behaviour,
  type CourseWayOn,
  type Moment,
  type Offer,
  type OfferedSound,
  type Onward,
} from './offer';

/** The mailbox that takes an extension's calls; null when it has none or the mailbox is off. */
export function mailboxOf(
  extension: Pick<Extension, 'mailbox'>,
  exchange: Pick<Exchange, 'destinations'>,
): string | null {
  const found = extension.mailbox === null ? undefined : exchange.destinations.get(extension.mailbox);
  return found && (found.object as Mailbox).on ? extension.mailbox : null;
}

/**
 * A mailbox takes every call that reaches it, unless it is off, or full and leads elsewhere; a key of the caller may reach
 * somebody instead, as long as a message may last.
 */
export const mailbox: Behaviour<Mailbox> = {
  offer(object, moment) {
    if (!object.on)
      return passes('off', 'mailbox-off', `The mailbox of ${object.name} is off.`, leadOr(null, NO_ANSWER));
    const isFull = moment.situation.fullMailboxes?.includes(object.id) ?? false;
    if (isFull && object.full !== null)
      return passes('full', 'mailbox-full', `The mailbox of ${object.name} is full.`, leadOr(object.full, BUSY));
    const key = keyPressed(object, moment);
    const heard = moment.told && !isFull ? greeting(object, moment, key?.after) : [];
    if (key)
      return {
        heard,
        ...passes(
          `key ${object.exitKey}`,
          'mailbox-left',
          `The caller presses ${object.exitKey} at the mailbox of ${object.name}.`,
          leadOr(object.exitTo, NO_ANSWER),
          key.after,
        ),
        keysTaken: key.taken,
      };
    return {
      landing: { kind: 'mailbox', id: object.id, digits: null, label: object.name },
      code: isFull ? 'mailbox-full' : 'mailbox-takes',
      sentence: isFull
        ? `The mailbox of ${object.name} is full: the caller hears so.`
        : `The mailbox of ${object.name} takes a message.`,
      heard,
      way: null,
    };
  },
  ways(object) {
    if (!object.on) return [{ when: 'off', drive: 'none', to: leadOr(null, NO_ANSWER) }];
    const ways: CourseWayOn[] = [];
    if (object.full !== null) ways.push({ when: 'full', drive: 'none', to: leadOr(object.full, BUSY) });
    if (object.exitKey !== null)
      ways.push({ when: `key ${object.exitKey}`, drive: 'caller', to: leadOr(object.exitTo, NO_ANSWER) });
    return ways;
  },
  lands: (object) => object.on,
};

function passes(
  when: string,
  code: 'mailbox-off' | 'mailbox-full' | 'mailbox-left',
  sentence: string,
  to: Onward,
  afterSeconds = 0,
): Offer {
  return { landing: null, code, sentence, way: { when, afterSeconds, to, code, sentence } };
}

/** Why the caller comes to the mailbox, as far as greetings tell it apart. */
function whyOf({ when, exchange }: Pick<Moment, 'when' | 'exchange'>): MessageSituation {
  if (when === 'busy') return 'busy';
  const away = when === 'unreachable' || when === 'do not disturb';
  // A state of presence that sends calls to the mailbox is the name of its way.
  return away || exchange.plan.presenceRules.some((r) => r.name === when) ? 'away' : 'no answer';
}

/** What a caller hears who comes to a mailbox: the owner’s own greeting, that of the plan, or the built-in one. */
function greeting(object: Mailbox, moment: Moment, until?: number): OfferedSound[] {
  const { exchange, situation, language } = moment;
  const why = whyOf(moment);
  const own = (case_: MessageSituation) =>
    situation.greetings?.find((g) => g.mailbox === object.id && g.situation === case_);
  const planned = (case_: MessageSituation) =>
    heardPrompt(
      exchange,
      { 'no answer': object.greeting, busy: object.greetingBusy, away: object.greetingAway }[case_],
      language,
    );
  const set = (case_: MessageSituation): Heard | null => {
    const mine = own(case_);
    return mine
      ? {
          prompt: null,
          phrase: null,
          language,
          text: mine.text || `the own greeting of ${object.name}`,
          seconds: mine.seconds,
          figure: null,
          sound: mine.sound ?? null,
        }
      : planned(case_);
  };
  return hears(set(why) ?? set('no answer') ?? heardPhrase(exchange, 'mailbox', language), 0, until);
}

/** The first press of the key for a person, seconds after the call came. */
function keyPressed(object: Mailbox, moment: Moment): { after: number; taken: number } | null {
  if (object.exitKey === null) return null;
  for (const [i, press] of moment.keys.entries()) {
    const after = press.atSeconds - moment.atSeconds;
    if (after >= object.longestMessageSeconds) return null;
    if (after >= 0 && press.key === object.exitKey) return { after, taken: i + 1 };
  }
  return null;
}
