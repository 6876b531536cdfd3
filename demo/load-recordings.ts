import { v7 as uuid } from 'uuid';
import { change, rows, writing } from '@/server/db/pool';
import { insertRecording } from '@/server/records/recording-rows';
import { prepared } from '@/server/sound/prepare';
import { speechMissing, spokenText } from '@/server/sound/speak';

/* Calls of the bookings queue are recorded; what was said in the last ones is kept with them. */

const SAID = [
  'Bookings, Nadia speaking. How can I help? Yes, the ten o’clock on Saturday has room for a van of six metres.',
  'Lanternfold bookings, this is Ruaridh. Your crossing is moved to Sunday morning, at the same price.',
  'Bookings, good afternoon. The cabin is yours; you have the confirmation by mail in a minute.',
];

/** Keeps recordings, spoken, with the last calls that agents of the bookings queue took; where nothing can speak there are none. */
export async function loadRecordings(): Promise<void> {
  if (await speechMissing()) return;
  const calls = await writing((c) =>
    rows<{ started: Date; id: string }>(
      c,
      "SELECT started, id FROM call_record WHERE queue = 'bookings-queue' AND answered IS NOT NULL ORDER BY started DESC LIMIT ?",
      [SAID.length],
    ),
  );
  for (const [i, call] of calls.entries()) {
    const made = await prepared(await spokenText(SAID[i]!, 'en'), null);
    await writing(async (c) => {
      await insertRecording(c, call, {
        id: uuid(),
        seconds: made.seconds,
        peaks: made.facts.peaks,
        samples: made.samples[8000],
      });
      await change(c, 'UPDATE call_record SET recording = ? WHERE started = ? AND id = ?', [
        made.id,
        call.started,
        call.id,
      ]);
    });
  }
}
