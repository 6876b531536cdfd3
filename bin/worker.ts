import { setTimeout as sleep } from 'node:timers/promises';
import { bulkEdit } from '@/server/bulk/bulk-edit';
import { DatabaseGone, closePool } from '@/server/db/pool';
import { undoWork } from '@/server/draft';
import { importApply, importCheck } from '@/server/import/imports';
import { workOnce } from '@/server/jobs/worker';
import { log } from '@/server/log';

/* The worker: takes long work from the database until it is told to end. Several may run. */

const IDLE_MS = 120;
const AWAY_MS = 1000;

let ending = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => (ending = true));

const handlers = { 'import-check': importCheck, 'import-apply': importApply, 'bulk-edit': bulkEdit, undo: undoWork };

async function main(): Promise<void> {
  while (!ending) {
    try {
      if (!(await workOnce(handlers))) await sleep(IDLE_MS);
    } catch (e) {
      if (!(e instanceof DatabaseGone)) log.error({ err: e }, 'the worker met an error');
      await sleep(AWAY_MS);
    }
  }
}

void main().finally(closePool);
