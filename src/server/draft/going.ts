import { v7 as uuid } from 'uuid';
import type { Body } from '@/contract';
import type { Going } from '@/contract/going-live';
import type { Revision } from '@/contract/plan';
import { accountActor } from '../access/accounts';
import { Refused, demand, demandEverywhere, mayEverywhere, type Actor } from '../access/rights';
import { change, reading, rows, writing, type Row, type Writer } from '../db/pool';
import { ask } from '../engine';
import { addMail } from '../mail/queue';
import { goingPolicy, insertRevision, refuseErrors, refuseQuiet } from './revisions';

/* Going live later: when its time comes, or when a second person agrees. What goes is what was read when it was asked for. */

const COLUMNS = `g.id, g.state, g.due, g.draft_version, g.base, g.edits, COALESCE(JSON_LENGTH(g.left_keys), 0) AS left_objects, g.note,
  g.override, g.tell, g.account, g.made_at, g.outcome, g.revision, a.name AS made_by, b.name AS agreed`;
const FROM = 'going_live g JOIN account a ON a.id = g.account LEFT JOIN account b ON b.id = g.agreed_by';

const parsed = <T>(value: unknown) => (typeof value === 'string' ? JSON.parse(value) : value) as T;

const fromRow = (r: Row, actor: Actor): Going => ({
  id: r.id as string,
  state: r.state as Going['state'],
  at: (r.due as Date | null)?.toISOString() ?? null,
  by: r.made_by as string,
  mine: r.account === actor.account,
  agreedBy: r.agreed as string | null,
  madeAt: (r.made_at as Date).toISOString(),
  note: r.note as string,
  edits: r.edits as number,
  left: Number(r.left_objects),
  base: r.base as number,
  tell: mayEverywhere(actor, 'goLive') ? parsed<string[]>(r.tell) : [],
  // Why it was refused names what others may not see.
  outcome: mayEverywhere(actor, 'look') ? (r.outcome as string) : '',
  revision: r.revision as number | null,
});

/** So many of what is over are told. */
const LAST = 5;
const WAITS = "g.state IN ('planned', 'waits for a second person')";

/** Everything that waits, and what became of the last ones. */
export async function listGoings(actor: Actor): Promise<Going[]> {
  demand(actor, 'look');
  const found = await reading((c) =>
    rows(
      c,
      `SELECT ${COLUMNS} FROM ${FROM} WHERE ${WAITS} OR g.id IN (SELECT id FROM (SELECT g.id FROM going_live g WHERE NOT ${WAITS} ORDER BY g.made_at DESC LIMIT ${LAST}) AS last) ORDER BY ${WAITS} DESC, g.made_at DESC`,
    ),
  );
  return found.map((r) => fromRow(r, actor));
}

async function readGoing(actor: Actor, id: string): Promise<Going> {
  const [found] = await reading((c) => rows(c, `SELECT ${COLUMNS} FROM ${FROM} WHERE g.id = ?`, [id]));
  if (!found) throw new Refused(404, 'no-such-going', 'There is no such plan to go live.', 'id');
  return fromRow(found, actor);
}

/**
 * Has the draft go live as it is now: at a time, or when a second person agrees. It is checked as going live is, now and again then.
 * The draft may be edited on; what is edited stays in the draft.
 */
export async function planGoing(actor: Actor, body: Body<'planGoing'>): Promise<Going> {
  demandEverywhere(actor, 'goLive');
  const { draftVersion, note, override, leave, tell } = body;
  const due = body.at === null ? null : new Date(body.at);
  if (due && due.getTime() <= Date.now()) throw new Refused(422, 'past', 'That time is over; name a later one.', 'at');
  const { secondPerson, quietUntil } = await goingPolicy(actor, due?.getTime() ?? Date.now());
  if (quietUntil !== null && (due || !secondPerson)) refuseQuiet(actor, quietUntil, override);
  if (due === null && !secondPerson) throw new Refused(422, 'no-time', 'Say when, or go live now.', 'at');
  const packed = await ask('packed', { reader: actor, leave });
  if (packed.version !== draftVersion)
    throw new Refused(409, 'draft-moved', 'The draft has changed since you read it; read what is new.', 'draftVersion');
  if (packed.objects === 0) throw new Refused(409, 'nothing-to-do', 'Nothing would go live.');
  await refuseErrors(actor, draftVersion, override, leave);
  const id = uuid();
  await writing((c) =>
    change(
      c,
      `INSERT INTO going_live (id, state, due, document, checksum, draft_version, base, edits, left_keys, note, override, tell, account, made_at)
       VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
      [
        id,
        secondPerson ? 'waits for a second person' : 'planned',
        due,
        Buffer.from(packed.document),
        Buffer.from(packed.checksum),
        draftVersion,
        packed.live,
        packed.edits,
        packed.left && JSON.stringify(packed.left),
        note,
        override,
        JSON.stringify(tell),
        actor.account,
        new Date(),
      ],
    ),
  );
  return readGoing(actor, id);
}

/** Agrees to what somebody else asked for; without a time, or with one that is over, it goes live at once. */
export async function agreeGoing(actor: Actor, id: string): Promise<Going> {
  demandEverywhere(actor, 'goLive');
  const going = await readGoing(actor, id);
  if (going.mine)
    throw new Refused(403, 'own-asking', 'Somebody else has to agree to what you asked for yourself.', 'id');
  const done = await writing((c) =>
    change(
      c,
      "UPDATE going_live SET state = 'planned', agreed_by = ? WHERE id = ? AND state = 'waits for a second person'",
      [actor.account, id],
    ),
  );
  if (done === 0) throw over(going);
  if (going.at === null || Date.parse(going.at) <= Date.now()) await perform(id);
  return readGoing(actor, id);
}

const over = ({ state, outcome }: Going) =>
  new Refused(409, 'over', `It waits no more: ${state}${outcome ? `. ${outcome}` : ''}.`.replace('..', '.'), 'id');

/** Withdraws what waits. */
export async function withdrawGoing(actor: Actor, id: string): Promise<Going> {
  demandEverywhere(actor, 'goLive');
  const going = await readGoing(actor, id);
  const done = await writing((c) =>
    change(
      c,
      "UPDATE going_live SET state = 'withdrawn', outcome = ?, ended_at = ? WHERE id = ? AND state IN ('planned', 'waits for a second person')",
      [`Withdrawn by ${actor.name}.`, new Date(), id],
    ),
  );
  if (done === 0) throw over(going);
  return readGoing(actor, id);
}

/** Makes live what is due, one at a time; false: nothing is. */
export async function goLiveDue(now: Date): Promise<boolean> {
  const [found] = await reading((c) =>
    rows<{ id: string }>(
      c,
      "SELECT id FROM going_live WHERE state = 'planned' AND (due IS NULL OR due <= ?) ORDER BY due, made_at LIMIT 1",
      [now],
    ),
  );
  if (!found) return false;
  await perform(found.id);
  return true;
}

interface Waiting extends Row {
  document: Buffer;
  checksum: Buffer;
  draft_version: number;
  base: number;
  edits: number;
  left_keys: unknown;
  note: string;
  override: string;
  tell: unknown;
  account: string;
}

/** Checks what is due once more and makes it live, or says why not. */
async function perform(id: string): Promise<void> {
  const [waits] = await reading((c) =>
    rows<Waiting>(c, "SELECT * FROM going_live WHERE id = ? AND state = 'planned'", [id]),
  );
  if (!waits) return;
  const why = await whyNotNow(waits);
  if (why !== null) return writing((c) => ended(c, id, waits, null, why));
  await writing(async (c) => {
    const [lock] = await rows<{ state: string; live: number }>(
      c,
      'SELECT g.state, (SELECT COALESCE(MAX(number), 0) FROM revision) AS live FROM going_live g, draft d WHERE g.id = ? AND d.id = 1 FOR UPDATE',
      [id],
    );
    if (lock?.state !== 'planned') return;
    if (Number(lock.live) !== waits.base) return ended(c, id, waits, null, moved(Number(lock.live), waits.base));
    const at = new Date();
    const { note, override, account, edits } = waits;
    const left = waits.left_keys === null ? null : parsed<string[]>(waits.left_keys);
    const number = waits.base + 1;
    const revision: Revision = { number, note, override, by: '', at: at.toISOString(), edits, left: left?.length ?? 0 };
    const packed = { ...waits, left, draftVersion: Number(waits.draft_version), live: waits.base };
    await insertRevision(c, packed, revision, account);
    await ended(c, id, waits, number, `Revision ${number} is live.`);
  });
}

const moved = (live: number, base: number) =>
  `Revision ${live} went live meanwhile, and this was made from ${base === 0 ? 'nothing' : `revision ${base}`}: it would undo it. Read the draft again.`;

/** Why it may not go live any more; null: it may. */
async function whyNotNow(waits: Waiting): Promise<string | null> {
  const actor = await accountActor(waits.account, '127.0.0.1');
  if (!actor || !mayEverywhere(actor, 'goLive')) return 'Whoever asked for it may not make anything live any more.';
  const gate = await ask('goingGate', { document: waits.document, now: Date.now() });
  if (gate.live !== waits.base) return moved(gate.live, waits.base);
  if (gate.quietUntil !== null && waits.override === '')
    return `Nothing goes live at this time of the week; it may again from ${new Date(gate.quietUntil).toISOString()}.`;
  const [first] = gate.emergency.length > 0 || waits.override === '' ? [...gate.emergency, ...gate.errors] : [];
  return first ? `An error stands against it: ${first.sentence}` : null;
}

/** Takes down what became of it, and has those told who are to know. */
async function ended(c: Writer, id: string, waits: Waiting, revision: number | null, outcome: string): Promise<void> {
  await change(c, 'UPDATE going_live SET state = ?, outcome = ?, revision = ?, ended_at = ? WHERE id = ?', [
    revision === null ? 'refused' : 'live',
    outcome.slice(0, 1000),
    revision,
    new Date(),
    id,
  ]);
  const subject = revision === null ? 'It did not go live' : `Revision ${revision} is live`;
  const text = [outcome, waits.note && `Note: ${waits.note}`].filter(Boolean).join('\n\n');
  for (const to of parsed<string[]>(waits.tell)) await addMail(c, { to, subject, text, about: 'going-live' });
}
