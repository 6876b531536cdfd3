import type { Kept, Rehearsed } from '@/contract/rehearsals';
import { readCall } from '@/core/ask';
import { KINDS, isKind, planWith, type Changed, type DraftKind, type Plan } from '@/core/plan';
import { actName } from '@/core/acts/edit';
import { compile, trace, type Exchange, type Situation } from '@/core/routing';
import { reading, rows } from '../../db/pool';
import type { HeldPlan } from '../ground/held';
import { sightIn, type By, type Given } from '../ground/question';

/* Rehearsals kept as tests, run again in the draft as it stands; one that fails names the edit that made it so. */

/** How a call went: where it ended, and what was heard, in order. */
function wentIn(
  exchange: Exchange,
  { question, situation }: Pick<Kept, 'question' | 'situation'>,
): Kept['expects'] | null {
  const at = Date.parse(question.at);
  const read = readCall({ from: question.from, dial: question.dial, when: 'now', calling: null }, exchange, at);
  if (!read.ok) return null;
  const t = trace(exchange, { ...read.call, at }, situation as Situation);
  return {
    outcome: t.outcome,
    lands: t.lands ? { kind: t.lands.kind, id: t.lands.id, label: t.lands.label } : null,
    then: t.then.map((x) => ({ kind: x.lands.kind, id: x.lands.id, label: x.lands.label })),
    heard: t.heard.map((h) => h.prompt ?? h.phrase ?? ''),
  };
}

/** How a call goes in the draft; null: it can’t be made. */
export const rehearsedNow = ({ draft }: Given, call: Pick<Kept, 'question' | 'situation'>) =>
  wentIn(draft.exchange(), call);

/** What must be as it was: names may change. */
const told = (w: Kept['expects'] | null): string =>
  w === null ? '' : JSON.stringify([w.outcome, w.lands?.kind, w.lands?.id, w.then.map((t) => [t.kind, t.id]), w.heard]);

/** How each kept rehearsal goes now, as far as its reader may see it; one that goes otherwise names the edit after which it did. */
export async function rehearsed(
  given: Given,
  { tests, reader, of }: By & { tests: readonly Kept[]; of: 'draft' | 'live' },
): Promise<{ kept: Kept; went: Rehearsed }[]> {
  const draft = given[of];
  const out: { kept: Kept; went: Rehearsed }[] = [];
  for (const test of tests) {
    const now = wentIn(draft.exchange(), test);
    const holds = told(now) === told(test.expects);
    // Of what is live it is only said that it goes otherwise: the draft tells by whose edit.
    const brokenBy = holds || of === 'live' ? null : await culprit(draft, test);
    out.push({ kept: test, went: { id: test.id, holds, now, brokenBy } });
  }
  return sightIn(draft, reader).cut(out);
}

interface JournalRow {
  id: number;
  batch: string;
  object_kind: string;
  object_id: string;
  before_value: unknown;
  after_value: unknown;
  act_name: string | null;
  name: string;
  at: Date;
}

const MOST_EDITS = 5000;

/** Which act broke a test, by its id, as it was found in which version of the draft: older acts need no second look. */
const found = new Map<string, { version: number; brokenBy: Rehearsed['brokenBy'] }>();

/** What the journal says that an object was, with what its kind has got since; a kind that is no more changes nothing. */
function asChange(r: JournalRow, stored: unknown): Changed[] {
  const kind = r.object_kind as DraftKind;
  if (kind !== 'organisation' && !isKind(kind)) return [];
  const value = typeof stored === 'string' ? (JSON.parse(stored) as unknown) : stored;
  const read = value !== null && kind !== 'organisation' ? KINDS[kind].schema.safeParse(value) : null;
  return [{ kind, id: r.object_id, value: (read?.success ? read.data : value) as Changed['value'] }];
}

/** The act after which a rehearsal that goes otherwise now did so first since it last held; null where that can't be told. */
async function culprit(draft: HeldPlan, test: Kept): Promise<Rehearsed['brokenBy']> {
  const known = found.get(test.id);
  if (known?.version === draft.version) return known.brokenBy;
  const since = Math.max(test.draftVersion, known?.version ?? 0);
  const journal = await reading((c) =>
    rows<JournalRow & Record<string, unknown>>(
      c,
      `SELECT j.id, j.batch, j.object_kind, j.object_id, j.before_value, j.after_value, j.at, x.name AS act_name, a.name FROM journal j
       JOIN account a ON a.id = j.account LEFT JOIN act x ON x.id = j.batch
       WHERE j.draft_version > ? AND j.draft_version <= ? ORDER BY j.draft_version DESC, j.id DESC LIMIT ${MOST_EDITS + 1}`,
      [since, draft.version],
    ),
  );
  let brokenBy = known?.brokenBy ?? null;
  if (journal.length > MOST_EDITS) brokenBy = null;
  else {
    // Back from now, act by act, until it holds: the act that was taken back last is the one.
    let plan: Plan = draft.plan;
    let exchange = draft.exchange();
    for (const batch of new Set(journal.map((r) => r.batch))) {
      const own = journal.filter((r) => r.batch === batch);
      plan = own.reduce((p, r) => planWith(p, asChange(r, r.before_value)), plan);
      exchange = compile(plan, exchange);
      if (told(wentIn(exchange, test)) === told(test.expects)) {
        brokenBy = named(own);
        break;
      }
      // Others have questions too.
      await new Promise((next) => setImmediate(next));
    }
  }
  found.set(test.id, { version: draft.version, brokenBy });
  return brokenBy;
}

/** An act by its lines in the journal, the newest first. */
function named(lines: readonly JournalRow[]): NonNullable<Rehearsed['brokenBy']> {
  const oldest = lines.at(-1)!;
  const differences = [...lines].reverse().flatMap((r) => {
    const [before] = asChange(r, r.before_value);
    const [after] = asChange(r, r.after_value);
    return before && after ? [{ kind: before.kind, id: r.object_id, before: before.value, after: after.value }] : [];
  });
  return {
    name: oldest.act_name || actName(differences),
    by: oldest.name,
    at: oldest.at.toISOString(),
    batch: oldest.batch,
  };
}
