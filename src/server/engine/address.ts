import { createHash } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { dataFolder } from '../db/config';

/** Longest path of a local socket that every system takes (sun_path of unix(7), less the closing zero). */
const MOST_PATH = 100;

/** Where the engine of this data folder listens. */
export function engineSocket(): string {
  const own = join(dataFolder(), 'engine.sock');
  if (own.length <= MOST_PATH) return own;
  return join(tmpdir(), `polydrome-${createHash('sha256').update(own).digest('hex').slice(0, 16)}.sock`);
}
