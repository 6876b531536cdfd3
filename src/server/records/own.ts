import { reading, rows, type Row } from '../db/pool';

/* Calls to somebody's own phones, numbers and mailboxes, for the page of their own. */

const DAYS = 28;
const MOST = 60;

/** A call that came to somebody. */
export interface OwnCall {
  started: string;
  /** E.164 or digits of an extension; null: withheld */
  calling: string | null;
  answered: boolean;
  /** it ended in a mailbox */
  inMailbox: boolean;
  seconds: number;
}

/** Calls of the last four weeks that came to any of some phones or mailboxes, the newest first. */
export async function callsTo({ ends, now }: { ends: readonly string[]; now: number }): Promise<OwnCall[]> {
  if (ends.length === 0) return [];
  const marks = ends.map(() => '?').join();
  const since = new Date(now - DAYS * 86_400_000);
  // Each of both is found by an index of its own.
  const found = await reading(async (c) => {
    const lists: Row[][] = [];
    for (const column of ['answered_by', 'end_id'])
      lists.push(
        await rows(
          c,
          `SELECT started, id, answered, ended, other, calling_read, calling_delivered, end_kind, missed FROM call_record WHERE ${column} IN (${marks}) AND started >= ? AND way <> 'out' ORDER BY started DESC LIMIT ${MOST}`,
          [...ends, since],
        ),
      );
    return lists.flat();
  });
  const byKey = new Map(found.map((r) => [`${(r.started as Date).getTime()} ${r.id as string}`, r]));
  return [...byKey.values()]
    .sort((a, b) => (b.started as Date).getTime() - (a.started as Date).getTime())
    .slice(0, MOST)
    .map((r) => ({
      started: (r.started as Date).toISOString(),
      calling: (r.calling_read as string | null) ?? (r.calling_delivered as string | null),
      answered: r.answered !== null && r.missed === 0 && r.end_kind !== 'mailbox',
      inMailbox: r.end_kind === 'mailbox',
      seconds: r.answered === null ? 0 : ((r.ended as Date).getTime() - (r.answered as Date).getTime()) / 1000,
    }));
}
