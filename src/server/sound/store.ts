import { change, reading, rows, writing } from '../db/pool';
import { Refused } from '../access/rights';
import { wavOf, type Prepared, type SoundFacts, type SoundRate } from './prepare';

/* Sounds in the database, by the SHA-256 of what is heard: the same sound is kept once, however often it is uploaded. */

/** Octets of one row of samples: far below what the server takes in one packet. */
const PART = 1_000_000;

export interface KeptSound {
  id: string;
  seconds: number;
  facts: SoundFacts;
}

/** Keeps a sound; one that is there already stays as it is, but for the text that it was spoken from now. */
export async function keepSound({ id, seconds, facts, samples }: Prepared, account: string | null): Promise<KeptSound> {
  await writing(async (c) => {
    const [there] = await rows(c, 'SELECT id FROM sound WHERE id = ?', [id]);
    if (there) {
      if (facts.said !== null) await change(c, 'UPDATE sound SET facts = ? WHERE id = ?', [JSON.stringify(facts), id]);
      return;
    }
    await change(c, 'INSERT IGNORE INTO sound (id, seconds, facts, made_at, made_by) VALUES (?, ?, ?, ?, ?)', [
      id,
      seconds,
      JSON.stringify(facts),
      new Date(),
      account,
    ]);
    for (const [rate, bytes] of Object.entries(samples))
      for (let part = 0; part * PART < bytes.length; part++)
        await change(c, 'INSERT IGNORE INTO sound_part (sound, rate, part, samples) VALUES (?, ?, ?, ?)', [
          id,
          Number(rate),
          part,
          Buffer.from(bytes.subarray(part * PART, (part + 1) * PART)),
        ]);
  });
  return { id, seconds, facts };
}

const missing = () => new Refused(404, 'no-such-sound', 'There is no such sound any more; upload it again.', 'sound');

/** What is known of a sound. */
export async function factsOfSound(id: string): Promise<KeptSound> {
  const [found] = await reading((c) =>
    rows<{ id: string; seconds: number; facts: string | SoundFacts }>(
      c,
      'SELECT id, seconds, facts FROM sound WHERE id = ?',
      [id],
    ),
  );
  if (!found) throw missing();
  const facts = (typeof found.facts === 'string' ? JSON.parse(found.facts) : found.facts) as SoundFacts;
  return { id, seconds: found.seconds, facts: { ...facts, said: facts.said ?? null } };
}

/** A sound as a WAV file. */
export async function wavOfSound(id: string, rate: SoundRate): Promise<Uint8Array> {
  const parts = await reading((c) =>
    rows<{ samples: Buffer }>(c, 'SELECT samples FROM sound_part WHERE sound = ? AND rate = ? ORDER BY part', [
      id,
      rate,
    ]),
  );
  if (parts.length === 0) throw missing();
  return wavOf(Buffer.concat(parts.map((p) => p.samples)), rate);
}
