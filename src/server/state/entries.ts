import { v7 as uuid } from 'uuid';
import type { Actor } from '../access/rights';
import { change, reading, rows, type Writer } from '../db/pool';

/* Rows of the state beside the plan (ARCHITECTURE principle 6): each has its times, so that the past can be asked too. */

export type StateKind =
  'forwarding' | 'notice' | 'switch' | 'blocked' | 'presence' | 'reach' | 'greeting' | 'signed-in' | 'paused' | 'full';

/** Something that holds from one moment to another, beside draft and revisions. */
export interface Entry {
  id: string;
  kind: StateKind;
  /** what it is about, by id */
  subject: string;
  value: Record<string, unknown>;
  /** milliseconds since 1970 UTC, half-open; `until` null: no end is set */
  since: number;
  until: number | null;
  /** who set it */
  by: string;
}

/** Begins something inside a caller's transaction. */
export async function addEntry(
  c: Writer,
  actor: Pick<Actor, 'account'>,
  { kind, subject, value }: Pick<Entry, 'kind' | 'subject'> & { value: object },
  times: { since: Date; until: Date | null },
): Promise<string> {
  const id = uuid();
  await change(
    c,
    'INSERT INTO state_entry (id, kind, subject, value, since, until, account) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [id, kind, subject, JSON.stringify(value), times.since, times.until, actor.account],
  );
  return id;
}

/** Which entries are meant: one, or all of a kind about something, with some value in them. */
export interface Which {
  kind: StateKind;
  id?: string;
  subject?: string;
  /** a key of the value and what it must be */
  with?: { key: 'when' | 'to' | 'situation'; is: string };
}

/** Ends what holds or is to come, inside a caller's transaction; what has not begun is as if it had never been. Tells how many. */
export async function endEntries(c: Writer, which: Which): Promise<number> {
  const now = new Date();
  const conditions = [
    ['kind = ?', which.kind],
    ...(which.id === undefined ? [] : [['id = ?', which.id]]),
    ...(which.subject === undefined ? [] : [['subject = ?', which.subject]]),
    ...(which.with === undefined ? [] : [[`JSON_VALUE(value, '$.${which.with.key}') = ?`, which.with.is]]),
  ] as [string, string][];
  return change(
    c,
    `UPDATE state_entry SET until = GREATEST(since, ?) WHERE (until IS NULL OR until > GREATEST(since, ?)) AND ${conditions.map(([text]) => text).join(' AND ')}`,
    [now, now, ...conditions.map(([, value]) => value)],
  );
}

/** How many entries of a kind hold now about something, inside a caller's transaction. */
export async function entriesOf(c: Writer, kind: StateKind, subject: string): Promise<number> {
  const now = new Date();
  const found = await rows(
    c,
    'SELECT id FROM state_entry WHERE kind = ? AND subject = ? AND since <= ? AND (until IS NULL OR until > ?)',
    [kind, subject, now, now],
  );
  return found.length;
}

/** Everything that holds at some moment of a span (milliseconds since 1970 UTC, half-open), the newest first. */
export async function entriesIn(
  span: { from: number; to: number },
  only: { kind?: StateKind; subject?: string } = {},
): Promise<Entry[]> {
  const found = await reading((c) =>
    rows(
      c,
      `SELECT s.id, s.kind, s.subject, s.value, s.since, s.until, a.name FROM state_entry s LEFT JOIN account a ON a.id = s.account
       WHERE s.since < ? AND (s.until IS NULL OR (s.until > ? AND s.until > s.since))${only.kind ? ' AND s.kind = ?' : ''}${only.subject ? ' AND s.subject = ?' : ''}
       ORDER BY s.id DESC`,
      [new Date(span.to), new Date(span.from), ...[only.kind, only.subject].filter((v) => v !== undefined)],
    ),
  );
  return found.map((r) => ({
    id: r.id as string,
    kind: r.kind as StateKind,
    subject: r.subject as string,
    value: (typeof r.value === 'string' ? JSON.parse(r.value) : r.value) as Record<string, unknown>,
    since: (r.since as Date).getTime(),
    until: (r.until as Date | null)?.getTime() ?? null,
    by: (r.name as string | null) ?? 'somebody who is gone',
  }));
}

/** What holds at one moment, the newest first. */
export const entriesAt = (at: number, only?: { kind?: StateKind; subject?: string }): Promise<Entry[]> =>
  entriesIn({ from: at, to: at + 1 }, only);
