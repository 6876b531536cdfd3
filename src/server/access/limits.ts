import { change, reading, rows, writing } from '../db/pool';
import { Refused } from './rights';

/** Wrong sign-ins allowed for one name from one address, and for one address with any name, within the window. */
const TRIES_OF_NAME = 8;
const TRIES_OF_ADDRESS = 40;
const WINDOW_SECONDS = 300;

const keysOf = (name: string, address: string) => [
  { key: `name ${address} ${name.toLowerCase().slice(0, 80)}`, most: TRIES_OF_NAME },
  { key: `address ${address}`, most: TRIES_OF_ADDRESS },
];

/** Throws 429 while there were too many wrong tries; rows count them, so that several processes count together. */
export async function limitTries(name: string, address: string, now = Date.now()): Promise<void> {
  for (const { key, most } of keysOf(name, address)) {
    const [found] = await reading((c) =>
      rows<{ points: number; expire: number }>(
        c,
        'SELECT points, expire FROM rate_limit WHERE `key` = ? AND expire > ?',
        [key, now],
      ),
    );
    if (!found || found.points < most) continue;
    const seconds = Math.ceil((Number(found.expire) - now) / 1000);
    throw new Refused(429, 'too-many-tries', `Too many wrong tries; the next one counts in ${seconds} s.`, '', {
      seconds,
    });
  }
}

/** Counts one wrong try. */
export async function tryCounted(name: string, address: string, now = Date.now()): Promise<void> {
  for (const { key } of keysOf(name, address)) {
    await writing((c) =>
      change(
        c,
        'INSERT INTO rate_limit (`key`, points, expire) VALUES (?, 1, ?) ON DUPLICATE KEY UPDATE points = IF(expire > ?, points + 1, 1), expire = IF(expire > ?, expire, VALUES(expire))',
        [key, now + WINDOW_SECONDS * 1000, now, now],
      ),
    );
  }
}

/** A right sign-in clears the name's count. */
export async function triesForgiven(name: string, address: string): Promise<void> {
  await writing((c) => change(c, 'DELETE FROM rate_limit WHERE `key` = ?', [keysOf(name, address)[0]!.key]));
}
