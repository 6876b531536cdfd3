import { ATTENDANT_MODES, type Attendant, type AttendantKey, type AttendantMode, type Extension } from '../plan';
import { NO_ANSWER, UNREACHABLE } from '../exchange/cause';
import type { Exchange } from '../exchange/exchange';
import { hoursNow, noticeAt, type HoursNow, type NoticeNow } from '../exchange/hours-now';
import { promptSeconds, spoken } from '../exchange/hear';
import type { Menu, MenuRule } from '../exchange/menu-rules';
import { chooseAt, menuOf } from './menu';
import { keysOfName } from './names';
import { leadOr, type Behaviour, type CourseWayOn, type Moment, type Offer, type Onward } from './offer';
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
    return greets(object, mode, why, moment);
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
      return [
        ...keys.map((k): CourseWayOn => ({
          when: when(`key ${k.key}`),
          drive: 'caller',
          to: { type: 'destination', id: k.leadsTo },
        })),
        ...dialled(exchange, object).map((e): CourseWayOn => ({
          when: when('dials'),
          drive: 'caller',
          to: { type: 'destination', id: e.id },
        })),
        { when: when('no key'), drive: 'wait', to: endFor(exchange, object, mode, 'no key') },
        { when: when('too many tries'), drive: 'caller', to: endFor(exchange, object, mode, 'too many tries') },
      ];
    });
  },
};

function keysOf(exchange: Exchange, object: Attendant, mode: AttendantMode): AttendantKey[] {
  return (exchange.attendantKeys.get(object.id) ?? []).filter((k) => k.mode === mode);
}

const greetingOf = (object: Attendant, mode: AttendantMode): string | null =>
  ({
    open: object.greetingOpen,
    closed: object.greetingClosed,
    holiday: object.greetingHoliday,
    notice: object.greetingNotice,
  })[mode];

/** Nothing was set for a mode: neither a greeting nor a key. When open, dialling extensions or names is enough. */
export function isMissing(exchange: Exchange, object: Attendant, mode: AttendantMode): boolean {
  if (greetingOf(object, mode) !== null || keysOf(exchange, object, mode).length > 0) return false;
  return mode !== 'open' || (object.directDialling === 'none' && !object.dialByName);
}

/** Modes that can come up: a holiday or notice without anything set falls back on closed or open. */
function modesOf(exchange: Exchange, object: Attendant): AttendantMode[] {
  if (!object.hours) return ['open'];
  return ATTENDANT_MODES.filter((m) => m === 'open' || m === 'closed' || !isMissing(exchange, object, m));
}

type ModeNow = { mode: AttendantMode; why: string } | { leadsTo: string; why: string };

function modeNow(object: Attendant, moment: Moment): ModeNow {
  const notice = noticeAt(moment.exchange, moment.situation, object.id, moment.at);
  if (notice) return modeBy(moment.exchange, object, noticed(notice));
  if (!object.hours) return { mode: 'open', why: 'it has no hours' };
  const { exchange } = moment;
  return modeBy(exchange, object, hoursNow(exchange, moment.situation, object.hours, moment.at));
}

/** A notice of the attendant itself as what its hours say. */
const noticed = (notice: NoticeNow): HoursNow => ({
  ...notice,
  mode: 'notice',
  notice: notice.name,
  why: `notice “${notice.name}” says ${notice.open ? 'open' : 'closed'}`,
});

/** A holiday or notice for which nothing is set is treated as closed or open. */
function modeBy(exchange: Exchange, object: Attendant, now: HoursNow): ModeNow {
  if (now.leadsTo) return { leadsTo: now.leadsTo, why: now.why };
  for (const mode of ['notice', 'holiday'] as const)
    if (now.mode === mode && !isMissing(exchange, object, mode)) return { mode, why: now.why };
  return { mode: now.open ? 'open' : 'closed', why: now.why };
}

function dialled(exchange: Exchange, object: Attendant): Extension[] {
  if (object.directDialling === 'none' && !object.dialByName) return [];
  const all = object.directDialling !== 'site';
  return exchange.plan.extensions.filter((e) => all || e.site === object.site);
}

/** Keys, extensions and names of one mode as one automaton; made once. */
function menuFor(exchange: Exchange, object: Attendant, mode: AttendantMode): Menu<string> {
  const key = `${object.id} ${mode}`;
  let menu = exchange.menus.get(key);
  if (!menu) {
    const rules: MenuRule<string>[] = keysOf(exchange, object, mode)
      .filter((k) => k.key.length === 1)
      .map((k) => ({ type: 'key', digits: k.key, leads: k.leadsTo }));
    for (const e of dialled(exchange, object)) {
      if (object.directDialling !== 'none') rules.push({ type: 'extension', digits: e.digits, leads: e.id });
      const person = e.person ? exchange.people.get(e.person) : undefined;
      if (object.dialByName && person)
        for (const digits of keysOfName(person.spelling || person.name))
          rules.push({ type: 'name', digits, leads: e.id });
    }
    exchange.menus.set(key, (menu = menuOf(rules)));
  }
  return menu;
}

function endFor(exchange: Exchange, object: Attendant, mode: AttendantMode, key: 'no key' | 'too many tries'): Onward {
  const keys = keysOf(exchange, object, mode);
  const other = key === 'no key' ? 'too many tries' : 'no key';
  const found = keys.find((k) => k.key === key) ?? keys.find((k) => k.key === other);
  return leadOr(found?.leadsTo ?? null, NO_ANSWER);
}

function greets(object: Attendant, mode: AttendantMode, why: string, moment: Moment): Offer {
  const { exchange } = moment;
  const greeting = greetingOf(object, mode);
  const base = {
    code: 'attendant-greets' as const,
    sentence: `${object.name} greets as ${mode} (${why}) with ${spoken(exchange, greeting)}.`,
  };
  const result = chooseAt(menuFor(exchange, object, mode), moment, {
    ...object,
    greetingSeconds: promptSeconds(exchange, greeting),
  });
  const { afterSeconds } = result;
  switch (result.type) {
    case 'no key':
      return {
        ...base,
        landing: { kind: 'attendant', id: object.id, digits: object.digits, label: object.name },
        keysTaken: result.keysTaken,
        way: {
          when: 'no key',
          afterSeconds,
          to: endFor(exchange, object, mode, 'no key'),
          code: 'no-key',
          sentence: `The caller presses nothing more.`,
        },
      };
    case 'too many tries':
      return {
        ...base,
        landing: null,
        keysTaken: result.keysTaken,
        way: {
          when: 'too many tries',
          afterSeconds,
          to: endFor(exchange, object, mode, 'too many tries'),
          code: 'too-many-tries',
          sentence: `${object.tries} ${object.tries === 1 ? 'choice leads' : 'choices lead'} nowhere.`,
        },
      };
    case 'chosen': {
      if (result.rule.type === 'name') {
        const people = choosePerson(result, moment);
        return {
          ...base,
          landing: people.to ? null : { kind: 'attendant', id: object.id, digits: object.digits, label: object.name },
          also: people.also,
          keysTaken: people.keysTaken,
          way: {
            when: 'name',
            afterSeconds: people.afterSeconds,
            to: people.to ?? endFor(exchange, object, mode, 'no key'),
            code: 'name-spelt',
            sentence: people.sentence,
          },
        };
      }
      const { rule, digits } = result;
      const what = rule.type === 'key' ? `key ${digits}` : `extension ${digits}`;
      return {
        ...base,
        landing: null,
        keysTaken: result.keysTaken,
        way: {
          when: rule.type === 'key' ? what : 'dials',
          afterSeconds,
          to: { type: 'destination', id: rule.leads },
          code: rule.type === 'key' ? 'key-pressed' : 'extension-dialled',
          sentence: `The caller chooses ${what}.`,
        },
      };
    }
  }
}
