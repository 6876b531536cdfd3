import { compileKnownMap, type CompiledMap } from '../digits';
import { clockOf, dayOf, parseSpans, parseWeek, type Hours } from '../hours';
import { shortNumbersOf } from '../numbers';
import { byPosition, type InboundRoute, type ObjectKind, type Plan, type PlanNumber, type Rung } from '../plan';
import { grouped } from '../plan/grouped';
import type { CompiledRoute, Exchange } from '../exchange/exchange';
import type { CompiledRung } from '../exchange/rung';
import { pairKey } from '../exchange/link';
import { callersOf } from './callers';
import { laidOver } from './overlay';
import { apart, patched, Reuse } from './reuse';

/**
 * Prepares a plan. The plan must have been read by `readPlan`: references and maps are trusted here. With the exchange from
 * before an edit, all that the edit left alone is taken over from it.
 */
export function compile(plan: Plan, before: Exchange | null = null): Exchange {
  const reuse = new Reuse(before, plan);
  const keep = <T>(kinds: ObjectKind[], of: (x: Exchange) => T, make: () => T) => reuse.keep(kinds, of, make);
  const { layers, kept } = reuse.layers();
  const numbers = reuse.byId('number', (x) => x.numbers);
  const maps = new Map<string, CompiledMap>();
  const mapOf = (text: string) => {
    let map = maps.get(text);
    if (!map) maps.set(text, (map = compileKnownMap(text)));
    return map;
  };
  const routes = keep(
    ['inboundRoute', 'number'],
    (x) => x.routes,
    () => compiledRoutes(plan, numbers, mapOf),
  );
  return {
    plan,
    sites: reuse.byId('site', (x) => x.sites),
    trunks: reuse.byId('trunk', (x) => x.trunks),
    classes: reuse.byId('class', (x) => x.classes),
    people: reuse.byId('person', (x) => x.people),
    extensions: reuse.byId('extension', (x) => x.extensions),
    prompts: reuse.byId('prompt', (x) => x.prompts),
    phrases: keep(
      ['prompt'],
      (x) => x.phrases,
      () => new Map(plan.prompts.flatMap((p) => (p.phrase ? [[p.phrase, p] as const] : []))),
    ),
    hours: keep(
      ['hours', 'holidays'],
      (x) => x.hours,
      () => preparedHours(plan),
    ),
    sitePairs: keep(
      ['sitePair'],
      (x) => x.sitePairs,
      () => new Map(plan.sitePairs.map((p) => [pairKey(p.siteA, p.siteB), p])),
    ),
    attendantKeys: keep(
      ['attendantKey'],
      (x) => x.attendantKeys,
      () => grouped(plan.attendantKeys, (k) => k.attendant),
    ),
    reachSteps: keep(
      ['reachStep'],
      (x) => x.reachSteps,
      () => grouped([...plan.reachSteps].sort(byPosition), (s) => s.reachPlan),
    ),
    routeRules: keep(
      ['routeRule'],
      (x) => x.routeRules,
      () => grouped([...plan.routeRules].sort(byPosition), (r) => r.route),
    ),
    presenceChoices: keep(
      ['presenceChoice'],
      (x) => x.presenceChoices,
      () => grouped(plan.presenceChoices, (c) => c.extension),
    ),
    destinations: reuse.destinations(),
    numbers,
    numberByE164: keep(
      ['number'],
      (x) => x.numberByE164,
      () =>
        before
          ? patched(
              before.numberByE164,
              before.plan.numbers,
              plan.numbers,
              (n) => n,
              (n) => n.e164,
            )
          : new Map(plan.numbers.map((n) => [n.e164, n])),
    ),
    numberOf: keep(
      ['number'],
      (x) => x.numberOf,
      () => (before ? ownersPatched(before, plan) : numbersByOwner(plan.numbers)),
    ),
    rungsOf: keep(
      ['rung'],
      (x) => x.rungsOf,
      () => compiledRungs(plan, mapOf, before?.rungsOf),
    ),
    routes,
    places: keep(
      ['site', 'numberAddition', 'shortNumber'],
      (x) => x.places,
      () => placesOf(plan),
    ),
    blocked: new Map(
      [{ id: 'organisation', blockedCallers: plan.organisation.blockedCallers }, ...plan.sites].flatMap((o) =>
        o.blockedCallers ? [[o.id, mapOf(o.blockedCallers)] as const] : [],
      ),
    ),
    routeIndex: routes === before?.routes ? before.routeIndex : null,
    layers,
    contexts: kept && before ? before.contexts : new Map(),
    menus: keep(
      ['attendant', 'attendantKey', 'directory', 'extension', 'person', 'site'],
      (x) => x.menus,
      () => new Map(),
    ),
    known: keep(
      ['number', 'numberAddition'],
      (x) => x.known,
      () => new Map(),
    ),
  };
}

/** Active numbers by whose they are, each list in their order. */
function numbersByOwner(numbers: readonly PlanNumber[]): Map<string, PlanNumber[]> {
  const out = new Map<string, PlanNumber[]>();
  for (const n of [...numbers].sort((a, b) => (a.e164 < b.e164 ? -1 : 1)))
    if (n.belongsTo && n.state === 'active') {
      const known = out.get(n.belongsTo);
      if (known) known.push(n);
      else out.set(n.belongsTo, [n]);
    }
  return out;
}

/** The same after an edit: only owners of numbers that it touched are looked at. */
function ownersPatched(before: Exchange, { numbers }: Plan): Exchange['numberOf'] {
  const differing = apart(before.plan.numbers, numbers);
  const owners = new Set([...differing.old, ...differing.now].flatMap((n) => n.belongsTo ?? []));
  const theirs = numbers.filter((n) => n.belongsTo !== null && owners.has(n.belongsTo));
  return laidOver(before.numberOf, owners, numbersByOwner(theirs));
}

const rungs = new WeakMap<Rung, CompiledRung>();

/** Rules by ladder, top to bottom; ladders that stay as they are keep their lists, so that what was found of them holds. */
function compiledRungs(
  plan: Plan,
  mapOf: (text: string) => CompiledMap,
  before: Exchange['rungsOf'] | undefined,
): Exchange['rungsOf'] {
  const compiled = [...plan.rungs].sort(byPosition).map((rung) => {
    const known = rungs.get(rung) ?? { rung, map: mapOf(rung.map) };
    rungs.set(rung, known);
    return known;
  });
  const out = grouped(compiled, (r) => r.rung.ladder);
  for (const [ladder, list] of out) {
    const was = before?.get(ladder);
    if (was?.length === list.length && was.every((r, i) => r === list[i])) out.set(ladder, was);
  }
  return out;
}

const compiledBefore = new WeakMap<InboundRoute, CompiledRoute>();

function compiledRoutes(
  plan: Plan,
  numbers: Exchange['numbers'],
  mapOf: (text: string) => CompiledMap,
): CompiledRoute[] {
  return [...plan.inboundRoutes.filter((r) => r.enabled)].sort(byPosition).map((route) => {
    const named = new Set(route.numbers.map((n) => numbers.get(n)!.e164));
    const before = compiledBefore.get(route);
    if (before?.numbers.size === named.size && [...named].every((n) => before.numbers.has(n))) return before;
    const compiled: CompiledRoute = {
      route,
      numbers: named,
      called: route.calledMap ? mapOf(route.calledMap) : null,
      calling: callersOf(route, mapOf),
    };
    compiledBefore.set(route, compiled);
    return compiled;
  });
}

function placesOf(plan: Plan): Exchange['places'] {
  return new Map(
    plan.sites.map((s) => [
      s.id,
      {
        country: s.country,
        area: s.area,
        additions: plan.numberAdditions,
        short: shortNumbersOf(s.country, plan.shortNumbers),
      },
    ]),
  );
}

/** Hours objects of the plan prepared for questions; their texts were checked when the plan was read. */
function preparedHours(plan: Plan): Exchange['hours'] {
  return new Map(
    plan.hours.map((object) => {
      const week = parseWeek(object.weekly);
      if (!week.ok) throw new Error(`hours ${object.id}: ${week.error.sentence}`);
      const dates = plan.holidayCalendars
        .filter((c) => object.holidays.includes(c.id))
        .flatMap((c) => c.dates.filter((d) => d.closed));
      const hours: Hours = {
        clock: clockOf(object.zone),
        week: week.week,
        holidays: new Map(dates.flatMap((d) => (d.yearly ? [] : [[dayOf(d.date)!, d.name] as const]))),
        yearly: new Map(dates.flatMap((d) => (d.yearly ? [[d.date.slice(5), d.name] as const] : []))),
        exceptions: new Map(
          object.exceptions.map((e) => {
            const spans = parseSpans(e.open);
            return [dayOf(e.date)!, spans.ok ? spans.spans : []] as const;
          }),
        ),
      };
      return [object.id, { name: object.name, hours, stretches: [] }] as const;
    }),
  );
}
