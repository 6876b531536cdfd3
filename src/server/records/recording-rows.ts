import { change, rows, type Reader, type Writer } from '../db/pool';

/* Recordings as rows: what stands of each, its sound in parts, and who heard it. */

/** Octets of one row of samples: far below what the server takes in one packet. */
const PART = 1_000_000;
/** Samples a second of a kept recording. */
export const RECORDING_RATE = 8000;

/** The call that a recording is of: its moment and id are what it is found by. */
export interface OfCall {
  started: Date;
  id: string;
}

export interface RecordingRow {
  id: string;
  seconds: number;
  peaks: string | number[];
}

/** The recording of a call; null when none is kept. */
export async function recordingRow(c: Reader, call: OfCall): Promise<RecordingRow | null> {
  const [found] = await rows<RecordingRow>(
    c,
    'SELECT id, seconds, peaks FROM recording WHERE call_started = ? AND call_id = ?',
    [call.started, call.id],
  );
  return found ?? null;
}

/** Keeps a recording with its sound; a call has one only. */
export async function insertRecording(
  c: Writer,
  call: OfCall,
  { id, seconds, peaks, samples }: { id: string; seconds: number; peaks: readonly number[]; samples: Uint8Array },
): Promise<void> {
  await change(c, 'INSERT INTO recording (id, call_started, call_id, seconds, peaks) VALUES (?, ?, ?, ?, ?)', [
    id,
    call.started,
    call.id,
    seconds,
    JSON.stringify(peaks),
  ]);
  for (let part = 0; part * PART < samples.length; part++)
    await change(c, 'INSERT INTO recording_sound (recording, part, samples) VALUES (?, ?, ?)', [
      id,
      part,
      Buffer.from(samples.subarray(part * PART, (part + 1) * PART)),
    ]);
}

/** The samples of a recording. */
export async function samplesOf(c: Reader, id: string): Promise<Buffer> {
  const parts = await rows<{ samples: Buffer }>(
    c,
    'SELECT samples FROM recording_sound WHERE recording = ? ORDER BY part',
    [id],
  );
  return Buffer.concat(parts.map((p) => p.samples));
}

/** Who heard a recording, the first one first. */
export async function hearersOf(c: Reader, id: string): Promise<{ name: string; at: string }[]> {
  const found = await rows<{ name: string; at: Date }>(
    c,
    'SELECT by_name AS name, at FROM recording_heard WHERE recording = ? ORDER BY at LIMIT 200',
    [id],
  );
  return found.map(({ name, at }) => ({ name, at: at.toISOString() }));
}

/** Whether an account heard a recording within the last minute. */
export async function heardLately(c: Reader, id: string, account: string, now: Date): Promise<boolean> {
  const found = await rows(c, 'SELECT 1 FROM recording_heard WHERE recording = ? AND account = ? AND at > ? LIMIT 1', [
    id,
    account,
    new Date(now.getTime() - 60_000),
  ]);
  return found.length > 0;
}

/** Whole days that recordings are kept; null: as long as their calls. */
export async function keptDays(c: Reader): Promise<number | null> {
  const [set] = await rows<{ days: number | null }>(c, 'SELECT keep_recordings_days AS days FROM setting WHERE id = 1');
  return set?.days ?? null;
}

/** Until when the recording of a call is kept, with so many days; null: as long as its call. */
export const untilOf = ({ started }: OfCall, days: number | null): string | null =>
  days === null ? null : new Date(started.getTime() + days * 86_400_000).toISOString();

/** Lets go of recordings that were kept long enough, and of those whose call is gone; tells how many went. */
export async function dropRecordings(c: Writer, now: Date): Promise<number> {
  const days = await keptDays(c);
  const old =
    days === null
      ? 0
      : await change(c, 'DELETE FROM recording WHERE call_started < ? LIMIT 200', [
          new Date(now.getTime() - days * 86_400_000),
        ]);
  const [first] = await rows<{ started: Date | null }>(c, 'SELECT MIN(started) AS started FROM call_record');
  const orphans = await change(c, 'DELETE FROM recording WHERE call_started < ? LIMIT 200', [first?.started ?? now]);
  return old + orphans;
}
