import type { Recording } from '@/contract/recordings';
import { recordHistory } from '../access/history';
import { Refused, demand, may, type Actor } from '../access/rights';
import { change, reading, writing } from '../db/pool';
import { wavOf } from '../sound/prepare';
import {
  RECORDING_RATE,
  heardLately,
  hearersOf,
  keptDays,
  recordingRow,
  samplesOf,
  untilOf,
  type OfCall,
} from './recording-rows';

/* Recordings of calls are heard by whom a role of one's own lets, and each listening is on record. */

const noRecording = () =>
  new Refused(404, 'no-recording', 'No recording of this call is kept: none was made, or it is gone.', 'key');

const area = 'incoming';

/** What stands of a call's recording for a reader who may see the call; null when none is kept. */
export async function recordingSeen(actor: Actor, call: OfCall, site: string | null): Promise<Recording | null> {
  return reading(async (c) => {
    const row = await recordingRow(c, call);
    if (!row) return null;
    const hears = may(actor, 'hearRecordings', { area, site });
    return {
      seconds: row.seconds,
      peaks: hears ? (typeof row.peaks === 'string' ? (JSON.parse(row.peaks) as number[]) : row.peaks) : null,
      until: untilOf(call, await keptDays(c)),
      heard: await hearersOf(c, row.id),
    };
  });
}

/** The sound of a call's recording, for a reader who may see the call; that somebody listens is on record before they get it. */
export async function hearRecording(
  actor: Actor,
  call: OfCall,
  { site, label, file }: { site: string | null; label: string; file: boolean },
): Promise<Uint8Array> {
  demand(actor, 'hearRecordings', { area, site }, label);
  const row = await reading((c) => recordingRow(c, call));
  if (!row) throw noRecording();
  const samples = await reading((c) => samplesOf(c, row.id));
  await writing(async (c) => {
    const now = new Date();
    // A player asks for parts of one sound again and again: that is one listening. A file that is taken out is another each time.
    if (!file && (await heardLately(c, row.id, actor.account, now))) return;
    await change(c, 'INSERT INTO recording_heard (recording, at, account, by_name) VALUES (?, ?, ?, ?)', [
      row.id,
      now,
      actor.account,
      actor.name,
    ]);
    await recordHistory(c, actor, {
      action: 'recording-heard',
      object: null,
      of: 'a call',
      detail: { call: call.started.toISOString() },
    });
  });
  return wavOf(samples, RECORDING_RATE);
}
