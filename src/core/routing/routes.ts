import { matchDigits, run as runAutomaton } from '../digits';
import type { InboundRoute, Trunk } from '../plan';
import type { NotTaken } from '../exchange/answer';
import { routeIndexOf, type CompiledRoute, type Exchange } from '../exchange/exchange';
import { callerDiffers } from './callers';
import type { Run } from './run';
import { TOLD_ONE_BY_ONE, together } from './told';

/** The inbound route that takes a call, with why those above did not and which below would have; null when none does. */
export function chosenRoute(
  run: Run,
  trunk: Trunk,
  called: string,
  calling: string | null,
): { taken: InboundRoute | null; notTaken: NotTaken[] } {
  const { routes } = run.exchange;
  const fitting = routesFor(run.exchange, called);
  const obstacles = fitting.map((at) => routeObstacle(routes[at]!, trunk, calling));
  const winner = obstacles.indexOf(null);
  const taken = winner < 0 ? null : routes[fitting[winner]!]!.route;
  if (!run.told) return { taken, notTaken: [] };
  const last = winner < 0 ? routes.length : fitting[winner]!;
  const entry = ({ route }: CompiledRoute) => ({ rule: route.id, label: route.name });
  const notTaken: NotTaken[] = [];
  let [next, differing, first] = [0, 0, null as CompiledRoute | null];
  const most = run.everyRule ? Infinity : TOLD_ONE_BY_ONE;
  for (let at = 0; at < last; at++) {
    if (fitting[next] === at) {
      notTaken.push({ ...entry(routes[at]!), ...obstacles[next]! });
      next += 1;
    } else if (differing++ < most) notTaken.push({ ...entry(routes[at]!), ...calledDiffers(routes[at]!, called) });
    else {
      first ??= routes[at]!;
      // Only what takes this number is of interest from here on.
      const until = Math.min(fitting[next] ?? last, last);
      differing += until - at - 1;
      at = until - 1;
    }
  }
  if (first)
    notTaken.push(together(first.route, differing - most, 'for another called number', 'for other called numbers'));
  fitting.forEach((at, i) => {
    if (winner >= 0 && i > winner && obstacles[i] === null)
      notTaken.push({
        ...entry(routes[at]!),
        code: 'stands-lower',
        why: `would fit, but ${taken!.name} stands above it`,
      });
  });
  return { taken, notTaken };
}

/** Positions of the routes whose numbers or map take a called number, top to bottom. */
export function routesFor(exchange: Exchange, called: string): number[] {
  const { numbers, maps } = routeIndexOf(exchange);
  const state = runAutomaton(maps.automaton, called);
  const byMap = state < 0 ? [] : maps.automaton.accepts[state]!.map((i) => maps.routes[i]!);
  return [...new Set([...(numbers.get(called) ?? []), ...byMap])].sort((a, b) => a - b);
}

type Obstacle = Pick<NotTaken, 'code' | 'why'>;

function calledDiffers({ called: map }: CompiledRoute, called: string): Obstacle {
  if (!map) return { code: 'called-differs', why: `${called} is not among its numbers` };
  return { code: 'called-differs', why: matchDigits(map.automaton, called).why };
}

/** Why a route that takes the called number does not take the call. */
function routeObstacle(compiled: CompiledRoute, trunk: Trunk, calling: string | null): Obstacle | null {
  const { route } = compiled;
  if (route.trunk !== null && route.trunk !== trunk.id)
    return { code: 'other-trunk', why: `only calls by another trunk` };
  const why = callerDiffers(compiled, calling);
  return why === null ? null : { code: 'calling-differs', why };
}
