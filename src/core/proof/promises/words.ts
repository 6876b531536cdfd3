import { CALL_KIND_WORDS } from '../../numbers/kinds';
import { labelOf, NAMES_ENDS, type Plan, type Promised } from '../../plan';

const MOST_NAMED = 4;

/** Some names in a sentence; of many the first few. */
function named(names: readonly string[], join = 'or'): string {
  const shown =
    names.length > MOST_NAMED ? [...names.slice(0, MOST_NAMED), `${names.length - MOST_NAMED} more`] : names;
  return shown.length < 2 ? (shown[0] ?? '') : `${shown.slice(0, -1).join(', ')} ${join} ${shown.at(-1)}`;
}

/** A promise in a sentence. */
export function promiseWords(plan: Plan, promise: Promised): string {
  const pick = <T extends { id: string }>(list: readonly T[], ids: readonly string[], label: (o: T) => string) =>
    ids.flatMap((id) => list.filter((o) => o.id === id).map(label));
  const sites = pick(plan.sites, promise.fromSites, (s) => s.name);
  const at = sites.length > 0 ? ` at ${named(sites)}` : '';
  const phones = [
    ...pick(plan.classes, promise.fromClasses, (c) => c.name).map((c) => `class ${c}`),
    ...pick(plan.teams, promise.fromTeams, (t) => `team ${t.name}`),
    ...pick(plan.extensions, promise.fromPhones, (e) => labelOf('extension', e)),
  ];
  const numbers = pick(plan.numbers, promise.fromNumbers, (n) => labelOf('number', n));
  const trunks = pick(plan.trunks, promise.fromTrunks, (t) => t.name);
  const kinds = promise.dialKinds.map((k) => CALL_KIND_WORDS[k]);
  const who =
    promise.from === 'phones'
      ? `Each ${kinds.length > 0 ? `${named(kinds)} ` : ''}call from ${phones.length > 0 ? `a phone of ${named(phones)}` : 'any phone'}${at}` +
        (promise.dialMap === null ? '' : ` to ${promise.dialMap}`)
      : `Each call from outside to ${numbers.length > 0 ? named(numbers) : 'any number'}` +
        (trunks.length > 0 ? ` by ${named(trunks)}` : '') +
        at;
  const hours = plan.hours.find((h) => h.id === promise.hours)?.name ?? '';
  const when = promise.when === 'always' ? '' : ` ${promise.when} by ${hours}`;
  const week = promise.weekly === null ? '' : `, ${promise.weekly}`;
  const down = promise.trunksDown ? ', whichever trunk is down' : '';
  return `${who} ${mustWords(plan, promise)}${when}${week}${down}.`;
}

function mustWords(plan: Plan, { must, ends, places, seconds }: Promised): string {
  const all = Object.values(plan).flatMap((list) =>
    Array.isArray(list) ? (list as { id: string; name?: string }[]) : [],
  );
  const where = [...ends, ...places.flatMap((id) => all.find((o) => o.id === id)?.name ?? [])];
  if (NAMES_ENDS.has(must)) return `${must} ${named(where)}`;
  return must === 'rings somebody within' ? `${must} ${seconds} s` : must;
}
