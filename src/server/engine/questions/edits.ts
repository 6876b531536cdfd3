import { createHash } from 'node:crypto';
import { deflateRawSync } from 'node:zlib';
import { usedMore, usedOf, type LimitName } from '@/core/acts/limits';
import { actName } from '@/core/acts/edit';
import type { Leave } from '@/contract/going-live';
import type { Comparison, Pending, WholeEdit } from '@/contract/plan';
import {
  KINDS,
  differences,
  isKind,
  keyOf,
  leftWith,
  labelOf,
  numberSpaceOf,
  planText,
  planWith,
  wordOf,
  type AnyObject,
  type Difference,
  type DraftKind,
  type Plan,
} from '@/core/plan';
import { stringify } from 'yaml';
import { demandFor } from '../../access/areas';
import { EditRefused, Refused, mayEverywhere } from '../../access/rights';
import { labelsIn } from '../ground/labels';
import { Stale } from '../ground/stale';
import { wholeEdits, type AskedEdit, type ParsedEdit } from '../ground/whole-edits';
import { actsSince, described, differing, editorsOf, pendingActs } from '../ground/pending';
import { keptFor, sightIn, type By, type Given } from '../ground/question';
import { restOf } from '../ground/rest-of';

/* What edits are made of, and what they make: checks before they are written, what differs from live, revisions. */

/** Everything that writing edits needs to know of the draft, looked up before its lock is taken. */
export interface Prepared {
  /** the draft version that this holds for */
  version: number;
  /** the edits as whole objects; null: they were that already */
  whole: ParsedEdit[] | null;
  /** what the act is called by what it does */
  name: string;
  /** each edit's object as it stands; null where there is none */
  before: (AnyObject | Plan['organisation'] | null)[];
  /** number spaces by site, as they are after the edits */
  spaces: Record<string, string>;
  /** null: there is no organisation yet, so that its row is made with the first edit */
  organisationRow: number | null;
  organisation: Plan['organisation'];
  /** the number space of the organisation changes, so that every destination's is written anew */
  spacesChange: boolean;
  used: Record<LimitName, number>;
  more: Partial<Record<LimitName, number>>;
}

/**
 * Looks whether edits can be made in the draft as it stands: rights where each object is and will be (403), row versions and
 * fields that somebody else changed (409), and whether the plan stays whole (422). Gives what writing them needs.
 */
export function prepareEdits(
  { draft, index }: Given,
  { edits: asked, reader }: By & { edits: readonly AskedEdit[] },
): Prepared {
  const edits = wholeEdits(draft, index(), reader, asked);
  const before = edits.map((e) => index().object(e.kind, e.id));
  const everywhere = mayEverywhere(reader, 'edit');
  edits.forEach((e, i) => {
    if (everywhere) return;
    const was = before[i];
    if (was) demandFor(reader, 'edit', draft.plan, e.kind, was);
    if (e.value) demandFor(reader, 'edit', draft.plan, e.kind, e.value);
  });
  edits.forEach((e, i) => {
    const current = draft.rowVersions.of(e.kind, e.id);
    // Before there is an organisation its first edit names no version that there could be.
    const first = e.kind === 'organisation' && !draft.rowVersions.any;
    if (e.value === null && current === null)
      throw new EditRefused(404, 'no-such-object', [
        {
          code: 'no-such-object',
          path: `edits.${i}`,
          sentence: `There is no such ${wordOf(e.kind)}; what is not there can’t be deleted.`,
        },
      ]);
    if (current !== e.rowVersion && !first)
      throw new Stale({
        kind: e.kind,
        id: e.id,
        fresh: e.rowVersion === null,
        current: before[i] ?? null,
        rowVersion: current,
        fields: null,
      });
  });
  const after = planWith(draft.plan, edits);
  const errors = index().errorsOf(after, edits);
  if (errors.length > 0) {
    const ours = errors.filter((e) => e.path.startsWith('edits.'));
    throw new EditRefused(422, 'invalid', (ours.length > 0 ? ours : errors).slice(0, 200));
  }
  const spacesChange = after.organisation.numberSpace !== draft.plan.organisation.numberSpace;
  return {
    version: draft.version,
    whole: edits === asked ? null : [...edits],
    name: actName(edits.map((e, i) => ({ kind: e.kind, before: before[i] ?? null, after: e.value }))),
    before,
    spaces: Object.fromEntries(after.sites.map((s) => [s.id, numberSpaceOf(after, s.id)])),
    organisationRow: draft.rowVersions.of('organisation', 'organisation'),
    organisation: after.organisation,
    spacesChange,
    used: keptFor(draft.plan, 'used', [], () => usedOf(draft.plan)),
    more: usedMore(edits.map((e, i) => ({ kind: e.kind, before: before[i] ?? null, after: e.value }))),
  };
}

/** How much the draft uses of each limit. */
export const used = ({ draft }: Given): Record<LimitName, number> =>
  keptFor(draft.plan, 'used', [], () => usedOf(draft.plan));

const PAGE = 100;

interface Page<T> {
  some: T[];
  next: string | null;
}

/** A page of differences after the one of a key; they stand in the order of kinds and ids. */
function paged(found: readonly Difference[], after: string): Page<Difference> {
  const at = after === '' ? -1 : found.findIndex((d) => `${d.kind} ${d.id}` === after);
  if (after !== '' && at < 0)
    throw new Refused(
      409,
      'moved',
      'What this page followed does not differ any more; read from the beginning.',
      'after',
    );
  const some = found.slice(at + 1, at + 1 + PAGE);
  const last = some.at(-1);
  return { some, next: last && at + 1 + PAGE < found.length ? `${last.kind} ${last.id}` : null };
}

const MOST_ACTS = 200;
/** Objects of an act that are named with it. */
const FEW = 8;

/** What going live would change: by act, the newest first, and object by object, a page at a time. */
export async function pending(
  { draft, live }: Given,
  { reader, kind, by, act, after }: By & { kind: string; by: string; act: string; after: string },
): Promise<Pending> {
  const sight = sightIn(draft, reader);
  const all = differing(live.plan, draft.plan).filter((d) => sight.sees(d.kind, (d.after ?? d.before)!));
  const standing = await actsSince(live, draft);
  const acts = pendingActs(all, standing, sight);
  const kinds = new Map<string, number>();
  for (const d of all) kinds.set(d.kind, (kinds.get(d.kind) ?? 0) + 1);
  const authors = new Map<string, number>();
  for (const a of acts) authors.set(a.by, (authors.get(a.by) ?? 0) + 1);
  const of = act === '' ? all : (acts.find((a) => a.id === act)?.differences ?? []);
  const chosen = of.filter(
    (d) => (kind === '' || d.kind === kind) && (by === '' || editorsOf(standing, d).names.includes(by)),
  );
  const { some, next } = paged(chosen, after);
  const edits = some.map((d) => {
    const { names, at } = editorsOf(standing, d);
    return { ...described(d), by: names, at, rowVersion: draft.rowVersions.of(d.kind, d.id) };
  });
  const told = acts.filter((a) => by === '' || a.by === by);
  return sight.cut({
    draftVersion: draft.version,
    revision: live.version,
    count: acts.length,
    objects: all.length,
    acts: told.slice(0, MOST_ACTS).map(({ differences: d, ...a }) => ({
      id: a.id,
      name: a.name,
      by: a.by,
      mine: a.account === reader.account,
      at: a.at === '' ? null : a.at,
      objects: d.length,
      keys: d.length <= FEW ? d.map((x) => `${x.kind} ${x.id}`) : [],
    })),
    actsLeft: Math.max(0, told.length - MOST_ACTS),
    kinds: [...kinds].map(([key, count]) => ({
      key,
      words: isKind(key) ? (count === 1 ? KINDS[key].word : KINDS[key].words) : 'organisation',
      count,
    })),
    people: [...authors].map(([name, count]) => ({ key: name, words: name, count })),
    edits,
    next,
    labels: labelsIn(
      [draft.plan, live.plan],
      edits.map((e) => e.fields),
    ),
  });
}

/** What differs from revision `from` to another, or to the draft. */
export async function comparison(
  given: Given,
  { from, to, after, reader }: By & { from: number; to: number | 'draft'; after: string },
): Promise<Comparison> {
  const a = await given.revision(from);
  const b = to === 'draft' ? given.draft : await given.revision(to);
  const found = differing(a.plan, b.plan);
  const { some, next } = paged(found, after);
  const edits = some.map(described);
  return sightIn(b, reader).cut({
    from: `revision ${from}`,
    to: to === 'draft' ? 'the draft' : `revision ${to}`,
    count: found.length,
    edits,
    next,
    labels: labelsIn(
      [b.plan, a.plan],
      edits.map((e) => e.fields),
    ),
  });
}

/** The edits that take one object back to how it is live. */
export async function undoOneEdits(
  { draft, live, index }: Given,
  { kind, id, reader }: By & { kind: DraftKind; id: string },
): Promise<{ edits: WholeEdit[]; label: string; editors: string[] }> {
  const was =
    kind === 'organisation'
      ? live.plan.organisation
      : ((live.plan[KINDS[kind].list as keyof Plan] as unknown as AnyObject[]).find((o) => o.id === id) ?? null);
  const is = index().object(kind, id);
  if (JSON.stringify(was) === JSON.stringify(is))
    throw new Refused(404, 'nothing-to-undo', 'Draft and live do not differ there.');
  const value = was as unknown as Record<string, unknown> | null;
  const sight = sightIn(draft, reader);
  if (!sight.sees(kind, (is ?? was)!)) throw new Refused(404, 'nothing-to-undo', 'Draft and live do not differ there.');
  const { of } = await actsSince(live, draft);
  return {
    edits: [{ kind, id, rowVersion: draft.rowVersions.of(kind, id), value }],
    label: isKind(kind) ? labelOf(kind, (is ?? was) as AnyObject) : 'the organisation',
    editors: [...new Set((of.get(`${kind} ${id}`) ?? []).map((a) => a.account))],
  };
}

/** The edits that make the draft equal to a revision. Secrets stay today's (ARCHITECTURE principle 5). */
export async function bringBackEdits(
  given: Given,
  { number, only }: { number: number; only?: { kind: string; id: string } },
): Promise<WholeEdit[]> {
  const { draft } = given;
  const revision = await given.revision(number);
  const all = differences(draft.plan, withSecretsOf(revision.plan, draft.plan));
  const found = only
    ? leftWith(revision.plan, all.map(turned), new Set([keyOf(only as Difference)])).map((l) => turned(l.edit))
    : all;
  if (found.length === 0)
    throw new Refused(
      409,
      'nothing-to-do',
      only
        ? `It is in the draft as it was in revision ${number}.`
        : `The draft is the same as revision ${number} already.`,
    );
  return found.map((d) => ({
    kind: d.kind,
    id: d.id,
    rowVersion: draft.rowVersions.of(d.kind, d.id),
    value: d.after as unknown as Record<string, unknown> | null,
  }));
}

/** The same difference seen from the other plan. */
const turned = (d: Difference): Difference => ({ ...d, before: d.after, after: d.before }) as Difference;

/** A plan with every secret's version as another plan has it; what that one has not keeps its own, or has none where it comes from `elsewhere`. */
export function withSecretsOf(old: Plan, now: Plan, elsewhere = false): Plan {
  const out = { ...old } as unknown as Record<string, AnyObject[]>;
  for (const { list, secrets } of Object.values(KINDS)) {
    if (!secrets) continue;
    const today = new Map((now[list as keyof Plan] as unknown as AnyObject[]).map((o) => [o.id, o]));
    out[list] = out[list]!.map((o) => {
      const known = today.get(o.id) as Record<string, unknown> | undefined;
      if (!known && !elsewhere) return o;
      return { ...o, ...Object.fromEntries(secrets.map((f) => [f, known?.[f] ?? null])) };
    });
  }
  return out as unknown as Plan;
}

/** The draft as it is stored when it goes live: canonical text, compressed, with its checksum; and how much differs. */
export async function packed(
  given: Given,
  { reader, leave = [] }: By & { leave?: readonly Leave[] },
): Promise<{
  version: number;
  live: number;
  /** acts, and objects that go live */
  edits: number;
  objects: number;
  /** what of the draft is left for later, by kind and id; null: nothing */
  left: string[] | null;
  document: Uint8Array;
  checksum: Uint8Array;
}> {
  const { draft, live } = given;
  const { held, left, acts, objects, errors } = await restOf(given, { reader, leave });
  if (errors.length > 0)
    throw new EditRefused(
      422,
      'not-whole',
      errors.map((sentence) => ({ code: 'not-whole', path: 'leave', sentence })),
    );
  const text = Buffer.from(planText(held.plan), 'utf8');
  return {
    version: draft.version,
    live: live.version,
    edits: acts,
    objects,
    left: left.length > 0 ? left.map(keyOf) : null,
    document: deflateRawSync(text, { level: 3 }),
    checksum: createHash('sha256').update(text).digest(),
  };
}

/** The checksum of the draft as this thread holds it, and the version that it is of. */
export function draftSum({ draft }: Given): { version: number; sum: string } {
  return { version: draft.version, sum: createHash('sha256').update(planText(draft.plan)).digest('hex') };
}

/** The whole plan as text: the draft, live or a revision. */
export async function planDocument(given: Given, { of, as }: { of: string; as: 'json' | 'yaml' }): Promise<Uint8Array> {
  const held = of === 'draft' ? given.draft : of === 'live' ? given.live : await given.revision(Number(of));
  const text = planText(held.plan);
  return Buffer.from(as === 'json' ? text : stringify(JSON.parse(text)), 'utf8');
}

/** What a row of the history is about: an object as it was then, one by its id as it is today, or nothing of the plan. */
export type ToldOf = { kind: string; value: object | null } | { id: string } | null;

/**
 * Names of everything that some texts (values of journal rows) may point to, and which rows a reader may see. Of what is gone
 * only those hear by its id who see everything.
 */
export function historyNames(
  { draft, index }: Given,
  { values, of, reader }: By & { values: unknown; of: readonly ToldOf[] },
): { names: Record<string, string>; seen: boolean[] } {
  const sight = sightIn(draft, reader);
  const sees = (told: ToldOf): boolean => {
    if (sight.all || told === null) return true;
    if ('value' in told)
      return (
        told.value !== null && (told.kind === 'organisation' || isKind(told.kind)) && sight.sees(told.kind, told.value)
      );
    const known = index().get(told.id);
    return known !== undefined && sight.sees(known.kind, known.object);
  };
  return sight.cut({ names: labelsIn([draft.plan], values), seen: of.map(sees) });
}
