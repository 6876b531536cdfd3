import { DEAD, SYMBOL_COUNT, isInside, mayGrow, run, shortestWitness, type Automaton } from '../digits';
import type { Site } from '../plan';
import { contextOf, ladderOf, reachableForms, type DialRule, type Exchange, type Layer } from '../routing';
import { at, type Problem } from './problem';

/* What is wrong or doubtful with digits that are dialled (ENGINE E3, E4, E14). */

export function diallingProblems(exchange: Exchange): Problem[] {
  return [...behindEmergency(exchange), ...hiddenRules(exchange), ...waits(exchange)];
}

type LiteralRule = Exclude<DialRule, { type: 'rung' }>;

/** Dialable digits that begin with an emergency number: whoever dials them reaches the emergency service (ENGINE E3). */
function behindEmergency(exchange: Exchange): Problem[] {
  const found = new Map<string, { problem: Problem; sites: string[] }>();
  const say = (site: Site, problem: Problem) => {
    const before = found.get(problem.object.id);
    if (!before) found.set(problem.object.id, { problem, sites: [site.name] });
    else if (!before.sites.includes(site.name)) before.sites.push(site.name);
  };
  for (const site of exchange.plan.sites)
    for (const form of reachableForms(exchange, site)) {
      for (const rule of beginningWith(atSite(exchange, site).objects, form)) {
        if (rule.type === 'emergency') continue;
        const { kind, object } =
          rule.type === 'service'
            ? { kind: 'serviceCode' as const, object: rule.code }
            : exchange.destinations.get(rule.id)!;
        say(site, {
          type: 'behind-emergency',
          severity: 'error',
          object: at(kind, object),
          sentence: `${rule.digits} ${object.name} ${rule.digits === form ? 'is an emergency number' : `begins with ${form}`}`,
          mend: 'Choose other digits.',
        });
      }
      for (const { rung, map } of ladderOf(exchange, site)) {
        const example = beginsWith(map.automaton, form);
        if (!example) continue;
        const how = example === form ? `${form}, an emergency number` : `${example}, which begins with ${form}`;
        say(site, {
          type: 'behind-emergency',
          severity: 'doubt',
          object: at('rung', rung),
          sentence: `${rung.name} takes ${how}`,
          mend: 'Narrow its map.',
        });
      }
    }
  return [...found.values()].map(({ problem, sites }) => ({
    ...problem,
    sentence: `${problem.sentence}: from ${sites.slice(0, 3).join(', ')}${sites.length > 3 ? ` and ${sites.length - 3} more` : ''} the emergency service answers instead.`,
  }));
}

/** Everything inside whose digits begin with some, the site code in front included. */
function beginningWith(layer: Layer, prefix: string): LiteralRule[] {
  const { automaton, rules } = layer;
  const out: LiteralRule[] = [];
  const open = [run(automaton, prefix)];
  for (let state = open.pop(); state !== undefined; state = open.pop()) {
    if (state === DEAD) continue;
    for (const r of automaton.accepts[state]!) out.push(rules[r] as LiteralRule);
    for (let s = 0; s < SYMBOL_COUNT; s++) open.push(automaton.next[state * SYMBOL_COUNT + s]!);
  }
  return out;
}

/** The shortest string of a set that begins with some digits; null when there is none. */
function beginsWith(automaton: Automaton, digits: string): string | null {
  const state = run(automaton, digits);
  if (state === DEAD) return null;
  if (automaton.accepts[state]!.length > 0) return digits;
  const more = shortestWitness(automaton, state);
  return more === null ? null : digits + more;
}

/** What a phone of a site dials, whoever uses it and whenever. */
const atSite = (exchange: Exchange, site: Site) => contextOf(exchange, { person: null, site: site.id });

/** Rules whose digits all belong to something inside at every site that reads them: it is never their turn (ENGINE E4). */
function hiddenRules(exchange: Exchange): Problem[] {
  const { plan } = exchange;
  return plan.ladders.flatMap((ladder) => {
    const layers = new Set(plan.sites.filter((s) => s.ladder === ladder.id).map((s) => atSite(exchange, s).objects));
    if (layers.size === 0) return [];
    return (exchange.rungsOf.get(ladder.id) ?? [])
      .filter(({ map }) => [...layers].every((l) => l.rules.length > 0 && isInside(map.automaton, l.automaton)))
      .map(({ rung, map }): Problem => {
        const example = shortestWitness(map.automaton)!;
        return {
          type: 'hidden-by-another',
          severity: 'doubt',
          object: at('rung', rung),
          sentence: `${rung.name} is never used: everything it takes, such as ${example}, has somebody inside, who comes first.`,
          mend: 'Delete it, or change its map.',
        };
      });
  });
}

/** Digits after which the exchange waits for more, though they reach somebody: a wait on every such call (ENGINE E3). */
function waits(exchange: Exchange): Problem[] {
  const seconds = exchange.plan.organisation.interDigitSeconds;
  const out: Problem[] = [];
  const told = new Set<string>();
  for (const site of exchange.plan.sites) {
    const { objects } = atSite(exchange, site);
    for (const { rule, longer } of [...growing(objects), ...beforeEmergency(exchange, site, objects)]) {
      if (rule.type !== 'destination' || told.has(rule.id)) continue;
      told.add(rule.id);
      const { kind, object } = exchange.destinations.get(rule.id)!;
      out.push({
        type: 'timer-waits',
        severity: 'doubt',
        object: at(kind, object),
        sentence: `Whoever dials ${rule.digits} for ${object.name} waits ${seconds} s: ${longer} begins with it.`,
        mend: 'Choose digits that nothing else begins with.',
      });
    }
    for (const compiled of ladderOf(exchange, site)) {
      if (told.has(`${compiled.rung.id} ${objects.rules.length}`)) continue;
      const found = overlong(objects, compiled.map.automaton);
      if (found.count === 0) continue;
      told.add(`${compiled.rung.id} ${objects.rules.length}`);
      if (out.some((p) => p.object.id === compiled.rung.id)) continue;
      const others = found.count > 1 ? ` and ${found.count - 1} more` : '';
      out.push({
        type: 'timer-waits',
        severity: 'doubt',
        object: at('rung', compiled.rung),
        sentence: `Whoever dials ${found.first}${others} inside waits ${seconds} s: ${compiled.rung.name} takes longer digits that begin so.`,
        mend: 'Narrow its map, or choose other digits.',
      });
    }
  }
  return [...out, ...neverFinal(exchange, seconds)];
}

const growingIn = new WeakMap<Layer, { rule: DialRule; longer: string }[]>();

/** What has digits with which other digits begin, found once for each layer. */
function growing(layer: Layer): { rule: DialRule; longer: string }[] {
  let found = growingIn.get(layer);
  if (!found) {
    const { accepts } = layer.automaton;
    found = [];
    for (let state = 0; state < accepts.length; state++) {
      const rule = accepts[state]!.length > 0 ? layer.rules[accepts[state]![0]!]! : null;
      if (!rule || rule.type === 'rung' || rule.type === 'emergency' || !mayGrow(layer.automaton, state)) continue;
      found.push({ rule, longer: rule.digits + shortestBehind(layer.automaton, state) });
    }
    growingIn.set(layer, found);
  }
  return found;
}

/** What has digits with which an emergency number begins. */
function beforeEmergency(exchange: Exchange, site: Site, layer: Layer): { rule: DialRule; longer: string }[] {
  return reachableForms(exchange, site).flatMap((form) => {
    const out: { rule: DialRule; longer: string }[] = [];
    for (let length = 1; length < form.length; length++) {
      const state = run(layer.automaton, form.slice(0, length));
      const [rule] = state === DEAD ? [] : layer.automaton.accepts[state]!;
      if (rule !== undefined) out.push({ rule: layer.rules[rule]!, longer: form });
    }
    return out;
  });
}

/** The shortest way on from a state to one that accepts, at least one symbol long. */
function shortestBehind(automaton: Automaton, state: number): string {
  let best = '';
  for (let s = 0; s < SYMBOL_COUNT; s++) {
    const to = automaton.next[state * SYMBOL_COUNT + s]!;
    if (to === DEAD) continue;
    const way = '0123456789*#+'[s]! + (automaton.accepts[to]!.length > 0 ? '' : (shortestWitness(automaton, to) ?? ''));
    if (best === '' || way.length < best.length) best = way;
  }
  return best;
}

const overlongIn = new WeakMap<Layer, WeakMap<Automaton, { first: string; count: number }>>();

/** Digits of things inside after which a rule's map could still go on; both are walked together, only as far as both lead. */
function overlong(layer: Layer, map: Automaton): { first: string; count: number } {
  const known = overlongIn.get(layer) ?? new WeakMap<Automaton, { first: string; count: number }>();
  overlongIn.set(layer, known);
  const before = known.get(map);
  if (before) return before;
  let first = '';
  let count = 0;
  const open: [string, number, number][] = [['', 0, 0]];
  for (let next = open.pop(); next; next = open.pop()) {
    const [digits, inside, outside] = next;
    if (layer.automaton.accepts[inside]!.length > 0 && mayGrow(map, outside)) {
      if (count++ === 0 || digits < first) first = digits;
    }
    for (let s = 0; s < SYMBOL_COUNT; s++) {
      const i = layer.automaton.next[inside * SYMBOL_COUNT + s]!;
      const o = map.next[outside * SYMBOL_COUNT + s]!;
      if (i !== DEAD && o !== DEAD) open.push([digits + '0123456789*#+'[s]!, i, o]);
    }
  }
  const found = { first, count };
  known.set(map, found);
  return found;
}

/** Rules after whose digits more can always follow: every call by them waits. */
function neverFinal(exchange: Exchange, seconds: number): Problem[] {
  return exchange.plan.ladders.flatMap((ladder) =>
    (exchange.rungsOf.get(ladder.id) ?? [])
      .filter(({ map: { automaton } }) => automaton.accepts.every((a, s) => a.length === 0 || mayGrow(automaton, s)))
      .map(({ rung }): Problem => ({
        type: 'timer-waits',
        severity: 'note',
        object: at('rung', rung),
        sentence: `Every call by ${rung.name} waits ${seconds} s after its last digit: its map ${rung.map} never knows that a number is over.`,
        mend: 'Say how long its numbers are.',
      })),
  );
}
