import type { Attendant, AttendantKey, AttendantMode } from '../plan';
import { UNREACHABLE } from '../exchange/cause';
import { heardPhrase, heardPrompt, spoken, type Heard } from '../exchange/hear';
import { askedFor, dialled, endFor, leadOf, menuFor, wrongEnd } from './attendant-menu';
import { greetingOf, isMissing, keysOf, modeBy, modeNow, modesOf, noticed } from './attendant-mode';
import { chooseAt, type MenuResult } from './menu';
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
import { choosePerson } from './people';

/** An attendant greets by its hours, and takes the caller where keys, dialled extensions or spelt names lead. */
export const attendant: Behaviour<Attendant> = {
  offer(object, moment) {
    const chosen = modeNow(object, moment);
    if ('leadsTo' in chosen) {
      const sentence = `${object.name}: ${chosen.why}.`;
      return {
        landing: null,
        code: 'notice-leads',
        sentence,
        way: {
          when: 'notice',
          afterSeconds: 0,
          to: leadOr(chosen.leadsTo, UNREACHABLE),
          code: 'notice-leads',
          sentence,
        },
      };
    }
    const { mode, why } = chosen;
    if (isMissing(moment.exchange, object, mode)) {
      const sentence = `${object.name} has nothing for “${mode}” (${why}): no greeting and no key.`;
      return {
        landing: null,
        code: 'mode-missing',
        sentence,
        way: { when: mode, afterSeconds: 0, to: leadOr(null, UNREACHABLE), code: 'mode-missing', sentence },
      };
    }
    return {
      ...new Greeting(object, mode, why, moment).offer(),
      ...(object.language ? { language: object.language } : {}),
      ...(object.shownName ? { shownName: object.shownName } : {}),
    };
  },
  lands: () => true,
  ways(object, exchange, _part, moment) {
    const notice = moment?.noticeAt(object.id);
    const hours = notice ? noticed(notice) : moment && object.hours ? moment.hoursAt(object.hours) : null;
    const now = hours && modeBy(exchange, object, hours);
    if (now && 'leadsTo' in now) return [{ when: 'notice', drive: 'none', to: leadOr(now.leadsTo, UNREACHABLE) }];
    const modes = now ? [now.mode] : modesOf(exchange, object);
    return modes.flatMap((mode): CourseWayOn[] => {
      const when = (what: string) => (object.hours ? `${mode}: ${what}` : what);
      if (isMissing(exchange, object, mode))
        return [{ when: when('nothing set'), drive: 'none', to: leadOr(null, UNREACHABLE) }];
      const keys = keysOf(exchange, object, mode).filter((k) => k.key.length === 1);
      const people = (what: string, list: { id: string }[]) =>
        list.map((e): CourseWayOn => ({
          when: when(what),
          drive: 'caller',
          to: { type: 'destination', id: e.id },
        }));
      const wrong = wrongEnd(exchange, object, mode);
      return [
        ...keys.flatMap((k): CourseWayOn[] => {
          if (k.does === 'ask extension' || k.does === 'ask name') {
            const what = k.does === 'ask extension' ? 'extension' : 'name';
            const found = new Set(askedFor(exchange, object, what).rules.map((r) => r.leads));
            return people(
              `key ${k.key}, then ${what}`,
              [...found].map((id) => ({ id })),
            );
          }
          const to = leadOf(object, k);
          return to ? [{ when: when(`key ${k.key}`), drive: 'caller', to }] : [];
        }),
        ...people('dials', dialled(exchange, object)),
        ...(object.outsideDialling && exchange.sites.get(object.site)!.outsidePrefix
          ? [
              {
                when: when('dials outside'),
                drive: 'caller' as const,
                to: { type: 'dialled' as const, digits: '', from: object.site },
              },
            ]
          : []),
        ...(wrong ? [{ when: when('wrong key'), drive: 'caller' as const, to: wrong }] : []),
        { when: when('no key'), drive: 'wait', to: endFor(exchange, object, mode, 'no key') },
        { when: when('too many tries'), drive: 'caller', to: endFor(exchange, object, mode, 'too many tries') },
      ];
    });
  },
};

/** What has happened at an attendant until now: seconds and keys since the call came to it, and what was heard. */
interface Until {
  afterSeconds: number;
  keysTaken: number;
  heard: OfferedSound[];
}

/** One call at an attendant that greets. */
class Greeting {
  private readonly landing;
  private readonly language: string;

  constructor(
    private readonly object: Attendant,
    private readonly mode: AttendantMode,
    private readonly why: string,
    private readonly moment: Moment,
  ) {
    this.landing = { kind: 'attendant' as const, id: object.id, digits: object.digits, label: object.name };
    this.language = object.language || moment.language;
  }

  offer(): Offer {
    const { object, mode, moment } = this;
    const { exchange } = moment;
    const menu = menuFor(exchange, object, mode);
    const keys = new Map(keysOf(exchange, object, mode).map((k) => [k.id, k]));
    const wrong = wrongEnd(exchange, object, mode);
    const { result, until } = this.choose(
      menu,
      heardPrompt(exchange, greetingOf(object, mode), this.language),
      { afterSeconds: 0, keysTaken: 0, heard: [] },
      wrong !== null,
      (leads) => keys.has(leads) && leadsNowhere(object, keys.get(leads)!),
    );
    if (result.type === 'wrong key')
      return this.goes(until, `key ${result.digits}`, wrong!, 'wrong-key', `${result.digits} is no key here.`, false);
    if (result.type !== 'chosen') return this.silent(result.type, until);
    const key = keys.get(result.rule.leads);
    if (key?.does === 'ask extension') return this.asks(key, 'extension', until);
    if (key?.does === 'ask name') return this.asks(key, 'name', until);
    return this.chosen(result, key ?? null, until);
  }

  /** A question of the attendant, from what has happened until now. */
  private choose(
    menu: Parameters<typeof chooseAt<string>>[0],
    question: Heard | null,
    until: Until,
    wrongLeads: boolean,
    again: (leads: string) => boolean = () => false,
  ): { result: MenuResult<string>; until: Until } {
    const { object, moment } = this;
    const wrong = heardPhrase(moment.exchange, 'wrong key', this.language);
    const result = chooseAt(
      menu,
      { atSeconds: moment.atSeconds + until.afterSeconds, keys: moment.keys.slice(until.keysTaken) },
      {
        digitSeconds: object.digitSeconds,
        chooseSeconds: object.chooseSeconds,
        tries: object.tries,
        greetingSeconds: question?.seconds ?? 0,
        wrongSeconds: wrong.seconds,
        wrongLeads,
      },
      (rule) => again(rule.leads),
    );
    const from = until.afterSeconds;
    const heard = moment.told
      ? [
          ...result.played.flatMap((p) => hears(question, from + p.from, from + p.until)),
          ...result.wrong.flatMap((p) => hears(wrong, from + p.from, from + p.until)),
        ].sort((a, b) => a.afterSeconds - b.afterSeconds)
      : [];
    return {
      result,
      until: {
        afterSeconds: from + result.afterSeconds,
        keysTaken: until.keysTaken + result.keysTaken,
        heard: [...until.heard, ...heard],
      },
    };
  }

  /** A key that asks for an extension or a name. */
  private asks(key: AttendantKey, what: 'extension' | 'name', until: Until): Offer {
    const { exchange } = this.moment;
    const question = heardPhrase(exchange, `ask ${what}`, this.language);
    const asked = this.choose(askedFor(exchange, this.object, what), question, until, false);
    const also = [
      {
        code: 'key-asks' as const,
        sentence: `The caller chooses key ${key.key}, which asks for ${what === 'name' ? 'a name' : 'an extension'}.`,
      },
    ];
    const { result } = asked;
    const offer =
      result.type === 'chosen' ? this.chosen(result, null, asked.until) : this.silent(result.type, asked.until);
    return { ...offer, also: [...also, ...(offer.also ?? [])] };
  }

  /** Nothing was pressed that decides, or too much that is wrong. */
  private silent(type: 'no key' | 'too many tries' | 'wrong key', until: Until): Offer {
    const { object, mode, moment } = this;
    const which = type === 'no key' ? 'no key' : 'too many tries';
    const sentence =
      which === 'no key'
        ? 'The caller presses nothing more.'
        : `${object.tries} ${object.tries === 1 ? 'choice leads' : 'choices lead'} nowhere.`;
    return this.goes(
      until,
      which,
      endFor(moment.exchange, object, mode, which),
      which === 'no key' ? 'no-key' : 'too-many-tries',
      sentence,
      which === 'no key',
    );
  }

  private chosen(
    result: Extract<MenuResult<string>, { type: 'chosen' }>,
    key: AttendantKey | null,
    until: Until,
  ): Offer {
    const { object, mode, moment } = this;
    const { rule, digits } = result;
    if (key) {
      // What decides to end the call has been answered here.
      const ends = key.does === 'end';
      const handOver = !key.silent && !ends ? heardPhrase(moment.exchange, 'hand-over', this.language) : null;
      const heard = [...until.heard, ...hears(handOver, until.afterSeconds)];
      const afterSeconds = until.afterSeconds + (handOver?.seconds ?? 0);
      const to = leadOf(object, key)!;
      return this.goes(
        { ...until, afterSeconds, heard },
        `key ${digits}`,
        to,
        'key-pressed',
        `The caller chooses key ${digits}${ends ? ', which ends the call' : ''}.`,
        ends,
      );
    }
    if (rule.type === 'outside')
      return this.goes(
        until,
        'dials',
        { type: 'dialled', digits, from: object.site },
        'outside-asked',
        `The caller dials ${digits}, to the outside.`,
        false,
      );
    if (rule.type === 'extension')
      return this.goes(
        until,
        'dials',
        { type: 'destination', id: rule.leads },
        'extension-dialled',
        `The caller chooses extension ${digits}.`,
        false,
      );
    const from = { ...moment, atSeconds: moment.atSeconds + until.afterSeconds - result.afterSeconds };
    const before = until.keysTaken - result.keysTaken;
    const people = choosePerson(result, { ...from, keys: moment.keys.slice(before) });
    const begun = until.afterSeconds - result.afterSeconds;
    const offer = this.goes(
      {
        afterSeconds: begun + people.afterSeconds,
        keysTaken: before + people.keysTaken,
        heard: [
          ...until.heard,
          ...people.heard.map((h) => ({ ...h, afterSeconds: begun + h.afterSeconds, until: begun + h.until })),
        ],
      },
      'name',
      people.to ?? endFor(moment.exchange, object, mode, 'no key'),
      'name-spelt',
      people.sentence,
      people.to === null,
    );
    return { ...offer, also: people.also };
  }

  /** The offer of this attendant, with the way on; `lands`: the caller stays here when nobody does anything more. */
  private goes(
    { afterSeconds, keysTaken, heard }: Until,
    when: string,
    to: Onward,
    code: NonNullable<Offer['way']>['code'],
    sentence: string,
    lands: boolean,
  ): Offer {
    const { object, mode, why, moment } = this;
    const greeting = greetingOf(object, mode);
    return {
      code: 'attendant-greets',
      sentence: `${object.name} greets as ${mode} (${why}) with ${spoken(moment.exchange, greeting)}.`,
      landing: lands ? this.landing : null,
      heard,
      keysTaken,
      way: { when, afterSeconds, to, code, sentence },
    };
  }
}

/** A key after which the greeting is said again. */
const leadsNowhere = (object: Attendant, key: AttendantKey): boolean =>
  key.does === 'repeat' || (key.does === 'back' && object.above === null);
