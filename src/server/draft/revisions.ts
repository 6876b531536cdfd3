import { differences, type AnyObject, type Difference, type Plan } from '@/core/plan';
import { Refused, demand, demandEverywhere, type Actor } from '../access/rights';
import { change, reading, rows, transaction } from '../db/pool';
import { applyEdits, type EditResult } from './edit';
import { asEdit, described } from './pending';
import { draftInside, draftPlan, livePlan, packed, revisionPlan, versions } from './store';

export interface Revision {
  number: number;
  note: string;
  by: string;
  at: string;
  edits: number;
}

/**
 * Makes the draft live as a new revision. `draftVersion` is the one whose edits were read: if the draft has moved on since,
 * nothing happens (409), so that nobody makes live what they have not seen.
 */
export async function goLive(actor: Actor, draftVersion: number, note: string): Promise<Revision> {
  demandEverywhere(actor, 'goLive');
  const live = await livePlan();
  return transaction(async (c) => {
    const [lock] = await rows<{ version: number }>(c, 'SELECT version FROM draft WHERE id = 1 FOR UPDATE');
    if (Number(lock!.version) !== draftVersion)
      throw new Refused(
        409,
        'draft-moved',
        'The draft has changed since you read it; read what is new, then go live.',
        'draftVersion',
      );
    const now = await versions(c);
    if (now.live !== live.version)
      throw new Refused(
        409,
        'draft-moved',
        'Somebody went live at the same moment; read what is left.',
        'draftVersion',
      );
    const draft = await draftInside(c, draftVersion);
    const edits = differences(live.plan, draft.plan).length;
    if (edits === 0) throw new Refused(409, 'nothing-to-do', 'Draft and live are the same already.');
    const { document, checksum } = packed(draft.plan);
    const at = new Date();
    const number = now.live + 1;
    await change(
      c,
      'INSERT INTO revision (number, document, checksum, draft_version, edits, note, account, at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
      [number, document, checksum, draftVersion, edits, note, actor.account, at],
    );
    return { number, note, by: actor.name, at: at.toISOString(), edits };
  });
}

export async function listRevisions(actor: Actor): Promise<Revision[]> {
  demand(actor, 'look');
  const found = await reading((c) =>
    rows(
      c,
      'SELECT r.number, r.note, r.at, r.edits, a.name AS made_by FROM revision r JOIN account a ON a.id = r.account ORDER BY r.number DESC',
    ),
  );
  return found.map((r) => ({
    number: r.number as number,
    note: r.note as string,
    by: r.made_by as string,
    at: (r.at as Date).toISOString(),
    edits: r.edits as number,
  }));
}

export interface Comparison {
  from: string;
  to: string;
  edits: (Difference & ReturnType<typeof described>)[];
}

/** What differs from revision `from` to another, or to the draft. */
export async function compareRevisions(actor: Actor, from: number, to: number | 'draft'): Promise<Comparison> {
  demandEverywhere(actor, 'look');
  const [a, b] = await Promise.all([revisionPlan(from), to === 'draft' ? draftPlan() : revisionPlan(to)]);
  return {
    from: `revision ${from}`,
    to: to === 'draft' ? 'the draft' : `revision ${to}`,
    edits: differences(a.plan, b.plan).map((d) => ({ ...d, ...described(d) })),
  };
}

/** Makes the draft equal to a revision, as ordinary edits. Secrets stay today's (ARCHITECTURE principle 5). */
export async function bringBack(actor: Actor, number: number): Promise<EditResult & { changed: number }> {
  demand(actor, 'edit');
  const [revision, draft] = await Promise.all([revisionPlan(number), draftPlan()]);
  const wanted = withSecretsOf(revision.plan, draft.plan);
  const found = differences(draft.plan, wanted);
  if (found.length === 0)
    throw new Refused(409, 'nothing-to-do', `The draft is the same as revision ${number} already.`);
  const result = await applyEdits(
    actor,
    found.map((d) => asEdit(d.kind, d.id, draft.rowVersions.get(d.id) ?? null, d.after)),
  );
  return { ...result, changed: found.length };
}

function withSecretsOf(old: Plan, now: Plan): Plan {
  const today = new Map<string, AnyObject>([...now.extensions, ...now.trunks].map((o) => [o.id, o]));
  return {
    ...old,
    extensions: old.extensions.map((e) => ({
      ...e,
      sipPassword: (today.get(e.id) as typeof e | undefined)?.sipPassword ?? e.sipPassword,
    })),
    trunks: old.trunks.map((t) => ({
      ...t,
      password: (today.get(t.id) as typeof t | undefined)?.password ?? t.password,
    })),
  };
}
