import { createHash } from 'node:crypto';
import { inflateRawSync, deflateRawSync } from 'node:zlib';
import { upgradeDocument, emptyPlan, planSchema, planText, type Plan, type DraftKind } from '@/core/plan';
import { compile, type Exchange } from '@/core/routing';
import { loadPlan, type LoadedPlan } from '../db/load-plan';
import { reading, rows, snapshot, type Queryable } from '../db/pool';
import { Refused } from '../access/rights';
import { planWith, rowVersionsWith, type Changed } from '@/core/plan/plan-with';

/** A plan as the server holds it: kept per draft version and per revision (ARCHITECTURE principle 9). */
export interface HeldPlan extends LoadedPlan {
  /** draft version, or revision number */
  version: number;
  exchange: () => Exchange;
  /** what is compiled already, of this plan or of the one before it; null when nothing is */
  compiled: () => Exchange | null;
}

interface Held {
  draft: HeldPlan | null;
  revisions: Map<number, HeldPlan>;
}

const MOST_REVISIONS_HELD = 6;
const held = ((globalThis as unknown as { polydromeHeld?: Held }).polydromeHeld ??= {
  draft: null,
  revisions: new Map(),
});

/** `before` is the plan this one was made from by an edit: what it has compiled is used again. */
function hold(loaded: LoadedPlan, version: number, before?: HeldPlan): HeldPlan {
  let exchange: Exchange | null = null;
  let known = before?.compiled() ?? null;
  return {
    ...loaded,
    version,
    exchange() {
      exchange ??= compile(loaded.plan, known ?? undefined);
      known = null;
      return exchange;
    },
    compiled: () => exchange ?? known,
  };
}

/** Version of the draft and number of the live revision (0: nothing was ever live), in one query. */
export async function versions(connection?: Queryable): Promise<{ draft: number; live: number }> {
  const read = (c: Queryable) =>
    rows<{ draft: number; live: number }>(
      c,
      'SELECT (SELECT version FROM draft WHERE id = 1) AS draft, (SELECT COALESCE(MAX(number), 0) FROM revision) AS live',
    );
  const [found] = await (connection ? read(connection) : reading(read));
  return { draft: Number(found!.draft), live: Number(found!.live) };
}

/** The draft as it stands now. One that is known already is brought up to date from the journal, else it is read whole. */
export async function draftPlan(): Promise<HeldPlan> {
  const { draft } = await versions();
  if (held.draft?.version === draft) return held.draft;
  const fresh = await snapshot(async (c) => {
    const at = await versions(c);
    return draftInside(c, at.draft);
  });
  if (!held.draft || held.draft.version < fresh.version) held.draft = fresh;
  return held.draft;
}

/** More journal rows than this are not followed one by one. */
const MOST_FOLLOWED = 100_000;

/** What a known draft became by the edits since, from their journal rows; null when there are too many. */
async function followed(connection: Queryable, known: HeldPlan, version: number): Promise<HeldPlan | null> {
  const since = await rows<{ object_kind: DraftKind; object_id: string; after_value: unknown }>(
    connection,
    'SELECT object_kind, object_id, after_value FROM journal WHERE draft_version > ? AND draft_version <= ? ORDER BY id LIMIT ?',
    [known.version, version, String(MOST_FOLLOWED + 1)],
  );
  if (since.length > MOST_FOLLOWED) return null;
  const edits = since.map((r): Changed => ({
    kind: r.object_kind,
    id: r.object_id,
    value: (typeof r.after_value === 'string' ? JSON.parse(r.after_value) : r.after_value) as Changed['value'],
  }));
  const plan = planWith(known.plan, edits);
  return hold({ plan, rowVersions: rowVersionsWith(known.rowVersions, edits) }, version, known);
}

/** The draft read inside a transaction that holds its lock. */
export async function draftInside(connection: Queryable, version: number): Promise<HeldPlan> {
  if (held.draft?.version === version) return held.draft;
  if (held.draft && held.draft.version < version && held.draft.rowVersions.size > 0) {
    const next = await followed(connection, held.draft, version);
    if (next) return next;
  }
  const loaded = await loadPlan(connection);
  return hold(loaded ?? { plan: emptyPlan('New organisation'), rowVersions: new Map() }, version);
}

/** Keeps what a committed edit made of the draft, so that it need not be read again. */
export function draftBecame(plan: Plan, rowVersions: Map<string, number>, version: number, before: HeldPlan): void {
  if (!held.draft || held.draft.version < version) held.draft = hold({ plan, rowVersions }, version, before);
}

/** The plan that is live; an empty one as number 0 before anything ever was. */
export async function livePlan(): Promise<HeldPlan> {
  const { live } = await versions();
  return revisionPlan(live);
}

/** Revision `number`; 404 when there is none. */
export async function revisionPlan(number: number): Promise<HeldPlan> {
  const known = held.revisions.get(number);
  if (known) return known;
  if (number === 0) return keep(hold({ plan: emptyPlan('Nothing live yet'), rowVersions: new Map() }, 0));
  const [found] = await reading((c) =>
    rows<{ document: Buffer; checksum: Buffer }>(c, 'SELECT document, checksum FROM revision WHERE number = ?', [
      number,
    ]),
  );
  if (!found) throw new Refused(404, 'no-such-revision', `There is no revision ${number}.`, 'revision');
  const text = inflateRawSync(found.document);
  if (!createHash('sha256').update(text).digest().equals(found.checksum))
    throw new Error(`revision ${number} does not fit its checksum`);
  // Written by an older version of the program, perhaps; it was whole when it went live.
  const upgraded = upgradeDocument(JSON.parse(text.toString('utf8')));
  if (!upgraded.ok) throw new Error(`revision ${number}: ${upgraded.errors[0]!.sentence}`);
  return keep(hold({ plan: planSchema.parse(upgraded.document), rowVersions: new Map() }, number));
}

function keep(plan: HeldPlan): HeldPlan {
  held.revisions.set(plan.version, plan);
  for (const old of [...held.revisions.keys()].slice(0, Math.max(0, held.revisions.size - MOST_REVISIONS_HELD)))
    held.revisions.delete(old);
  return plan;
}

/** A plan document as it is stored: canonical text, compressed, with its checksum. */
export function packed(plan: Plan): { document: Buffer; checksum: Buffer } {
  const text = Buffer.from(planText(plan), 'utf8');
  return { document: deflateRawSync(text), checksum: createHash('sha256').update(text).digest() };
}
