import { v7 as uuid } from 'uuid';
import { LOG_PIECE_BYTES } from '@/contract/records';
import { Refused, demand, type Actor } from '../../access/rights';
import { seal, unsealBytes } from '../../access/secrets';
import { change, reading, rows, writing } from '../../db/pool';

/* A call log on its way in: pieces of a file, sealed, so that neither the request nor the database ever holds it whole. */

const KEPT_DAYS = 2;
const DAY = 86_400_000;

const contextOf = (log: string, piece: number) => `${log} call log ${piece}`;

/** Begins a log; those of some days ago go. */
export async function beginLog(
  actor: Actor,
  { name, octets }: { name: string; octets: number },
): Promise<{ id: string; pieceOctets: number }> {
  const id = uuid();
  const now = new Date();
  await writing(async (c) => {
    await change(c, 'DELETE FROM call_log WHERE at < ?', [new Date(now.getTime() - KEPT_DAYS * DAY)]);
    await change(c, 'INSERT INTO call_log (id, name, octets, account, at) VALUES (?, ?, ?, ?, ?)', [
      id,
      name,
      octets,
      actor.account,
      now,
    ]);
  });
  return { id, pieceOctets: LOG_PIECE_BYTES };
}

export interface Log {
  id: string;
  name: string;
  octets: number;
}

/** A log that somebody began, while it is kept. */
export async function logOf(actor: Actor, id: string): Promise<Log> {
  demand(actor, 'keepCalls');
  const [found] = await reading((c) =>
    rows<Log>(c, 'SELECT id, name, octets FROM call_log WHERE id = ? AND account = ?', [id, actor.account]),
  );
  if (!found) throw new Refused(404, 'no-such-log', 'The log is not kept any more; choose the file again.');
  return { ...found, octets: Number(found.octets) };
}

const sizeOf = (octets: number, piece: number) => Math.min(LOG_PIECE_BYTES, octets - piece * LOG_PIECE_BYTES);

/** Keeps one piece of a log; the same one again takes its place. */
export async function keepPiece(actor: Actor, id: string, text: string, content: Buffer): Promise<{ ok: true }> {
  const log = await logOf(actor, id);
  const piece = /^[0-9]{1,6}$/.test(text) ? Number(text) : NaN;
  const size = sizeOf(log.octets, piece);
  if (!(size > 0))
    throw new Refused(404, 'no-such-piece', `The log has ${Math.ceil(log.octets / LOG_PIECE_BYTES)} pieces, from 0.`);
  if (content.length !== size)
    throw new Refused(422, 'wrong-size', `Piece ${piece} has ${size} octets; ${content.length} came.`);
  await writing((c) =>
    change(c, 'REPLACE INTO call_log_piece (log, piece, content) VALUES (?, ?, ?)', [
      id,
      piece,
      seal(content, contextOf(id, piece)),
    ]),
  );
  return { ok: true };
}

/** The pieces of a log in order; 422 where one never came. */
export async function* piecesOf(log: Log): AsyncGenerator<Buffer, void> {
  for (let piece = 0; sizeOf(log.octets, piece) > 0; piece++) {
    const [found] = await reading((c) =>
      rows<{ content: Buffer }>(c, 'SELECT content FROM call_log_piece WHERE log = ? AND piece = ?', [log.id, piece]),
    );
    if (!found) throw new Refused(422, 'piece-missing', `Piece ${piece} of the log did not come; send it again.`);
    yield unsealBytes(found.content, contextOf(log.id, piece));
  }
}

export const dropLog = (id: string): Promise<number> =>
  writing((c) => change(c, 'DELETE FROM call_log WHERE id = ?', [id]));
