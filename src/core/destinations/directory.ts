import type { Directory, Extension } from '../plan';
import { NO_ANSWER } from '../exchange/cause';
import type { Exchange } from '../exchange/exchange';
import { heardPhrase, heardPrompt, spoken } from '../exchange/hear';
import type { Menu, MenuRule } from '../exchange/menu-rules';
import { chooseAt, menuOf } from './menu';
import { keysOfName } from './names';
import { hears, leadOr, type Behaviour } from './offer';
import { choosePerson } from './people';

/** A directory finds people by the letters of their names (ITU-T E.161). */
export const directory: Behaviour<Directory> = {
  offer(object, moment) {
    const { exchange } = moment;
    const landing = { kind: 'directory' as const, id: object.id, digits: object.digits, label: object.name };
    const base = {
      code: 'directory-asks' as const,
      sentence: `${object.name} asks for a name with ${spoken(exchange, object.prompt)}.`,
    };
    const question = heardPrompt(exchange, object.prompt, moment.language);
    const wrong = heardPhrase(exchange, 'nobody found', moment.language);
    const result = chooseAt(menuFor(exchange, object), moment, {
      ...object,
      greetingSeconds: question?.seconds ?? 0,
      wrongSeconds: wrong.seconds,
    });
    const heard = [
      ...result.played.flatMap((p) => hears(question, p.from, p.until)),
      ...result.wrong.flatMap((p) => hears(wrong, p.from, p.until)),
    ].sort((a, b) => a.afterSeconds - b.afterSeconds);
    const otherwise = leadOr(object.otherwise, NO_ANSWER);
    const { afterSeconds, keysTaken } = result;
    if (result.type === 'no key')
      return {
        ...base,
        landing,
        heard,
        keysTaken,
        way: {
          when: 'no key',
          afterSeconds,
          to: otherwise,
          code: 'no-key',
          sentence: 'The caller presses nothing more.',
        },
      };
    if (result.type !== 'chosen')
      return {
        ...base,
        landing: null,
        heard,
        keysTaken,
        way: {
          when: 'too many tries',
          afterSeconds,
          to: otherwise,
          code: 'too-many-tries',
          sentence: `${object.tries} names lead nowhere.`,
        },
      };
    const people = choosePerson(result, moment);
    return {
      ...base,
      landing: people.to ? null : landing,
      also: people.also,
      heard: [...heard, ...people.heard],
      keysTaken: people.keysTaken,
      way: {
        when: 'name',
        afterSeconds: people.afterSeconds,
        to: people.to ?? otherwise,
        code: 'name-spelt',
        sentence: people.sentence,
      },
    };
  },
  lands: () => true,
  ways: (object, exchange) => [
    ...listed(exchange, object).map((e) => ({
      when: 'name',
      drive: 'caller' as const,
      to: { type: 'destination' as const, id: e.id },
    })),
    { when: 'no key', drive: 'wait', to: leadOr(object.otherwise, NO_ANSWER) },
    { when: 'too many tries', drive: 'caller', to: leadOr(object.otherwise, NO_ANSWER) },
  ],
};

/** Extensions of people whose names can be spelt, in the scope of the directory. */
const listed = (exchange: Exchange, object: Directory): Extension[] =>
  exchange.plan.extensions.filter((e) => directoryLists(object, e));

/** Whether a directory lists the person of an extension, where their name can be spelt. */
export const directoryLists = (object: Directory, { person, site }: Extension): boolean =>
  person !== null && (object.scope === 'everyone' || site === object.site);

/** Names and whom they lead to; made once. */
export function menuFor(exchange: Exchange, object: Directory): Menu<string> {
  let menu = exchange.menus.get(object.id);
  if (!menu) {
    const rules = listed(exchange, object).flatMap((e): MenuRule<string>[] => {
      const person = exchange.people.get(e.person!)!;
      return keysOfName(person.spelling || person.name).map((digits) => ({ type: 'name', digits, leads: e.id }));
    });
    exchange.menus.set(object.id, (menu = menuOf(rules)));
  }
  return menu;
}
