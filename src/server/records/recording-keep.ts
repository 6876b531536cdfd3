import { v7 as uuid } from 'uuid';
import type { Recording } from '@/contract/recordings';
import { Refused } from '../access/rights';
import { change, reading, rows, writing, type Reader } from '../db/pool';
import { readKey } from './find';
import { madeReady } from '../sound/make';
import { RECORDING_RATE, insertRecording, keptDays, recordingRow, untilOf, type OfCall } from './recording-rows';

/* The exchange brings recordings of calls that are on record. */

const noCall = () => new Refused(404, 'no-such-call', 'There is no such call on record.', 'key');
function callOf(key: string): OfCall {
  const read = readKey(key);
  if (!read) throw noCall();
  return { started: new Date(read.at), id: read.id };
}

/** Keeps the recording of a call that is on record; a second one for the same call is refused. */
export async function keepRecording(key: string, file: Buffer, signal: AbortSignal): Promise<Recording> {
  const call = callOf(key);
  await reading((c) => standing(c, call));
  const ready = await madeReady(file, { field: 'file', signal });
  const { seconds, facts } = ready;
  const days = await writing(async (c) => {
    // Whoever brings another one of the same call waits here, and sees this one.
    await standing(c, call, 'FOR UPDATE');
    if (await recordingRow(c, call))
      throw new Refused(409, 'recorded-already', 'A recording of this call is kept already.', 'key');
    await insertRecording(c, call, { id: uuid(), seconds, peaks: facts.peaks, samples: ready.samples[RECORDING_RATE] });
    await change(c, 'UPDATE call_record SET recording = ? WHERE started = ? AND id = ?', [
      ready.id,
      call.started,
      call.id,
    ]);
    return keptDays(c);
  });
  return { seconds, peaks: null, until: untilOf(call, days), heard: [] };
}

/** Refuses where the call is not on record, or who took part in it was erased. */
async function standing(c: Reader, { started, id }: OfCall, lock: '' | 'FOR UPDATE' = ''): Promise<void> {
  const [found] = await rows<{ erased: number }>(
    c,
    `SELECT erased FROM call_record WHERE started = ? AND id = ? ${lock}`,
    [started, id],
  );
  if (!found) throw noCall();
  if (found.erased) throw new Refused(409, 'call-erased', 'Who took part in this call was erased.', 'key');
}
