import { z } from 'zod';
import { causeInWords } from '../exchange/cause';
import {
  KINDS,
  differences,
  fieldsOf,
  grouped,
  labelOf,
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
  outcomeSchema,
  trace,
  type Exchange,
  type Landing,
  situationSchema,
  type Situation,
  type Trace,
} from '../routing';
import { callWords, AHEAD_MS, concernsMany, impactOf, type FindImpact, type ImpactGroup, type ToldEnd } from '../proof';
import { ASPECTS } from '../proof/facts';
import { callsAround, callFromOutside, type CallAround } from './calls-around';

/** One thing in the pane: what kind of end or object it is, its name, and where to open it. */
const paneLine = z.strictObject({
  kind: z.string(),
  label: z.string(),
  detail: z.string(),
  object: z.strictObject({ kind: z.string(), id: z.string() }).nullable(),
});
export type PaneLine = z.output<typeof paneLine>;

const end = z.strictObject({ outcome: outcomeSchema, lands: landingSchema.nullable(), detail: z.string() });

/** Calls that an edit changes alike. */
const changedCalls = z.strictObject({
  /** one of them, in words, and as it is asked */
  call: z.string(),
  asked: z.strictObject({
    from: z.string(),
    dial: z.string(),
    /** ISO 8601 */
    at: z.string(),
    calling: z.string().optional(),
    enBloc: z.boolean(),
    situation: situationSchema.optional(),
  }),
  phones: z.number(),
  numbers: z.number(),
  /** strings of digits that trunks bring and that are no numbers of ours */
  brought: z.number(),
  /** for how much of the next 53 weeks, 0 to 1 */
  share: z.number(),
  aspects: z.array(z.enum(ASPECTS)),
  was: end,
  willBe: end,
});
export type ChangedCalls = z.output<typeof changedCalls>;

export const consequencesSchema = z.strictObject({
  reachedBy: z.array(paneLine),
  leadsTo: z.array(paneLine),
  /** doubts that calls around the object show */
  doubts: z.array(z.string()),
  /** every call that the edit of this object changes, in groups: those of most phones and numbers for most of the time first */
  changes: z.array(changedCalls),
  /** whether every call was asked, or the edit may concern so many that this takes its own page */
  asked: z.enum(['not edited', 'every call', 'too many']),
});
export type Consequences = z.output<typeof consequencesSchema>;

/** Phones above which edits that may concern every call are not looked at beside a page. */
const MANY_PHONES = 3000;

/**
 * What an object is reached by, leads to, and which calls end otherwise than in `before`: the draft with this one object as it is
 * live, so that only this edit's doing shows. Null when it is not edited. Every call that there can be is asked (ENGINE E14);
 * `find` may know the answer from before.
 */
export function consequencesOf(
  draft: Exchange,
  before: Exchange | null,
  kind: DraftKind,
  id: string,
  at: number,
  situation: Situation,
  find: FindImpact = impactOf,
): Consequences {
  const doubts = new Set<string>();
  for (const { call, situation: own } of callsAround(draft, kind, id, at).slice(0, MOST_DOUBTED))
    for (const doubt of doubtsOf(trace(draft, call, { ...situation, ...own }), kind)) doubts.add(doubt);
  const { changes, asked } = before ? changesBetween(draft, before, id, at, situation, find) : NOT_EDITED;
  return {
    reachedBy: kind === 'organisation' ? [] : reachedBy(draft, kind, id),
    leadsTo: kind === 'organisation' ? [] : leadsTo(draft, kind, id, at, situation),
    doubts: [...doubts].slice(0, 6),
    changes,
    asked,
  };
}

const NOT_EDITED = { changes: [], asked: 'not edited' as const };

function changesBetween(
  draft: Exchange,
  before: Exchange,
  id: string,
  at: number,
  situation: Situation,
  find: FindImpact,
): Pick<Consequences, 'changes' | 'asked'> {
  const edits = differences(before.plan, draft.plan).filter((e) => e.id === id);
  if (edits.length === 0) return { changes: [], asked: 'every call' };
  if (draft.plan.extensions.length > MANY_PHONES && concernsMany([before.plan, draft.plan], edits))
    return { changes: [], asked: 'too many' };
  const span = { from: at, to: at + AHEAD_MS };
  const groups = find({ was: before, willBe: draft, situation, span }, edits);
  return { changes: groups.map(changedOf), asked: 'every call' };
}

function changedOf({
  example: { call },
  phones,
  numbers,
  brought,
  share,
  aspects,
  was,
  willBe,
}: ImpactGroup): ChangedCalls {
  return {
    call: callWords(call),
    asked: call,
    phones,
    numbers,
    brought,
    share,
    aspects,
    was: shortOf(was),
    willBe: shortOf(willBe),
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

function shortOf(t: ToldEnd | null): ChangedCalls['was'] {
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
): CallAround['call'] | null {
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
): CallAround['call'] | null {
  const around = callsAround(exchange, kind, id, at).slice(0, MOST_TRIED);
  const meets = ({ call, situation: own }: CallAround) =>
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
