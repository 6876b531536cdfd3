import { fromE164, showNumber, writeNumber } from '../numbers';
import {
  DIALLED_KINDS,
  agentsOfQueue,
  grouped,
  type Attendant,
  type DraftKind,
  type Extension,
  type InboundRoute,
  type PlanNumber,
  type Rung,
  type Site,
} from '../plan';
import { compileKnownMap, shortestWitness } from '../digits';
import { isFor, ladderOf, ruleAt, contextOf, takenBy, type Call, type Exchange, type Situation } from '../routing';
import { exampleFor } from './example';
import { reachedFrom, spread, type Reached } from './reached';

/** A call worth asking about, with its name for people and what holds besides. */
export interface CallAround {
  call: Call;
  label: string;
  /** milliseconds since 1970 UTC, where the call is tried at another moment than now */
  moment?: number;
  situation?: Situation;
}

/** Phones that dial, objects that are dialled, and calls in all. */
const MOST_PHONES = 8;
const MOST_DIALLED = 16;
const MOST_NUMBERS = 24;
const MOST_CALLS = 400;
/** Seconds after the call began at which callers press keys: while an attendant greets at once, and after something has rung. */
const KEYS_AT = [4, 30] as const;

/** An outside caller whose number is kept for fiction. */
export const OUTSIDE_CALLER = '+441632960998';

/** A call to one of our numbers by a caller from outside. */
export const callFromOutside = (e164: string, at: number): Call => ({
  from: { type: 'outside', calling: OUTSIDE_CALLER },
  dial: e164,
  enBloc: true,
  at,
});

/** The same with its name for people, which costs more than the call. */
export const fromOutside = (e164: string, at: number): CallAround => ({
  label: `from outside to ${showNumber(e164, null)}`,
  call: callFromOutside(e164, at),
});

/**
 * Calls that meet an object of the plan, found by following references up from it: from outside to numbers, inside to
 * digits, out by the phones. Enough of them to see what an edit of it does, not all there are; empty when no call meets it.
 */
export function callsAround(exchange: Exchange, kind: DraftKind, id: string, at: number): CallAround[] {
  const reached = reachedFrom(exchange.plan, kind, id);
  const phones = phonesIn(exchange, reached);
  const calls = [
    ...numbersIn(exchange, reached).map((n) => fromOutside(n, at)),
    ...dialledIn(exchange, reached, id, at),
    ...rungsIn(exchange, reached, at),
    ...phones.flatMap((e) => [...emergencies(exchange, e, at), ...throughLadder(exchange, e, at)]),
    ...besides(exchange, kind, id, at),
  ];
  const known = new Map(calls.map((c) => [JSON.stringify(c.call), c]));
  const plain = [...known.values()].slice(0, MOST_CALLS);
  return [...plain, ...variants(exchange, reached, plain)].slice(0, MOST_CALLS);
}

/** Phones among what is reached, one of each site and class first. */
function phonesIn(exchange: Exchange, reached: Reached): Extension[] {
  const all = ((reached.get('extension') ?? []) as Extension[]).filter((e) => e.kind !== 'virtual');
  const named = all.slice(0, 2);
  const sites = (reached.get('site') ?? []) as Site[];
  const of = [...all, ...sites.flatMap((s) => firstPhones(exchange, s.id))];
  const each = new Map(of.map((e) => [`${e.site} ${e.class}`, e]));
  return [...new Set([...named, ...spread([...each.values()], MOST_PHONES)])];
}

const MOST_FIRST = 4;
const firstOf = new WeakMap<readonly Extension[], Map<string, Extension[]>>();

/** Some phones of a site, each of another class; looked for once in a list of extensions. */
function firstPhones(exchange: Exchange, site: string): Extension[] {
  const all = exchange.plan.extensions;
  let bySite = firstOf.get(all);
  if (!bySite) {
    bySite = grouped(all, (e) => (e.kind === 'virtual' ? null : e.site));
    for (const [id, list] of bySite) {
      const each = new Map<string, Extension>();
      for (const e of list) if (!each.has(e.class)) each.set(e.class, e);
      bySite.set(id, [...each.values()].slice(0, MOST_FIRST));
    }
    firstOf.set(all, bySite);
  }
  return bySite.get(site) ?? [];
}

/** Numbers that reach what is asked about: its own, and those that its routes take. */
function numbersIn(exchange: Exchange, reached: Reached): string[] {
  const out = ((reached.get('number') ?? []) as PlanNumber[]).map((n) => n.e164);
  for (const route of (reached.get('inboundRoute') ?? []) as InboundRoute[]) {
    const compiled = exchange.routes.find((r) => r.route.id === route.id);
    if (!compiled) continue;
    const mapped = takenBy(exchange, compiled)[0]?.e164;
    out.push(...compiled.numbers, ...(mapped ? [mapped] : []));
  }
  return spread([...new Set(out)], MOST_NUMBERS);
}

const callersOf = new WeakMap<Exchange, ReadonlyMap<string | null, readonly Extension[]>>();

/** The first two phones that may call inside, by site and (null) anywhere; looked for once. */
function callersInside(exchange: Exchange): ReadonlyMap<string | null, readonly Extension[]> {
  const known = callersOf.get(exchange);
  if (known) return known;
  const found = new Map<string | null, Extension[]>();
  for (const e of exchange.plan.extensions) {
    if (e.kind === 'virtual' || !exchange.classes.get(e.class)!.rights.internal.allow) continue;
    for (const where of [null, e.site]) {
      const list = found.get(where);
      if (!list) found.set(where, [e]);
      else if (list.length < 2) list.push(e);
    }
  }
  callersOf.set(exchange, found);
  return found;
}

/** Somebody who may call inside: at a site where there is one, else anywhere. */
function colleague(exchange: Exchange, site: string, not: string): Extension | undefined {
  const callers = callersInside(exchange);
  return [site, null].flatMap((where) => callers.get(where) ?? []).find((x) => x.id !== not);
}

/** What is asked about itself, then some of the others. */
function own<T extends { id: string }>(list: readonly T[], id: string, most: number): T[] {
  return [...list.filter((o) => o.id === id), ...spread(list, most).filter((o) => o.id !== id)];
}

/** What is dialled inside: everything with digits of its own, from its site and from another. */
function dialledIn(exchange: Exchange, reached: Reached, id: string, at: number): CallAround[] {
  const objects = DIALLED_KINDS.flatMap(
    (k) => (reached.get(k) ?? []) as unknown as { id: string; digits?: string | null; site: string }[],
  ).filter((o) => o.digits);
  return own(objects, id, MOST_DIALLED).flatMap((o) => {
    const near = colleague(exchange, o.site, o.id);
    const other = exchange.plan.sites.find((s) => s.id !== o.site);
    const far = other && colleague(exchange, other.id, o.id);
    return [near, far].flatMap((from) =>
      from && from.id !== o.id ? [dials(from, digitsTo(exchange, from, o.site, o.digits!), at)] : [],
    );
  });
}

/** How a phone dials something at a site: with the site's code in front where each has a number space of its own. */
function digitsTo(exchange: Exchange, from: Extension, site: string, digits: string): string {
  const perSite = exchange.plan.organisation.numberSpace === 'site' && from.site !== site;
  return perSite ? `${exchange.sites.get(site)!.siteCode ?? ''}${digits}` : digits;
}

function dials(from: Extension, dial: string, at: number, why = ''): CallAround {
  return {
    label: `${from.digits} dials ${dial}${why ? ` (${why})` : ''}`,
    call: { from: { type: 'extension', id: from.id }, dial, enBloc: false, at },
  };
}

function emergencies(exchange: Exchange, e: Extension, at: number): CallAround[] {
  return exchange.places.get(e.site)!.short!.emergency.map((dial) => dials(e, dial, at));
}

function throughLadder(exchange: Exchange, e: Extension, at: number): CallAround[] {
  return ladderOf(exchange, exchange.sites.get(e.site)!).flatMap((r) => {
    const dial = isFor(exchange, r.rung, e) ? exampleFor(exchange, r, e.site) : null;
    return dial ? [enBloc(dials(e, dial, at, r.rung.name))] : [];
  });
}

const enBloc = (c: CallAround): CallAround => ({ ...c, call: { ...c.call, enBloc: true } });

/** Rules that are reached, dialled at the sites that have their ladder, by somebody they are for. */
function rungsIn(exchange: Exchange, reached: Reached, at: number): CallAround[] {
  return spread((reached.get('rung') ?? []) as Rung[], 12).flatMap((rung) => {
    const compiled = exchange.rungsOf.get(rung.ladder)?.find((r) => r.rung.id === rung.id);
    const sites = exchange.plan.sites.filter((s) => s.ladder === rung.ladder).slice(0, 2);
    return sites.flatMap((site) => {
      const dial = compiled && exampleFor(exchange, compiled, site.id);
      const phones = firstPhones(exchange, site.id).filter((e) => isFor(exchange, rung, e));
      return dial ? phones.slice(0, 3).map((e) => enBloc(dials(e, dial, at, rung.name))) : [];
    });
  });
}

/** What no reference leads to: numbers that the plan declares, pairs of sites. */
function besides(exchange: Exchange, kind: DraftKind, id: string, at: number): CallAround[] {
  const { plan } = exchange;
  const phones = spread(plan.sites, 4).flatMap((s) => firstPhones(exchange, s.id).slice(0, 2));
  const prefixed = (e: Extension, digits: string) => (exchange.sites.get(e.site)!.outsidePrefix ?? '') + digits;
  if (kind === 'numberAddition') {
    const addition = plan.numberAdditions.find((a) => a.id === id);
    if (!addition) return [];
    const number = fromE164(addition.from, plan.numberAdditions);
    return phones.map((e) => {
      const site = exchange.sites.get(e.site)!;
      return enBloc(dials(e, prefixed(e, writeNumber(number, 'national', site.country, site.area)), at));
    });
  }
  if (kind === 'shortNumber') {
    const short = plan.shortNumbers.find((s) => s.id === id);
    const example = short && shortestWitness(compileKnownMap(short.map).automaton);
    const there = phones.filter((e) => exchange.sites.get(e.site)!.country === short?.country);
    return example ? there.flatMap((e) => [dials(e, example, at), dials(e, prefixed(e, example), at)]) : [];
  }
  if (kind === 'sitePair') {
    const pair = plan.sitePairs.find((p) => p.id === id);
    const [a, b] = pair ? [colleague(exchange, pair.siteA, ''), colleague(exchange, pair.siteB, '')] : [];
    if (!a || !b) return [];
    return [dials(a, digitsTo(exchange, a, b.site, b.digits), at)].concat(
      dials(b, digitsTo(exchange, b, a.site, a.digits), at),
    );
  }
  if (kind === 'presenceRule') {
    const withNumber = [...exchange.numberOf.keys()].find((o) => exchange.extensions.has(o));
    const callee = withNumber ? exchange.extensions.get(withNumber) : phones[0];
    const caller = callee && colleague(exchange, callee.site, callee.id);
    const number = callee && exchange.numberOf.get(callee.id)?.[0];
    const situation = { presence: { [callee?.id ?? '']: id } };
    return [
      ...(caller && callee ? [{ ...dials(caller, callee.digits, at), situation }] : []),
      ...(number ? [{ ...fromOutside(number.e164, at), situation }] : []),
    ].map((c) => ({ ...c, label: `${c.label}, who is “${plan.presenceRules.find((r) => r.id === id)?.name}”` }));
  }
  return [];
}

/** The same calls where something else holds: keys pressed, nobody signed in, phones busy, people in a presence state. */
function variants(exchange: Exchange, reached: Reached, calls: readonly CallAround[]): CallAround[] {
  const inward = calls.filter((c) => isInward(exchange, c));
  const few = spread(inward, 6);
  const out: CallAround[] = [];
  const add = (what: string, situation: Situation) =>
    out.push(...few.map((c) => ({ ...c, label: `${c.label}, ${what}`, situation })));
  for (const a of ((reached.get('attendant') ?? []) as Attendant[]).slice(0, 2)) {
    const keys = new Set((exchange.attendantKeys.get(a.id) ?? []).map((k) => k.key).filter((k) => k.length === 1));
    for (const key of keys)
      for (const atSeconds of KEYS_AT) add(`who presses ${key} after ${atSeconds} s`, { keys: [{ atSeconds, key }] });
    const dialled = exchange.plan.extensions.find((e) => e.site === a.site && e.kind !== 'virtual')?.digits;
    if (dialled)
      add(`who dials ${dialled} after ${KEYS_AT[0]} s`, {
        keys: [...dialled].map((key, i) => ({ atSeconds: KEYS_AT[0] + i, key })),
      });
  }
  const ids = (kind: 'extension' | 'queue' | 'ringGroup') => (reached.get(kind) ?? []).map((o) => o.id);
  const members = [
    ...ids('extension'),
    ...exchange.plan.ringGroups.filter((g) => reached.get('ringGroup')?.includes(g)).flatMap((g) => g.members),
    ...exchange.plan.queues.filter((q) => reached.get('queue')?.includes(q)).flatMap(agentsOfQueue),
  ].filter((id) => exchange.extensions.has(id));
  if (members.length > 0) {
    add('while they are busy', { busy: members });
    add('while no phone can be reached', { off: members });
  }
  for (const q of exchange.plan.queues.filter((x) => reached.get('queue')?.includes(x)).slice(0, 2)) {
    add('with agents signed in', { agents: agentsOfQueue(q) });
    add('while the queue is full', {
      agents: agentsOfQueue(q),
      queues: [{ id: q.id, waiting: q.mostWaiting ?? 10_000 }],
    });
  }
  for (const r of exchange.plan.presenceRules.slice(0, reached.has('presenceChoice') ? 12 : 0))
    add(`who is “${r.name}”`, { presence: Object.fromEntries(ids('extension').map((e) => [e, r.id])) });
  return out;
}

function isInward(exchange: Exchange, { call }: CallAround): boolean {
  if (call.from.type !== 'extension') return true;
  const phone = exchange.extensions.get(call.from.id)!;
  const rule = ruleAt(contextOf(exchange, phone), call.dial);
  return rule?.type === 'destination';
}
