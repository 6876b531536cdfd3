import { DEAD, run, shortestWitness, type Automaton } from '../digits';
import { grouped, numberSpaceOf, type Extension, type PlanNumber } from '../plan';
import { ladderOf, reachableForms, takenBy, type CompiledRoute, type Exchange } from '../routing';
import { endProblems } from './ends';
import { reachOfRungs } from './ladder';
import { at, type Problem } from './problem';

/** What can be found wrong in the objects there are: emergency lists, callbacks, covered rules, owners, caller IDs, ends. */
export function problemsOf(exchange: Exchange): Problem[] {
  return [
    ...emergency(exchange),
    ...behindEmergency(exchange),
    ...ladders(exchange),
    ...mailboxes(exchange),
    ...callerIds(exchange),
    ...numbers(exchange),
    ...routes(exchange),
    ...endProblems(exchange),
  ];
}

function emergency(exchange: Exchange): Problem[] {
  const out: Problem[] = [];
  for (const site of exchange.plan.sites) {
    const object = at('site', site);
    const trunks = site.emergencyTrunks.map((id) => exchange.trunks.get(id)!);
    const foreign = trunks.filter((t) => exchange.sites.get(t.site)!.country !== site.country);
    if (trunks.length === foreign.length)
      out.push({
        type: 'emergency-list-empty',
        severity: 'error',
        object,
        sentence: `Emergency calls of ${site.name} have no trunk.`,
        mend: 'Name a trunk of the same country in its emergency list.',
      });
    for (const t of foreign)
      out.push({
        type: 'emergency-other-country',
        severity: 'error',
        object,
        sentence: `${t.name} in the emergency list of ${site.name} ends in another country; it is never used.`,
        mend: `Take ${t.name} out.`,
      });
    if (!site.emergencyCallback && !site.mainNumber)
      out.push({
        type: 'emergency-no-callback',
        severity: 'error',
        object,
        sentence: `${site.name} has no callback number for the emergency service.`,
        mend: 'Set its main number or a callback number.',
      });
    if (site.emergencyNotify.length === 0)
      out.push({
        type: 'emergency-nobody-told',
        severity: 'note',
        object,
        sentence: `Nobody is told of an emergency call at ${site.name}.`,
        mend: 'Name somebody.',
      });
  }
  return out;
}

/** Dialable digits that begin with an emergency number: whoever dials them reaches the emergency service (ENGINE E3). */
function behindEmergency(exchange: Exchange): Problem[] {
  const dialled = sortedBySpace(exchange);
  return exchange.plan.sites.flatMap((site) =>
    reachableForms(exchange, site).flatMap((form) => [
      ...beginningWith(dialled.get(numberSpaceOf(exchange.plan, site.id)) ?? [], form).map((e): Problem => ({
        type: 'behind-emergency',
        severity: 'error',
        object: at('extension', e),
        sentence: `${e.digits} ${e.name} begins with ${form}: from ${site.name} the emergency service answers instead.`,
        mend: 'Choose other digits.',
      })),
      ...ladderOf(exchange, site).flatMap(({ rung, map }): Problem[] => {
        const example = beginsWith(map.automaton, form);
        if (!example) return [];
        return [
          {
            type: 'behind-emergency',
            severity: 'doubt',
            object: at('rung', rung),
            sentence: `${rung.name} takes ${example}, which begins with ${form}: from ${site.name} the emergency service answers instead.`,
            mend: 'Narrow its map.',
          },
        ];
      }),
    ]),
  );
}

/** Extensions of each number space in the order of their digits. */
function sortedBySpace({ plan }: Exchange): Map<string, Extension[]> {
  const out = grouped(plan.extensions, (e) => numberSpaceOf(plan, e.site));
  for (const list of out.values()) list.sort((a, b) => (a.digits < b.digits ? -1 : 1));
  return out;
}

/** Those of a sorted list whose digits begin with some, found by halving. */
function beginningWith(sorted: readonly Extension[], prefix: string): Extension[] {
  let [from, to] = [0, sorted.length];
  while (from < to) {
    const middle = (from + to) >> 1;
    if (sorted[middle]!.digits < prefix) from = middle + 1;
    else to = middle;
  }
  let end = from;
  while (end < sorted.length && sorted[end]!.digits.startsWith(prefix)) end++;
  return sorted.slice(from, end);
}

/** The shortest string of a set that begins with some digits; null when there is none. */
function beginsWith(automaton: Automaton, digits: string): string | null {
  const state = run(automaton, digits);
  if (state === DEAD) return null;
  if (automaton.accepts[state]!.length > 0) return digits;
  const more = shortestWitness(automaton, state);
  return more === null ? null : digits + more;
}

function ladders(exchange: Exchange): Problem[] {
  return exchange.plan.ladders.flatMap((ladder) => {
    const rungs = exchange.rungsOf.get(ladder.id) ?? [];
    return reachOfRungs(rungs).flatMap((r, i) => {
      if (!r.coveredBy) return [];
      const { rung } = rungs[i]!;
      const above = r.coveredBy.map((id) => rungs.find((x) => x.rung.id === id)!.rung.name).join(', ');
      return [
        {
          type: 'rule-never-fits',
          severity: 'doubt' as const,
          object: at('rung', rung),
          sentence: `${rung.name} can never fit: ${above} above it takes everything it could.`,
          mend: 'Move it up or delete it.',
        },
      ];
    });
  });
}

function mailboxes(exchange: Exchange): Problem[] {
  return exchange.plan.mailboxes
    .filter((m) => m.owners.length === 0)
    .map((m) => ({
      type: 'mailbox-no-owner',
      severity: 'doubt' as const,
      object: at('mailbox', m),
      sentence: `The mailbox ${m.name} has no owner: nobody hears what callers leave.`,
      mend: 'Name its owner.',
    }));
}

/** An outgoing number of an extension that none of the trunks its ladder uses owns. */
function callerIds(exchange: Exchange): Problem[] {
  return exchange.plan.extensions.flatMap((e) => {
    const number = e.outgoingNumber ? exchange.numbers.get(e.outgoingNumber) : undefined;
    if (!number) return [];
    const first = ladderOf(exchange, exchange.sites.get(e.site)!).some(
      (r) => r.rung.show === 'usual' && r.rung.trunks[0] === number.trunk,
    );
    if (number.trunk && first) return [];
    return [
      {
        type: 'caller-id-not-owned',
        severity: 'doubt' as const,
        object: at('extension', e),
        sentence: `${e.digits} ${e.name} shows ${number.e164}, which no trunk of its ladder owns: carriers may replace or refuse it.`,
        mend: 'Choose a number of its own trunk.',
      },
    ];
  });
}

function numbers(exchange: Exchange): Problem[] {
  const idle = idleNumbers(exchange);
  const first = idle[0];
  if (!first) return [];
  return [
    {
      type: 'number-no-route',
      severity: 'note',
      object: at('number', first),
      sentence: `${idle.length} active numbers lead nowhere, ${first.e164} first among them; callers hear that they are unallocated.`,
      mend: 'Assign them, or set them to reserved.',
    },
  ];
}

/** Active numbers that nothing takes: no route, no destination of their own, no otherwise of their trunk. */
export function idleNumbers(exchange: Exchange): PlanNumber[] {
  const routed = new Set(exchange.routes.flatMap((r) => takenBy(exchange, r)));
  const caught = (n: PlanNumber) => n.trunk !== null && exchange.trunks.get(n.trunk)!.otherwise !== null;
  return exchange.plan.numbers.filter((n) => n.state === 'active' && !n.belongsTo && !routed.has(n) && !caught(n));
}

/** Whether a route over E.164 fits none of our numbers. Routes over private digits can't be told. */
export function fitsNoNumber(exchange: Exchange, route: CompiledRoute): boolean {
  const { calledMap, numbers: named } = route.route;
  return named.length === 0 && calledMap!.includes('+') && takenBy(exchange, route).length === 0;
}

function routes(exchange: Exchange): Problem[] {
  return exchange.routes
    .filter((r) => fitsNoNumber(exchange, r))
    .map(({ route }) => ({
      type: 'route-never-fits',
      severity: 'doubt',
      object: at('inboundRoute', route),
      sentence: `${route.name} takes ${route.calledMap}, which none of our numbers fits: no call reaches it.`,
      mend: 'Count its digits, or add the number.',
    }));
}
