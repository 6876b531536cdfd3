import { isUnowned, makeFirstCode } from '@/server/access/first-owner';
import { closePool } from '@/server/db/pool';

/* Run by the start command: prints a new one-time code while nobody owns the organisation, and nothing afterwards. */
try {
  if (await isUnowned()) console.log((await makeFirstCode()) ?? '');
} finally {
  await closePool();
}
