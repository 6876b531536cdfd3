import { createHash } from 'node:crypto';
import { inflateRawSync } from 'node:zlib';
import {
  PlanIndex,
  RowVersions,
  emptyPlan,
  storedPlan,
  planWith,
  sharing,
  upgradeDocument,
  type Changed,
  type DraftKind,
  type Plan,
} from '@/core/plan';
import { compile, type Exchange } from '@/core/routing';
import { loadPlan, type LoadedPlan } from '../../db/load-plan';
import { reading, rows, snapshot, type Reader } from '../../db/pool';
import { readVersions, type Versions } from '../../db/versions';
import { Refused } from '../../access/rights';

/* The draft and what is live as this process holds them, compiled, and brought up to date from the journal (principle 9). */

/** A plan held here. */
export interface HeldPlan extends LoadedPlan {
  /** draft version, or revision number */
  version: number;
  exchange: () => Exchange;
  /** what is compiled already, of this plan or of the one before it; null when nothing is */
  compiled: () => Exchange | null;
}

/** Draft and live of one moment. */
export interface Both {
  draft: HeldPlan;
  live: HeldPlan;
}

const MOST_REVISIONS_HELD = 4;
const MOST_RECENT_HELD = 4;
/** More journal rows than this are not followed one by one. */
const MOST_FOLLOWED = 100_000;

function hold(loaded: LoadedPlan, version: number, before?: HeldPlan): HeldPlan {
  let exchange: Exchange | null = null;
  let known = before?.compiled() ?? null;
  return {
    ...loaded,
    version,
    exchange() {
      exchange ??= compile(loaded.plan, known);
      known = null;
      return exchange;
    },
    compiled: () => exchange ?? known,
  };
}

/** What edits between two draft versions made of things, from their journal rows; null when there are too many. */
async function changesSince(connection: Reader, from: number, to: number): Promise<Changed[] | null> {
  const since = await rows<{ object_kind: DraftKind; object_id: string; after_value: unknown }>(
    connection,
    'SELECT object_kind, object_id, after_value FROM journal WHERE draft_version > ? AND draft_version <= ? ORDER BY id LIMIT ?',
    [from, to, String(MOST_FOLLOWED + 1)],
  );
  if (since.length > MOST_FOLLOWED) return null;
  return since.map((r) => ({
    kind: r.object_kind,
    id: r.object_id,
    value: (typeof r.after_value === 'string' ? JSON.parse(r.after_value) : r.after_value) as Changed['value'],
  }));
}

/** What one thread (or the worker) holds: one at a time changes it. */
export class Ground {
  private heldDraft: HeldPlan | null = null;
  private heldLive: HeldPlan | null = null;
  private heldIndex: { of: Plan; index: PlanIndex } | null = null;
  /** what was held last, the newest at the end: they share nearly everything */
  private recent: Both[] = [];
  private readonly revisions = new Map<number, HeldPlan>();
  private turn: Promise<unknown> = Promise.resolve();

  /**
   * Draft and live as they stand now, or as they stood at some versions that a page began with, so that all its questions are
   * answered from the same: as long as those are not long gone; then as they stand now.
   */
  now(wanted?: Versions): Promise<Both> {
    const next = this.turn.then(() => this.brought(wanted));
    this.turn = next.catch(() => undefined);
    return next;
  }

  private async brought(wanted: Versions | undefined): Promise<Both> {
    const isOf = (b: Both, at: Versions) => b.draft.version === at.draft && b.live.version === at.live;
    if (wanted) {
      const held = this.recent.findLast((b) => isOf(b, wanted));
      if (held) return held;
    }
    const newest = this.recent.at(-1);
    // Ahead of what is held: brought just so far, and not to where others have got meanwhile.
    const exactly = newest && wanted && wanted.draft >= newest.draft.version && wanted.live >= newest.live.version;
    const at = exactly ? wanted : await reading(readVersions);
    if (!newest || !isOf(newest, at))
      await snapshot(async (c) => {
        const inside = exactly ? wanted : await readVersions(c);
        await this.bringLive(c, inside);
        await this.bringDraft(c, inside);
        // What went live is the draft of that version: held once where nothing was edited since.
        if (inside.draft === inside.liveDraft && this.heldDraft && this.heldLive) this.adopt(inside);
      });
    const both = { draft: this.heldDraft!, live: this.heldLive! };
    if (both.draft !== newest?.draft || both.live !== newest.live)
      this.recent = [...this.recent, both].slice(-MOST_RECENT_HELD);
    return both;
  }

  private async bringDraft(c: Reader, at: Versions): Promise<void> {
    const known = this.heldDraft;
    if (known?.version === at.draft) return;
    if (known && known.version < at.draft && known.rowVersions.any) {
      const edits = await changesSince(c, known.version, at.draft);
      if (edits) {
        const plan = planWith(known.plan, edits);
        this.heldDraft = hold({ plan, rowVersions: known.rowVersions.with(edits) }, at.draft, known);
        if (this.heldIndex?.of === known.plan) {
          this.heldIndex.index.advance(plan, edits);
          this.heldIndex.of = plan;
        } else this.heldIndex = null;
        return;
      }
    }
    // The tables are read as they stand, whatever was wanted.
    const { draft: version } = await readVersions(c);
    const loaded = await loadPlan(c);
    const plan = loaded && this.heldLive ? sharing(loaded.plan, this.heldLive.plan) : loaded?.plan;
    this.heldDraft = hold(
      { plan: plan ?? emptyPlan('New organisation'), rowVersions: loaded?.rowVersions ?? new RowVersions() },
      version,
      this.heldLive ?? undefined,
    );
    this.heldIndex = null;
  }

  private async bringLive(c: Reader, at: Versions): Promise<void> {
    if (this.heldLive?.version === at.live) return;
    // Going live makes the draft the new revision: nothing has to be read, parsed or compiled again.
    if (this.heldDraft?.version === at.liveDraft && at.live > 0 && this.heldDraft.rowVersions.any) {
      this.heldLive = hold({ plan: this.heldDraft.plan, rowVersions: new RowVersions() }, at.live, this.heldDraft);
      return;
    }
    const since = this.heldLive && this.heldLive.version > 0 ? await this.liveFollowed(c, this.heldLive, at) : null;
    if (since) this.heldLive = since;
    else {
      const [read, like] = [await readRevision(c, at.live), this.heldDraft ?? this.heldLive];
      this.heldLive = like ? hold({ ...read, plan: sharing(read.plan, like.plan) }, at.live, like) : read;
    }
  }

  /** The new revision made from the one before it by the edits between the two. */
  private async liveFollowed(c: Reader, before: HeldPlan, at: Versions): Promise<HeldPlan | null> {
    // A part of a draft is found in no journal.
    if (at.liveDraft < 0) return null;
    const [old] = await rows<{ draft_version: number }>(
      c,
      'SELECT draft_version FROM revision WHERE number = ? AND left_keys IS NULL',
      [before.version],
    );
    const edits = old ? await changesSince(c, Number(old.draft_version), at.liveDraft) : null;
    return edits && hold({ plan: planWith(before.plan, edits), rowVersions: new RowVersions() }, at.live, before);
  }

  private adopt(at: Versions): void {
    const { heldDraft: draft, heldLive: live } = this;
    if (!draft || !live || live.plan === draft.plan) return;
    this.heldLive = hold({ plan: draft.plan, rowVersions: new RowVersions() }, at.live, draft);
  }

  /** Revision `number`; 404 when there is none. */
  async revision(number: number): Promise<HeldPlan> {
    const { live } = await this.now();
    if (number === live.version) return live;
    const known = this.revisions.get(number);
    if (known) return known;
    const read = await reading((c) => readRevision(c, number));
    const shared = hold({ plan: sharing(read.plan, live.plan), rowVersions: read.rowVersions }, number, live);
    this.revisions.set(number, shared);
    for (const old of [...this.revisions.keys()].slice(0, Math.max(0, this.revisions.size - MOST_REVISIONS_HELD)))
      this.revisions.delete(old);
    return shared;
  }

  /** The index of the draft, carried along from edit to edit. */
  indexOf(draft: HeldPlan): PlanIndex {
    if (draft !== this.heldDraft) return new PlanIndex(draft.plan);
    if (this.heldIndex?.of !== draft.plan) this.heldIndex = { of: draft.plan, index: new PlanIndex(draft.plan) };
    return this.heldIndex.index;
  }
}

async function readRevision(c: Reader, number: number): Promise<HeldPlan> {
  if (number === 0) return hold({ plan: emptyPlan('Nothing live yet'), rowVersions: new RowVersions() }, 0);
  const [found] = await rows<{ document: Buffer; checksum: Buffer }>(
    c,
    'SELECT document, checksum FROM revision WHERE number = ?',
    [number],
  );
  if (!found) throw new Refused(404, 'no-such-revision', `There is no revision ${number}.`, 'revision');
  const text = inflateRawSync(found.document);
  if (!createHash('sha256').update(text).digest().equals(found.checksum))
    throw new Error(`revision ${number} does not fit its checksum`);
  // Written by an older version of the program, perhaps; it was whole when it went live.
  const upgraded = upgradeDocument(JSON.parse(text.toString('utf8')));
  if (!upgraded.ok) throw new Error(`revision ${number}: ${upgraded.errors[0]!.sentence}`);
  return hold({ plan: storedPlan(upgraded.document), rowVersions: new RowVersions() }, number);
}
