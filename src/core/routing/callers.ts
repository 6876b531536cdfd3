import { UNION, automatonOfLiterals, combine, run, whyNot, type Automaton, type CompiledMap } from '../digits';
import type { CompiledRoute } from '../exchange/exchange';
import { callerCountry, callersFrom } from '../numbers';
import type { InboundRoute } from '../plan';
import { countryName } from '../plan/facts/value-words';

/** The callers that a route takes, as one automaton over their E.164 numbers (ENGINE E9); null: everyone. */
export function callersOf(route: InboundRoute, mapOf: (text: string) => CompiledMap): Automaton | null {
  const { callingCountries: countries, callingNumbers: numbers, callingMap: map } = route;
  const parts = [
    ...(countries.length > 0 ? [callersFrom(countries)] : []),
    ...(numbers.length > 0 ? [automatonOfLiterals(numbers)] : []),
    ...(map === null ? [] : [mapOf(map).automaton]),
  ];
  return parts.length === 0 ? null : parts.reduce((all, part) => combine(all, part, UNION));
}

/** Why a route does not take a caller (null: number withheld); null when it does. */
export function callerDiffers({ route, calling: callers }: CompiledRoute, calling: string | null): string | null {
  if (calling === null) return route.callingWithheld || !callers ? null : 'the caller withholds the number';
  if (!callers) return route.callingWithheld ? 'only callers who withhold their number' : null;
  const state = run(callers, calling);
  if (state >= 0 && callers.accepts[state]!.length > 0) return null;
  const { callingCountries: countries, callingNumbers: numbers } = route;
  if (countries.length === 0 && numbers.length === 0) return `calling number: ${whyNot(callers, calling)!}`;
  const country = callerCountry(calling);
  return [
    countries.length > 0 ? `${calling} is ${country ? `from ${countryName(country)}` : 'from no country'}` : '',
    numbers.length > 0 ? `${countries.length > 0 ? 'and ' : `${calling} is `}not one of its callers` : '',
    route.callingMap === null ? '' : 'and fits not its map either',
  ]
    .filter(Boolean)
    .join(' ');
}
