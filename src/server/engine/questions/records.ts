import type { CallQueueFigures, CallTraffic } from '@/contract/call-load';
import type { CallLed } from '@/contract/records';
import { endOfDay } from '@/core/hours';
import { channelsFor, erlangB } from '@/core/load';
import { readText } from '@/core/numbers';
import { labelOf, mainSite, type AnyObject, type ObjectKind } from '@/core/plan';
import {
  callOf,
  extensionNamed,
  firstDifference,
  queueFiguresOf,
  situationOf,
  busyHoursBy,
  trafficOf,
  type CallRecord,
} from '@/core/records';
import { trace, type Exchange, type Situation } from '@/core/routing';
import { Refused } from '../../access/rights';
import { HIDDEN, type Sight } from '../../access/sight';
import { reading, rows, type SqlValue } from '../../db/pool';
import type { HeldPlan } from '../ground/held';
import { sightIn, type By, type Given } from '../ground/question';

/* What records of calls are about, in the words of the plan; and what plans make of them. */

const DAY = 86_400_000;

interface Scope {
  zone: string;
  site: string | null;
  from: number | null;
  to: number | null;
  /** the numbers and phones that are looked for; null: nobody in particular */
  party: { own: string[]; outside: string[]; phones: string[] } | null;
}

/** A filter of calls read by the plan: days by the main site's clock, numbers in any spelling, people by their phones. */
export function callScope(
  { draft }: Given,
  { reader, number, person, from, to }: By & { number: string; person: string; from: string; to: string },
): Scope {
  const site = mainSite(draft.plan);
  const zone = site?.zone ?? 'UTC';
  const moment = (text: string, isEnd: boolean): number | null => {
    if (text === '') return null;
    if (text.includes('T')) return Date.parse(text);
    // Half-open: a day ends where the next begins, and begins where the one before ends.
    const last = isEnd ? text : new Date(Date.parse(text) - DAY).toISOString().slice(0, 10);
    return endOfDay(last, zone) + 1;
  };
  return {
    zone,
    site: site?.id ?? null,
    from: moment(from, false),
    to: moment(to, true),
    party: partyOf(draft, sightIn(draft, reader), number.trim(), person),
  };
}

function partyOf(draft: HeldPlan, sight: Sight, number: string, person: string): Scope['party'] {
  const exchange = draft.exchange();
  const phones = (list: readonly { id: string; digits: string | null }[]) =>
    list.flatMap((e) => [e.id, ...(e.digits === null ? [] : [e.digits])]);
  if (person !== '') {
    const found = exchange.people.get(person);
    if (!found || !sight.sees('person', found))
      throw new Refused(422, 'no-such-person', 'There is no such person.', 'person');
    const own = draft.plan.extensions.filter((e) => e.person === person);
    return { own: [], outside: [], phones: phones(own) };
  }
  if (number === '') return null;
  const extension = extensionNamed(exchange, number);
  if (extension) return { own: [], outside: [], phones: sight.sees('extension', extension) ? phones([extension]) : [] };
  const site = mainSite(draft.plan);
  const place = site && exchange.places.get(site.id);
  const e164 = (place && readText(number, place).e164) ?? null;
  if (e164 !== null && exchange.numberByE164.has(e164)) return { own: [e164], outside: [], phones: [] };
  return { own: [], outside: [...new Set([...(e164 === null ? [] : [e164]), number])], phones: [] };
}

/** What calls can be chosen by, as their reader may see it. */
export function callChoices({ draft }: Given, { reader }: By) {
  const sight = sightIn(draft, reader);
  const named = (list: readonly { id: string; name: string }[]) => list.map((o) => ({ id: o.id, label: o.name }));
  return {
    trunks: named(sight.list('trunk')),
    queues: named(sight.list('queue')),
    sites: named(sight.list('site')),
    zones: [...new Set(sight.list('site').map((s) => s.zone))].sort(),
    zone: mainSite(draft.plan)?.zone ?? 'UTC',
    site: mainSite(draft.plan)?.id ?? '',
  };
}

/** The phones of a person and the numbers that are theirs alone; 422 when there is no such person. */
export function phonesOf(
  { draft }: Given,
  { reader, person }: By & { person: string },
): { label: string; phones: string[]; own: string[] } {
  const sight = sightIn(draft, reader);
  const party = partyOf(draft, sight, '', person)!;
  const ids = new Set(party.phones);
  const own = draft.plan.numbers.filter((n) => n.belongsTo !== null && ids.has(n.belongsTo)).map((n) => n.e164);
  return { label: labelOf('person', draft.exchange().people.get(person)!), phones: party.phones, own };
}

export interface CallName {
  kind: string;
  id: string;
  label: string;
  /** of an extension */
  digits?: string;
}

/** Things that records name, by id, as their reader may name them; what the plan doesn't have is left out. */
export function callNames(
  { draft, live }: Given,
  { reader, ids }: By & { ids: readonly string[] },
): Record<string, CallName> {
  const out: Record<string, CallName> = {};
  for (const id of new Set(ids))
    for (const held of [draft, live]) {
      const found = thingNamed(held.exchange(), id);
      if (!found) continue;
      const seen = sightIn(held, reader).sees(found.kind, found.object);
      const { digits } = found.object as { digits?: string | null };
      out[id] = {
        kind: found.kind,
        id: found.object.id,
        label: seen ? labelOf(found.kind, found.object) : HIDDEN,
        ...(seen && digits ? { digits } : {}),
      };
      break;
    }
  return out;
}

function thingNamed(exchange: Exchange, id: string): { kind: ObjectKind; object: AnyObject } | null {
  const place = exchange.destinations.get(id);
  if (place) return { kind: place.kind, object: place.object };
  const trunk = exchange.trunks.get(id);
  if (trunk) return { kind: 'trunk', object: trunk };
  const site = exchange.sites.get(id);
  if (site) return { kind: 'site', object: site };
  const extension = extensionNamed(exchange, id);
  return extension && { kind: 'extension', object: extension };
}

/** A recorded call in the plan that was live then and in the draft, in what held beside the plan at its moment. */
export async function callLed(
  given: Given,
  { reader, record, revision, beside }: By & { record: CallRecord; revision: number; beside: Situation },
): Promise<{ before: CallLed; draft: CallLed }> {
  const led = (held: HeldPlan): CallLed => {
    const exchange = held.exchange();
    const asked = callOf(record, exchange);
    if (!asked.ok) return { refused: asked.why, trace: null, difference: null };
    const t = trace(exchange, asked.call, { ...beside, ...situationOf(record, exchange) });
    return sightIn(held, reader).cut({ refused: null, trace: t, difference: firstDifference(record, t, exchange) });
  };
  const { draft } = given;
  const then = await given.revision(revision);
  return { before: led(then), draft: led(draft) };
}

/** Calls that are laid over one another at once. */
const MOST_CALLS = 500_000;
/** Share of calls in the busy hour that may find no channel. */
const LOSS = 0.01;

/** Rows of a condition that are laid over one another; refused where they are too many. */
async function boundedRows<T extends object>(columns: string, sql: string, values: readonly SqlValue[]): Promise<T[]> {
  const text = `SELECT ${columns} FROM call_record WHERE ${sql} LIMIT ${MOST_CALLS + 1}`;
  const found = await reading((c) => rows<T>(c, text, values));
  if (found.length > MOST_CALLS)
    throw new Refused(
      422,
      'too-many',
      `These are more than ${MOST_CALLS.toLocaleString('en')} calls; choose a trunk, a site or fewer days.`,
      'from',
    );
  return found;
}

/** Traffic of the rows of a condition, with the channels of a trunk that it would need. */
export async function callTraffic(
  { draft }: Given,
  {
    sql,
    values,
    zone,
    from,
    to,
    trunk,
  }: { sql: string; values: readonly SqlValue[]; zone: string; from: number; to: number; trunk: string | null },
): Promise<Omit<CallTraffic, 'whole'>> {
  const found = await boundedRows<{ started: Date; ended: Date; q850: number | null; trunk: string | null }>(
    'started, ended, q850, trunk',
    sql,
    values,
  );
  const calls = found.map((r) => ({
    started: r.started.toISOString(),
    ended: r.ended.toISOString(),
    cause: r.q850 === null ? null : { q850: r.q850, sip: 0 },
  }));
  const traffic = trafficOf(calls, zone);
  const { trunks } = draft.exchange();
  const ofSites = calls.flatMap((c, i) => {
    const part = trunks.get(found[i]!.trunk ?? '')?.site;
    return part === undefined ? [] : [{ ...c, part }];
  });
  const channels = trunk === null ? null : (trunks.get(trunk)?.channels ?? null);
  const load = traffic.busyHour?.erlangs ?? 0;
  return {
    ...traffic,
    siteBusyHours: [...busyHoursBy(ofSites, zone)].map(([site, busy]) => ({ site, ...busy })),
    zone,
    from: new Date(from).toISOString(),
    to: new Date(to).toISOString(),
    channels,
    needed: channels === null ? null : channelsFor(load, LOSS),
    blocking: channels === null ? null : erlangB(load, channels),
  };
}

/** What the calls of one queue say of its load. */
export async function queueFigures(
  _: Given,
  { sql, values, zone, from, to }: { sql: string; values: readonly SqlValue[]; zone: string; from: number; to: number },
): Promise<CallQueueFigures> {
  const found = await boundedRows<{
    started: Date;
    answered: Date | null;
    ended: Date;
    queue: string;
    agent: string | null;
    waited_seconds: number | null;
  }>('started, answered, ended, queue, agent, waited_seconds', sql, values);
  const calls = found.map((r) => ({
    started: r.started.toISOString(),
    answered: r.answered?.toISOString() ?? null,
    ended: r.ended.toISOString(),
    queue: { id: r.queue, agent: r.agent, waitedSeconds: r.waited_seconds ?? 0 },
    cause: null,
  }));
  return {
    ...queueFiguresOf(calls, zone),
    zone,
    from: new Date(from).toISOString(),
    to: new Date(to).toISOString(),
  };
}
