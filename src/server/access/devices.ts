import { change, reading, rows, writing } from '../db/pool';
import { newToken, tokenHash } from './tokens';

/* Browsers that somebody has signed in with before, told by a cookie that says nothing else. */

export const DEVICE_COOKIE = 'polydrome_device';
const MOST_DAYS = 180;
export const DEVICE_SECONDS = MOST_DAYS * 86_400;

/** Whether an account has signed in with the browser that holds a token. */
export async function knowsDevice(account: string, token: string | null): Promise<boolean> {
  if (token === null) return false;
  const found = await reading((c) =>
    rows(
      c,
      `SELECT 1 AS one FROM known_device WHERE token_hash = ? AND account = ? AND seen_at > NOW(3) - INTERVAL ${MOST_DAYS} DAY`,
      [tokenHash(token), account],
    ),
  );
  return found.length > 0;
}

/** Remembers a browser for an account; gives the token that it is to hold from now on. */
export async function rememberDevice(account: string, known: string | null): Promise<string> {
  // A browser that was another's is given a token of its own.
  const token = (await knowsDevice(account, known)) ? known! : newToken();
  await writing(async (c) => {
    await change(
      c,
      'INSERT INTO known_device (token_hash, account, seen_at) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE seen_at = VALUES(seen_at)',
      [tokenHash(token), account, new Date()],
    );
    await change(c, `DELETE FROM known_device WHERE account = ? AND seen_at < NOW(3) - INTERVAL ${MOST_DAYS} DAY`, [
      account,
    ]);
  });
  return token;
}
