import { parseDigitMap } from '../../digits';
import { clockOf, isoAt } from '../../hours';
import { KINDS, OBJECT_KINDS, PROMISE_ENDS, mainSite, objectsOf, type AnyObject, type Promised } from '../../plan';
import { landingOf, trace, type Call, type Exchange, type Situation } from '../../routing';
import { checkPromise, type Checking } from './check';
import { endOf } from './judge';

/** Hours that a promise may hang on, which are tried. */
const MOST_HOURS = 4;
/** Everywhere that a call that is turned away must not come. */
const SOMEWHERE = PROMISE_ENDS.filter((e) => e !== 'a release');
const NAME_LENGTH = 80;

/**
 * The promise that a call, or all the strings of a `map` dialled as it is, stays as it goes now: the strictest that holds. It lands
 * where it does first, always or while hours that it meets say so, or can at least come there; one that is turned away stays so.
 */
export function promiseFrom(
  { exchange, situation, span }: Checking,
  call: Call,
  id: string,
  map: string | null = null,
): Promised | null {
  const landing = landingOf(exchange, call, situation);
  const whose = whoseCalls(exchange, call, map);
  if (!whose) return null;
  const lands = landing.outcome === 'routed' ? landing.lands : null;
  const place = lands?.id != null && exchange.destinations.has(lands.id) ? lands.id : null;
  const meant = lands
    ? { ends: place === null ? [endOf(lands)] : [], places: place === null ? [] : [place] }
    : { ends: SOMEWHERE, places: [] };
  const musts: Promised['must'][] = lands ? ['lands first at', 'can reach'] : ['never reaches'];
  const base = { ...BLANK, ...whose, ...meant, id, name: nameOf(exchange, call, lands?.label ?? null, map) };
  for (const must of musts)
    for (const when of timesOf(exchange, call, situation)) {
      const promise: Promised = { ...base, ...when, must };
      if (checkPromise({ exchange, situation, span }, promise).holds) return promise;
    }
  return null;
}

const BLANK: Omit<Promised, 'id' | 'name' | 'must'> = {
  firm: false,
  from: 'phones',
  fromSites: [],
  fromClasses: [],
  fromTeams: [],
  fromPhones: [],
  fromNumbers: [],
  fromTrunks: [],
  dialKinds: [],
  dialMap: null,
  when: 'always',
  hours: null,
  weekly: null,
  ends: [],
  places: [],
  seconds: 20,
  trunksDown: false,
  note: '',
};

function whoseCalls(exchange: Exchange, { from, dial }: Call, map: string | null): Partial<Promised> | null {
  if (from.type === 'extension') {
    const dialMap = map ?? dial;
    return parseDigitMap(dialMap).ok ? { from: 'phones', fromPhones: [from.id], dialMap } : null;
  }
  const number = exchange.numberByE164.get(dial);
  return number ? { from: 'outside callers', fromNumbers: [number.id] } : null;
}

/** Always; while hours that the call meets say open, or closed. */
function timesOf(exchange: Exchange, call: Call, situation: Situation): Pick<Promised, 'when' | 'hours' | 'weekly'>[] {
  const always = { when: 'always' as const, hours: null, weekly: null };
  const met = new Set(
    trace(exchange, call, situation).steps.flatMap((s) => (s.object ? hoursOf(exchange, s.object.id) : [])),
  );
  const hours = [...met]
    .slice(0, MOST_HOURS)
    .flatMap((id) => (['when open', 'when closed'] as const).map((when) => ({ when, hours: id, weekly: null })));
  return [always, ...hours];
}

/** Hours of an object that a call meets, and of its parts. */
function hoursOf({ plan, hours }: Exchange, id: string): string[] {
  const all = OBJECT_KINDS.flatMap((kind) => {
    const { partOf } = KINDS[kind];
    return (objectsOf(plan, kind) as (AnyObject & Record<string, unknown>)[]).filter(
      (o) => o.id === id || (partOf && o[partOf] === id),
    );
  });
  return all.flatMap((o) => (typeof o.hours === 'string' && hours.has(o.hours) ? [o.hours] : []));
}

function nameOf(exchange: Exchange, { from, dial, at }: Call, lands: string | null, map: string | null): string {
  const who = from.type === 'extension' ? exchange.extensions.get(from.id)!.digits : 'outside';
  const what = map ?? dial;
  const day = isoAt(clockOf(mainSite(exchange.plan)?.zone ?? 'UTC'), at).slice(0, 10);
  return `${who} to ${what}: ${lands ?? 'turned away'} (${day})`.slice(0, NAME_LENGTH);
}
