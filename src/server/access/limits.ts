import { setTimeout as sleep } from 'node:timers/promises';
import { change, rows, writing } from '../db/pool';
import { Refused } from './rights';

/** Wrong sign-ins allowed for one name, and for one address with any name, within the window. */
const TRIES_OF_NAME = 8;
const TRIES_OF_ADDRESS = 40;
const WINDOW_SECONDS = 300;
/** From half of an address's tries on, each waits so long. */
const SLOWED_MS = 500;

/** What a try is counted for. */
export interface Tried {
  /** the account that a name stands for, else the name as it was typed */
  who: string;
  address: string;
  /** from a browser that this account has signed in with before: its address may be shared with whoever guesses */
  known?: boolean;
}

/** Names that a database takes for the same, and that look the same, are counted as one. */
const folded = (who: string) =>
  who
    .normalize('NFKC')
    .replace(/\p{C}|\p{Z}/gu, '')
    .toLowerCase()
    .slice(0, 80);

const keysOf = ({ who, address, known }: Tried) => [
  { key: `name ${known ? 'known' : address} ${folded(who)}`, most: TRIES_OF_NAME },
  ...(known ? [] : [{ key: `address ${address}`, most: TRIES_OF_ADDRESS }]),
];

/**
 * Counts a try before it is judged, so that many at once can't all be judged first; throws 429 when there were too many.
 * Rows count, so that several processes count together. A right one is taken back by `triesForgiven`.
 */
export async function countTry(tried: Tried, now = Date.now()): Promise<void> {
  let slow = false;
  for (const { key, most } of keysOf(tried)) {
    const [points, expire] = await counted(key, WINDOW_SECONDS, now);
    slow ||= key.startsWith('address') && points > most / 2;
    if (points <= most) continue;
    const seconds = Math.ceil((expire - now) / 1000);
    const sentence = `Too many wrong tries; the next one counts in ${seconds} s.`;
    throw new Refused(429, 'too-many-tries', sentence, '', { seconds });
  }
  if (slow) await sleep(SLOWED_MS);
}

/** Counts once more under a key; gives how often within the window, and when that ends (milliseconds since 1970 UTC). */
const counted = (key: string, windowSeconds: number, now: number) =>
  writing(async (c) => {
    await change(
      c,
      'INSERT INTO rate_limit (`key`, points, expire) VALUES (?, 1, ?) ON DUPLICATE KEY UPDATE points = IF(expire > ?, points + 1, 1), expire = IF(expire > ?, expire, VALUES(expire))',
      [key, now + windowSeconds * 1000, now, now],
    );
    const [row] = await rows<{ points: number; expire: number }>(
      c,
      'SELECT points, expire FROM rate_limit WHERE `key` = ?',
      [key],
    );
    return [row!.points, Number(row!.expire)] as const;
  });

/** Counts a use of something that anybody may do so many times within a window; throws 429 beyond. */
export async function countUse(what: string, most: number, windowSeconds: number, now = Date.now()): Promise<void> {
  const [points] = await counted(`use ${folded(what)}`, windowSeconds, now);
  if (points > most) throw new Refused(429, 'too-many-tries', 'That was asked for too often; try again tomorrow.');
}

/** A right try clears the count of its name, and is none of its address's. */
export async function triesForgiven(tried: Tried): Promise<void> {
  const [name, address] = keysOf(tried);
  await writing(async (c) => {
    await change(c, 'DELETE FROM rate_limit WHERE `key` = ?', [name!.key]);
    if (address)
      await change(c, 'UPDATE rate_limit SET points = GREATEST(points - 1, 0) WHERE `key` = ?', [address.key]);
  });
}
