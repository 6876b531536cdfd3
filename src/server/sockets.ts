import { createHash } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { dataFolder } from './db/config';

/** Longest path of a local socket that every system takes (sun_path of unix(7), less the closing zero). */
const MOST_PATH = 100;

/** Where a process of this data folder listens for our other processes. */
export function socketOf(what: 'engine' | 'pages'): string {
  const own = join(dataFolder(), `${what}.sock`);
  if (own.length <= MOST_PATH) return own;
  return join(tmpdir(), `polydrome-${createHash('sha256').update(own).digest('hex').slice(0, 16)}.sock`);
}
