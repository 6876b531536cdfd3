import { clockOf } from '@/core/hours';
import type { Extension, Site } from '@/core/plan';
import type { Call, Exchange } from '@/core/routing';
import { Dice } from './chance';

/* Who calls whom: the callers of a ferry company, all with numbers that regulators keep for fiction. */

const three = (n: number) => String(n).padStart(3, '0');
const range = (count: number, make: (i: number) => string) => Array.from({ length: count }, (_, i) => make(i));

/** Outside numbers by country: E.164, and the significant part as it is dialled after the national prefix. */
const OUTSIDE: Record<string, { all: string[]; national: (e164: string) => string }> = {
  GB: {
    all: [
      ...range(90, (i) => `+447700900${three(300 + i * 3)}`),
      ...range(40, (i) => `+441632960${three(500 + i * 7)}`),
    ],
    national: (e) => `0${e.slice(3)}`,
  },
  SE: {
    all: [
      ...range(60, (i) => `+467017406${String(5 + i).padStart(2, '0')}`),
      ...range(30, (i) => `+468465004${String(i).padStart(2, '0')}`),
    ],
    national: (e) => `0${e.slice(3)}`,
  },
  DE: {
    all: [
      ...range(70, (i) => `+493023125${three(i * 9)}`),
      ...range(20, (i) => `+4989999980${String(i).padStart(2, '0')}`),
    ],
    national: (e) => `0${e.slice(3)}`,
  },
};

/** Calls an hour of a working day, by the hour on the wall clock, as shares. */
const BY_HOUR = [
  0.02, 0.01, 0.01, 0.01, 0.02, 0.05, 0.15, 0.4, 0.9, 1.5, 1.7, 1.3, 0.8, 0.9, 1.1, 1.0, 0.9, 0.6, 0.3, 0.2, 0.12, 0.08,
  0.05, 0.03,
];
/** Monday first: Mondays ask, Fridays leave. */
const BY_WEEKDAY = [1.2, 1, 0.95, 1, 1.25, 0.45, 0.3];
/** From two in the afternoon of a Friday on. */
const DEPARTURES = 1.9;

/** How busy a site is at a moment, against an average hour of a working day. */
export function busyness(site: Site, at: number): number {
  const wall = new Date(at + clockOf(site.zone).offsetAt(at) * 60_000);
  const [hour, weekday] = [wall.getUTCHours(), (wall.getUTCDay() + 6) % 7];
  const friday = weekday === 4 && hour >= 14 && hour < 19 ? DEPARTURES : 1;
  return BY_HOUR[hour]! * BY_WEEKDAY[weekday]! * friday;
}

/** How many calls of the company each site has. */
export const SHARES: Record<string, number> = {
  'north-quay': 0.54,
  'vastra-kajen': 0.2,
  'freight-hamburg': 0.19,
  tidewren: 0.04,
  larkspur: 0.03,
};

/** Some call again and again, most once in a while. */
function oneOf(dice: Dice, list: readonly string[]): string {
  return list[Math.floor(list.length * Math.pow(dice.between(0, 1), 2.2))]!;
}

/** A call that begins at a site at a moment (`waiting`: callers who hope for a call back): from outside to one of its numbers, from one of its phones out, or within the company. */
export function someCall(
  exchange: Exchange,
  { site, at, waiting }: { site: Site; at: number; waiting: string[] },
  dice: Dice,
): Call | null {
  const phones = exchange.plan.extensions.filter((e) => e.site === site.id && e.kind === 'person' && e.digits !== null);
  const way = dice.by([['in', 56] as const, ['out', 30] as const, ['inside', 14] as const]);
  if (way === 'in') return inward(exchange, site, at, dice);
  if (phones.length === 0) return null;
  const from = dice.one(phones);
  const dial = way === 'out' ? outward(site, waiting, dice) : inside(exchange, from, dice);
  return { from: { type: 'extension', id: from.id }, dial, enBloc: false, at };
}

function inward(exchange: Exchange, site: Site, at: number, dice: Dice): Call {
  const own = exchange.plan.numbers.filter((n) => n.site === site.id && n.state === 'active' && n.trunk !== null);
  const routed = new Set(exchange.routes.flatMap((r) => [...r.numbers]));
  const main = own.filter((n) => routed.has(n.e164) || n.belongsTo?.includes('attendant'));
  const free = own.filter((n) => n.e164.startsWith('+44808'));
  const people = own.filter((n) => n.belongsTo?.startsWith('e-'));
  const number = dice.one(
    dice.by([
      [main, main.length && 42] as const,
      [free, free.length && 36] as const,
      [people, people.length && 35] as const,
    ]),
  );
  const country = dice.by([
    [site.country, 80],
    ['GB', 10],
    ['SE', 5],
    ['DE', 5],
  ]);
  const calling = dice.is(0.04) ? null : oneOf(dice, OUTSIDE[country]!.all);
  return { from: { type: 'outside', calling }, dial: number.e164, enBloc: true, at };
}

/** A number outside as it is dialled at a site: often that of somebody who called in vain. */
function outward(site: Site, waiting: string[], dice: Dice): string {
  const due = waiting.length > 0 && dice.is(CALLED_BACK) ? waiting.shift() : undefined;
  const country = dice.is(0.85) ? site.country : dice.one(['GB', 'SE', 'DE']);
  const number = due ?? oneOf(dice, OUTSIDE[country]!.all);
  const home = number.startsWith(CODE[site.country]!);
  return `${site.outsidePrefix}${home ? OUTSIDE[site.country]!.national(number) : `00${number.slice(1)}`}`;
}

const CALLED_BACK = 0.45;
const CODE: Record<string, string> = { GB: '+44', SE: '+46', DE: '+49' };

function inside(exchange: Exchange, from: Extension, dice: Dice): string {
  const others = exchange.plan.extensions.filter((e) => e.digits !== null && e.id !== from.id && e.kind === 'person');
  const near = others.filter((e) => e.site === from.site);
  return dice.one(dice.is(0.7) && near.length > 0 ? near : others).digits!;
}
