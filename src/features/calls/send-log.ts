import { call, sendFile } from '@/workbench/api';

export type Sent = { ok: true; id: string } | { ok: false; sentence: string };

/** How often a piece is sent before it is given up: a line that breaks for a moment costs a piece, not the file. */
const MOST_TRIES = 4;
const PAUSE_MS = 800;

/** Sends a log piece by piece; `onShare` is told how much of it has come. */
export async function sendLog(file: File, signal: AbortSignal, onShare: (share: number) => void): Promise<Sent> {
  const begun = await call('beginLog', { body: { name: file.name.slice(0, 200), octets: file.size } });
  if (!begun.ok) return { ok: false, sentence: begun.errors[0]!.sentence };
  const { id, pieceOctets } = begun.value;
  for (let piece = 0; piece * pieceOctets < file.size; piece++) {
    const from = piece * pieceOctets;
    const part = file.slice(from, from + pieceOctets);
    const sentence = await sendPiece(id, piece, part, signal);
    if (signal.aborted) return { ok: false, sentence: 'Stopped; nothing was kept.' };
    if (sentence !== null) return { ok: false, sentence };
    onShare(Math.min(1, (from + pieceOctets) / file.size));
  }
  return { ok: true, id };
}

async function sendPiece(id: string, piece: number, part: Blob, signal: AbortSignal): Promise<string | null> {
  for (let tries = 1; ; tries++) {
    if (signal.aborted) return null;
    const got = await sendFile('logPiece', { params: { id, piece: String(piece) } }, part);
    if (got.ok) return null;
    const passes = got.status === 0 || got.status >= 500;
    if (!passes || tries === MOST_TRIES) return got.errors[0]!.sentence;
    await new Promise((done) => setTimeout(done, PAUSE_MS * tries));
  }
}
