import { z } from 'zod';
import { causeInWords } from '../exchange/cause';
import { partition, type Hours } from '../hours';
import {
  KINDS,
  fieldsOf,
  grouped,
  labelOf,
  referencesOf,
  referrersTo,
  type AnyObject,
  type DraftKind,
  type ObjectKind,
  referenceFieldsOf,
  isKind,
  objectsOf,
} from '../plan';
import {
  destinationOf,
  landingSchema,
  outcomeOf,
  outcomeSchema,
  trace,
  type Exchange,
  type Landing,
  type Situation,
  type Trace,
} from '../routing';
import { nextOf } from './landing-times';
import { reachedFrom } from './reached';
import { callsAround, callFromOutside, type SampleCall } from './samples';

/** One thing in the pane: what kind of end or object it is, its name, and where to open it. */
const paneLine = z.strictObject({
  kind: z.string(),
  label: z.string(),
  detail: z.string(),
  object: z.strictObject({ kind: z.string(), id: z.string() }).nullable(),
});
export type PaneLine = z.output<typeof paneLine>;

const end = z.strictObject({ outcome: outcomeSchema, lands: landingSchema.nullable(), detail: z.string() });

/** A call that ends elsewhere in the draft than live. */
const changedCall = z.strictObject({
  call: z.string(),
  /** at which moment it was tried, ISO 8601 in UTC; null: now */
  at: z.string().nullable(),
  was: end,
  willBe: end,
});
export type ChangedCall = z.output<typeof changedCall>;

export const consequencesSchema = z.strictObject({
  reachedBy: z.array(paneLine),
  leadsTo: z.array(paneLine),
  /** doubts that calls around the object show */
  doubts: z.array(z.string()),
  changes: z.array(changedCall),
  /** how many calls around the object were compared, a sample; 0: none meets it; null: it is not edited */
  compared: z.number().nullable(),
});
export type Consequences = z.output<typeof consequencesSchema>;

/**
 * What an object is reached by, leads to, and which calls around it end elsewhere than in `before`: the draft with this one
 * object as it is live, so that only this edit's doing shows. Null when it is not edited. Calls are tried as they are found
 * in either, now and at moments when the hours they meet say something else: a sample, and told as one.
 */
export function consequencesOf(
  draft: Exchange,
  before: Exchange | null,
  kind: DraftKind,
  id: string,
  at: number,
  situation: Situation,
): Consequences {
  const doubts = new Set<string>();
  for (const { call, situation: own } of callsAround(draft, kind, id, at).slice(0, MOST_DOUBTED))
    for (const doubt of doubtsOf(trace(draft, call, { ...situation, ...own }), kind)) doubts.add(doubt);
  const changes: ChangedCall[] = [];
  let compared: number | null = null;
  if (before) {
    const tried = triedCalls(draft, before, kind, id, at);
    compared = tried.length;
    for (const { call, label, moment, situation: own } of tried) {
      const holds = { ...situation, ...own };
      const now = canAsk(draft, call) ? outcomeOf(draft, call, onlyKnown(draft, holds)) : null;
      const then = canAsk(before, call) ? outcomeOf(before, call, onlyKnown(before, holds)) : null;
      if (now === null ? then === null : same(then, now)) continue;
      changes.push({
        call: label,
        at: moment === undefined ? null : new Date(moment).toISOString(),
        was: shortOf(then),
        willBe: shortOf(now),
      });
    }
  }
  return {
    reachedBy: kind === 'organisation' ? [] : reachedBy(draft, kind, id),
    leadsTo: kind === 'organisation' ? [] : leadsTo(draft, kind, id, at, situation),
    doubts: [...doubts].slice(0, 6),
    changes,
    compared,
  };
}

/** Where it is told that a trunk does not own what is shown: what one rule does would stand on every phone otherwise. */
const OWNED_AT: ReadonlySet<DraftKind> = new Set<DraftKind>(['rung', 'trunk']);

const doubtsOf = (t: Trace, kind: DraftKind): string[] =>
  OWNED_AT.has(kind)
    ? t.doubts
    : t.doubts.filter((d) => !t.steps.some((s) => s.code === 'shown-not-owned' && s.sentence === d));

/** Calls around an object whose doubts are told. */
const MOST_DOUBTED = 60;
/** Moments at which calls are tried. */
const MOST_MOMENTS = 8;

/** Calls that meet an object in either plan, at every telling moment. */
function triedCalls(draft: Exchange, before: Exchange, kind: DraftKind, id: string, at: number): SampleCall[] {
  const out = new Map<string, SampleCall>();
  const around = [draft, before].flatMap((exchange) => callsAround(exchange, kind, id, at));
  for (const [i, moment] of moments(draft, before, kind, id, at).entries())
    for (const c of around) {
      const then = { ...c, moment: i === 0 ? undefined : moment, call: { ...c.call, at: moment } };
      out.set(JSON.stringify([then.call, then.situation]), then);
    }
  return [...out.values()];
}

/** Now, and moments at which hours that calls may meet are open, closed, on a holiday, or differ between the two plans. */
function moments(draft: Exchange, before: Exchange, kind: DraftKind, id: string, at: number): number[] {
  const out = new Set<number>([at]);
  const ids = new Set<string>();
  for (const { plan } of [draft, before])
    for (const [of, list] of reachedFrom(plan, kind, id))
      for (const object of list) {
        if (of === 'hours') ids.add(object.id);
        for (const r of referencesOf(of, object as AnyObject)) if (r.target === 'hours') ids.add(r.id);
      }
  for (const hoursId of [...ids].slice(0, 6)) {
    const [now, was] = [draft.hours.get(hoursId)?.hours, before.hours.get(hoursId)?.hours];
    const differ = now && was && now !== was ? firstDifference(was, now, at) : null;
    if (differ !== null) out.add(differ);
    for (const hours of [now, was])
      for (const mode of ['open', 'closed', 'holiday'] as const) {
        const moment = hours ? nextOf(hours, mode, at) : null;
        if (moment !== null) out.add(moment);
      }
  }
  return [...out].slice(0, MOST_MOMENTS);
}

const DAY = 86_400_000;
const DIFFERS_WITHIN_DAYS = 400;

/** The first moment at which two hours objects say something else; null when they agree for more than a year. */
function firstDifference(a: Hours, b: Hours, from: number): number | null {
  const to = from + DIFFERS_WITHIN_DAYS * DAY;
  const [one, two] = [partition(a, [], from, to), partition(b, [], from, to)];
  let [i, j] = [0, 0];
  while (i < one.length && j < two.length) {
    const [x, y] = [one[i]!, two[j]!];
    if (x.state.mode !== y.state.mode || x.state.open !== y.state.open) return Math.max(x.from, y.from);
    if (x.to <= y.to) i++;
    if (y.to <= x.to) j++;
  }
  return null;
}

/** A situation without what a plan does not have. */
function onlyKnown(exchange: Exchange, situation: Situation): Situation {
  const has = (id: string) => exchange.destinations.has(id) || exchange.people.has(id);
  const ids = (list: readonly string[] | undefined) => list && { list: list.filter(has) };
  const { busy, off, agents, queues, presence, forwarding } = situation;
  return {
    ...situation,
    ...(busy ? { busy: ids(busy)!.list } : {}),
    ...(off ? { off: ids(off)!.list } : {}),
    ...(agents ? { agents: ids(agents)!.list } : {}),
    ...(queues ? { queues: queues.filter((q) => has(q.id)) } : {}),
    ...(forwarding ? { forwarding: forwarding.filter((f) => has(f.extension)) } : {}),
    ...(presence
      ? {
          presence: Object.fromEntries(
            Object.entries(presence).filter(
              ([who, state]) =>
                has(who) && exchange.plan.presenceRules.some((r) => r.id === state || r.activity === state),
            ),
          ),
        }
      : {}),
  };
}

function canAsk(exchange: Exchange, call: Parameters<typeof trace>[1]): boolean {
  return call.from.type !== 'extension' || exchange.extensions.has(call.from.id);
}

/** What everybody in a call notices of its answer. */
type Noticed = Pick<Trace, 'outcome' | 'lands' | 'then' | 'trunk' | 'digitsSent' | 'shownNumber' | 'cause'>;

/** Whether two answers are the same for everybody in the call. */
export function same(a: Noticed | null, b: Noticed): boolean {
  // A landing is known by what it is, not by what it is called: a new name changes no call.
  const end = (l: Landing | null) => l && [l.kind, l.id ?? l.label, l.digits];
  const then = (t: Noticed) => t.then.map((x) => [x.when, x.afterSeconds, end(x.lands)]);
  // By which trunk a call came is nothing to anybody in it; by which it leaves is.
  const essence = (t: Noticed) =>
    JSON.stringify([t.outcome, end(t.lands), then(t), t.digitsSent && t.trunk, t.digitsSent, t.shownNumber, t.cause]);
  return a !== null && essence(a) === essence(b);
}

function shortOf(t: Noticed | null): ChangedCall['was'] {
  if (!t) return { outcome: 'unroutable', lands: null, detail: 'not there' };
  const detail =
    t.outcome !== 'routed'
      ? t.cause
        ? causeInWords(t.cause)
        : ''
      : t.digitsSent
        ? `shows ${t.shownNumber ?? 'no number'}`
        : t.then[0]
          ? `then ${t.then[0].lands.label} after ${t.then[0].afterSeconds} s`
          : '';
  return { outcome: t.outcome, lands: t.lands, detail };
}

/** More referrers of one kind and field than this are counted instead of listed. */
const MOST_LISTED = 4;

function reachedBy(exchange: Exchange, kind: ObjectKind, id: string): PaneLine[] {
  const lines: PaneLine[] = [];
  const extension = kind === 'extension' ? exchange.extensions.get(id) : undefined;
  if (extension)
    lines.push({ kind: 'extension', label: `${extension.digits} from any phone`, detail: '', object: null });
  const number = kind === 'number' ? exchange.numbers.get(id) : undefined;
  const trunk = number?.trunk ? exchange.trunks.get(number.trunk) : undefined;
  if (trunk)
    lines.push({
      kind: 'trunk',
      label: trunk.name,
      detail: 'calls to it arrive here',
      object: { kind: 'trunk', id: trunk.id },
    });
  // What is a part of it leads nobody there.
  const referrers = referrersTo(exchange.plan, id).filter((r) => KINDS[r.kind].partOf !== r.field);
  const groups = grouped(referrers, (r) => `${r.kind} ${r.field}`);
  for (const group of groups.values()) {
    const { kind: by, field } = group[0]!;
    const word = KINDS[by].word;
    const role =
      fieldsOf(by)
        .find((f) => f.field === field)
        ?.title?.toLowerCase() ?? field;
    if (group.length > MOST_LISTED)
      lines.push({ kind: by, label: `${group.length} × ${word}`, detail: role, object: null });
    else
      for (const r of group)
        lines.push({ kind: by, detail: `${word}, ${role}`, ...namedBy(exchange, r.kind, r.object) });
  }
  return lines;
}

/** An object by its name and page; a part of another without a page of its own by the name of the whole and its own, and by its page. */
function namedBy(exchange: Exchange, kind: ObjectKind, object: AnyObject): Pick<PaneLine, 'label' | 'object'> {
  const label = labelOf(kind, object);
  const { partOf, path } = KINDS[kind];
  const target = partOf && path === null ? referenceFieldsOf(kind).find((f) => f.field === partOf)?.ref : undefined;
  if (!target || !isKind(target)) return { label, object: { kind, id: object.id } };
  const id = String((object as unknown as Record<string, unknown>)[partOf!]);
  const whole = (objectsOf(exchange.plan, target) as AnyObject[]).find((o) => o.id === id);
  return whole
    ? { label: `${labelOf(target, whole)}, ${label}`, object: { kind: target, id } }
    : { label, object: { kind, id: object.id } };
}

function leadsTo(exchange: Exchange, kind: ObjectKind, id: string, at: number, situation: Situation): PaneLine[] {
  const call = inwardCall(exchange, kind, id, at, situation);
  if (!call) return trunksOf(exchange, kind, id);
  const t = trace(exchange, call, situation);
  const line = (lands: Landing, detail: string): PaneLine => {
    const object = lands.id ? destinationOf(exchange, lands.id) : null;
    return { kind: lands.kind, label: lands.label, detail, object: object && { kind: object.kind, id: object.id } };
  };
  if (!t.lands)
    return [{ kind: 'refused', label: t.outcome, detail: t.cause ? causeInWords(t.cause) : '', object: null }];
  return [line(t.lands, ''), ...t.then.map((x) => line(x.lands, `${x.when}, after ${x.afterSeconds} s`))];
}

/** A call that arrives at an object, where calls can arrive there: a number, a route, whatever has digits. */
function inwardCall(
  exchange: Exchange,
  kind: ObjectKind,
  id: string,
  at: number,
  situation: Situation,
): SampleCall['call'] | null {
  const number = kind === 'number' ? exchange.numbers.get(id) : undefined;
  if (number) return callFromOutside(number.e164, at);
  if (kind !== 'inboundRoute' && !KINDS[kind].called) return null;
  return callMeeting(exchange, kind, id, at, situation);
}

/** Calls that are tried to find one that comes to an object. */
const MOST_TRIED = 40;

/** A call that comes to an object as things are; else one that can come near it; null: none does. */
export function callMeeting(
  exchange: Exchange,
  kind: ObjectKind,
  id: string,
  at: number,
  situation: Situation,
): SampleCall['call'] | null {
  const around = callsAround(exchange, kind, id, at).slice(0, MOST_TRIED);
  const meets = ({ call, situation: own }: SampleCall) =>
    own === undefined && trace(exchange, call, situation).steps.some((s) => s.object?.id === id);
  return (around.find(meets) ?? around[0])?.call ?? null;
}

/** The trunks that an object names, in their order. */
function trunksOf(exchange: Exchange, kind: ObjectKind, id: string): PaneLine[] {
  const ids =
    kind === 'rung'
      ? (exchange.plan.rungs.find((r) => r.id === id)?.trunks ?? [])
      : kind === 'site'
        ? (exchange.sites.get(id)?.emergencyTrunks ?? [])
        : [];
  return ids.map((t) => ({
    kind: 'trunk',
    label: exchange.trunks.get(t)!.name,
    detail: kind === 'site' ? 'emergency' : '',
    object: { kind: 'trunk', id: t },
  }));
}
