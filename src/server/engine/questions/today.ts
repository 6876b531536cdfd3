import { inflateRawSync } from 'node:zlib';
import type { Answer } from '@/contract';
import type { Leave } from '@/contract/going-live';
import type { WholeEdit } from '@/contract/plan';
import type { ListedProblem, Muted } from '@/contract/problems';
import {
  emergencyCallsLost,
  gateOf,
  orderOfWork,
  idleNumbers,
  mendName,
  mendOf,
  problemKey,
  problemsOf,
  type Gate,
  type Problem,
  type Work,
} from '@/core/analysis';
import { emergencyNumbersOf } from '@/core/numbers';
import { mainSite, planWith, readObject, sharing, storedPlan, type DraftKind, type Plan } from '@/core/plan';
import { clockOf, nextChange, parseWeek, stateAt } from '@/core/hours';
import { compile, trace } from '@/core/routing';
import { demandFor, maySee, whereIs } from '../../access/areas';
import { Refused, may } from '../../access/rights';
import { actsSince, differing, pendingActs } from '../ground/pending';
import type { HeldPlan } from '../ground/held';
import { keptFor, sightIn, type By, type Given } from '../ground/question';
import { restOf } from '../ground/rest-of';
import { brokenPromises } from '../ground/verdicts';

const MOST_ACTS = 8;

/** What waits: the newest acts that are not live yet, and counts. */
export async function today({ draft, live }: Given, { reader }: By) {
  const sight = sightIn(draft, reader);
  const found = differing(live.plan, draft.plan).filter((d) => sight.sees(d.kind, (d.after ?? d.before)!));
  const acts = found.length > 0 ? pendingActs(found, await actsSince(live, draft), sight) : [];
  const first = sight.list('extension').find((e) => may(reader, 'ask', whereIs(draft.plan, 'extension', e)));
  return {
    edits: acts.length,
    pending: acts.slice(0, MOST_ACTS).map((a) => {
      const [first, ...others] = a.differences;
      return {
        id: a.id,
        name: a.name,
        by: a.by,
        at: a.at,
        // An act about one thing leads to it.
        object: first!.after && others.length === 0 ? { kind: first!.kind, id: first!.id } : null,
      };
    }),
    counts: {
      people: sight.list('person').length,
      extensions: sight.list('extension').length,
      numbers: sight.list('number').length,
      free: keptFor(draft.plan, 'idle', [], () => idleNumbers(draft.exchange())).filter((n) => sight.sees('number', n))
        .length,
    },
    askAs: first?.digits ?? null,
    number: sight.list('number').find((n) => n.state === 'active')?.e164 ?? null,
  };
}

const DAY = 86_400_000;

const GRAVEST_FIRST = ['error', 'doubt', 'note'] as const;

/** A part of what is wrong or doubtful in the draft, as far as its reader may look at it, the gravest first; and how much there is. */
export function problems(
  given: Given,
  {
    reader,
    from,
    most,
    type,
    severity = '',
    muted: left = false,
    mutes,
  }: By & {
    from: number;
    most: number;
    type: string;
    severity?: string;
    muted?: boolean;
    mutes: readonly Muted[];
  },
): Answer<'problems'> {
  const { draft } = given;
  const sight = sightIn(draft, reader);
  const all = problemsSeen(given, reader);
  const isMuted = mutedBy(mutes);
  const [counted, quiet] = [all.filter((p) => !isMuted(p)), all.filter((p) => isMuted(p))];
  const mine = left ? quiet : counted;
  const types = new Map<string, Problem[]>();
  for (const p of mine) {
    const key = `${p.severity} ${p.type}`;
    const list = types.get(key);
    if (list) list.push(p);
    else types.set(key, [p]);
  }
  const asked = mine.filter((p) => (type === '' || p.type === type) && (severity === '' || p.severity === severity));
  const listed = (p: Problem) => listedIn(draft, p, isMuted(p));
  return {
    draftVersion: draft.version,
    count: asked.length,
    muted: quiet.length,
    problems: sight.cut(asked.slice(from, from + most).map(listed)),
    types: sight.cut(
      [...types.values()].map((list) => ({
        type: list[0]!.type,
        severity: list[0]!.severity,
        count: list.length,
        first: listed(list[0]!),
      })),
    ),
  };
}

/** The problems of the draft whose objects a reader sees. */
function problemsSeen({ draft, index }: Given, reader: By['reader']): Problem[] {
  const sight = sightIn(draft, reader);
  const all = allProblems(draft);
  if (sight.all) return all;
  return all.filter((p) => {
    const object = index().object(p.object.kind, p.object.id);
    return object !== null && sight.sees(p.object.kind, object);
  });
}

/** Finds how a problem is left as it is. */
function mutedBy(mutes: readonly Muted[]): (p: Problem) => Muted | null {
  const known = new Map(mutes.map((m) => [`${m.type} ${m.kind} ${m.of}`, m]));
  return (p) => known.get(`${p.type} ${p.object.kind} ${p.object.id}`) ?? null;
}

/** A problem with what its button says. */
function listedIn(draft: HeldPlan, p: Problem, muted: Muted | null): ListedProblem {
  const button = mendOf(draft.exchange(), p)?.label ?? null;
  return { ...p, button, muted: muted && { id: muted.id, reason: muted.reason, until: muted.until, by: muted.by } };
}

/** The problems of one object, as they are listed. */
export function problemsOn(draft: HeldPlan, id: string, mutes: readonly Muted[]): ListedProblem[] {
  const isMuted = mutedBy(mutes);
  return allProblems(draft)
    .filter((p) => p.object.id === id)
    .map((p) => listedIn(draft, p, isMuted(p)));
}

type Named = By & { type: string; kind: DraftKind; id: string };

function found(given: Given, { reader, type, kind, id }: Named): Problem {
  const problem = problemsSeen(given, reader).find(
    (p) => p.type === type && p.object.kind === kind && p.object.id === id,
  );
  if (!problem) throw new Refused(404, 'no-such-problem', 'The draft has no such problem any more.', 'id');
  return problem;
}

/** What a problem is about. */
export const problemNamed = (given: Given, named: Named): { label: string } => ({
  label: found(given, named).object.label,
});

/** What the button of a problem does, as edits of the draft as it stands. */
export function mendEdits(given: Given, named: Named): { edits: WholeEdit[]; act: string } {
  const { draft } = given;
  const problem = found(given, named);
  const mend = mendOf(draft.exchange(), problem);
  if (!mend) throw new Refused(409, 'no-button', 'Somebody has to choose how this is mended.', 'id');
  const edits = mend.edits.map(({ kind, id, value }) => ({
    kind,
    id,
    rowVersion: draft.rowVersions.of(kind, id),
    value: value as WholeEdit['value'],
  }));
  return { edits, act: mendName(problem, mend) };
}

/** What is wrong or doubtful in a plan today, the gravest first; found once for a plan. */
export function allProblems({ plan, exchange }: HeldPlan): Problem[] {
  const today = Math.floor(Date.now() / DAY);
  return keptFor(plan, 'problems', [today], () =>
    [...emergencyCallsLost(exchange(), today * DAY), ...problemsOf(exchange(), today * DAY)].sort(
      (a, b) => GRAVEST_FIRST.indexOf(a.severity) - GRAVEST_FIRST.indexOf(b.severity),
    ),
  );
}

/** How far the building of the system has come, for those who see all of it; null for others and once it stands. */
export function work({ draft, live }: Given, { reader, now }: By & { now: number }): Work[] | null {
  if (!sightIn(draft, reader).all) return null;
  const errors = allProblems(draft).filter((p) => p.severity === 'error').length;
  const steps = orderOfWork(draft.exchange(), now, errors, live.version);
  return steps.every((s) => s.done || s.optional) ? null : steps;
}

const MOST_FORESEEN = 5;

/** Problems that the draft would have with some fields of one object set (`id` null: of a new one), and has not now. */
export function foresee(
  { draft, index }: Given,
  { reader, kind, id, set }: By & { kind: DraftKind; id: string | null; set: Record<string, unknown> },
): Problem[] {
  const current = id === null ? null : index().object(kind, id);
  if (id !== null && !current) return [];
  if (current) demandFor(reader, 'edit', draft.plan, kind, current);
  const read = readObject(kind, { ...current, ...set, id: id ?? NEW }, '');
  // What the schema or the plan as a whole refuses is said when it is saved.
  if (!read.ok) return [];
  demandFor(reader, 'edit', draft.plan, kind, read.value);
  const edits = [{ kind, id: id ?? NEW, value: read.value }];
  const after = planWith(draft.plan, edits);
  if (index().errorsOf(after, edits).length > 0) return [];
  const known = new Set(allProblems(draft).map(problemKey));
  const found = problemsOf(compile(after, draft.exchange()), null).filter((p) => !known.has(problemKey(p)));
  return sightIn(draft, reader).cut(found.slice(0, MOST_FORESEEN));
}

const NEW = 'typed-and-not-there-yet';

/** What stands between the draft and going live; told to those who see everything. */
export const gate = ({ draft, live }: Given): Gate & { draftVersion: number } => ({
  draftVersion: draft.version,
  ...gateFor(draft, live),
});

/** What stands between a plan and going live. */
function gateFor(held: HeldPlan, live: HeldPlan): Gate {
  const now = Date.now();
  const all = (one: HeldPlan) => [...allProblems(one), ...brokenPromises(one, now)];
  return gateOf(all(held), live.version === 0 ? [] : all(live));
}

/** What stands against a document that was made to go live, and whether anything went live or the times forbid it meanwhile. */
export function goingGate(
  { draft, live }: Given,
  { document, now }: { document: Uint8Array; now: number },
): Gate & { live: number; quietUntil: number | null } {
  const read = storedPlan(JSON.parse(inflateRawSync(document).toString('utf8')) as object);
  const plan = sharing(read, live.plan);
  const exchange = compile(plan, live.exchange());
  const held: HeldPlan = { ...draft, plan, exchange: () => exchange, compiled: () => exchange };
  return { ...gateFor(held, live), live: live.version, quietUntil: quietUntil(live.plan, now) };
}

/** How the organisation goes live, as is live now. */
export const goingPolicy = ({ live }: Given, { at }: { at: number }) => ({
  secondPerson: live.plan.organisation.secondPerson,
  quietUntil: quietUntil(live.plan, at),
});

/** Until when nothing goes live; null: it may. */
function quietUntil(plan: Plan, at: number): number | null {
  const read = plan.organisation.quietTimes === null ? null : parseWeek(plan.organisation.quietTimes);
  if (!read?.ok) return null;
  const clock = clockOf(mainSite(plan)?.zone ?? 'UTC');
  const hours = { clock, week: read.week, holidays: new Map(), yearly: new Map(), exceptions: new Map() };
  return stateAt(hours, [], at).open ? (nextChange(hours, [], at) ?? at + 7 * DAY) : null;
}

/** What would go live with some edits left for later. */
export async function leaving(
  given: Given,
  { reader, leave }: By & { leave: readonly Leave[] },
): Promise<Answer<'leaving'>> {
  const { held, ...rest } = await restOf(given, { reader, leave });
  const gate: Gate = rest.errors.length > 0 ? { emergency: [], errors: [], standing: [] } : gateFor(held, given.live);
  return { draftVersion: given.draft.version, ...rest, gate };
}

/** Whether an emergency call of each site that the reader may see gets out as things are live, by which trunk, shown as what. */
export function emergency({ live }: Given, { reader, now }: By & { now: number }) {
  const x = live.exchange();
  const sight = sightIn(live, reader);
  const phones = keptFor(live.plan, 'first phones', [], () => {
    const out = new Map<string, string>();
    for (const e of live.plan.extensions) if (!out.has(e.site) && e.kind !== 'virtual') out.set(e.site, e.id);
    return out;
  });
  return sight.cut(
    sight.list('site').map((site) => {
      const phone = phones.get(site.id);
      const number = emergencyNumbersOf(site.country)[0]!;
      const t = phone
        ? trace(x, { from: { type: 'extension', id: phone }, dial: number, enBloc: false, at: now })
        : null;
      return {
        site: site.name,
        number,
        ok: t?.outcome === 'routed',
        trunk: t?.trunk ? x.trunks.get(t.trunk)!.name : null,
        shown: t?.shownNumber ?? null,
        from: phone ? x.extensions.get(phone)!.digits : null,
      };
    }),
  );
}

/** Labels of extensions that have something set, as far as the reader may see them. */
export function extensionLabels({ draft, live }: Given, { ids, reader }: By & { ids: readonly string[] }) {
  return Object.fromEntries(
    ids.flatMap((id) => {
      for (const held of [live, draft]) {
        const e = held.exchange().extensions.get(id);
        if (e && maySee(reader, held.plan, 'extension', e)) return [[id, `${e.digits} ${e.name}`]];
      }
      return [];
    }),
  ) as Record<string, string>;
}
