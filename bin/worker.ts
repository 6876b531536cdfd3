import { setPriority } from 'node:os';
import { setTimeout as sleep } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { speakPhrases } from '@/server/sound/phrases';
import { readDueFeed } from '@/server/calendars/links';
import { DatabaseGone, closePool, writing } from '@/server/db/pool';
import { goLiveDue, undoWork } from '@/server/draft';
import { holdPlansHere } from '@/server/engine/here';
import { watchMemory } from '@/server/jobs/agreement';
import { heartbeat } from '@/server/jobs/heartbeat';
import { LANES, type Lane } from '@/server/jobs/jobs';
import { workOnce } from '@/server/jobs/worker';
import { log } from '@/server/log';
import { bulkEdit } from '@/server/operations/bulk';
import { importApply, importCheck } from '@/server/operations/imports';
import { eraseCalls } from '@/server/records/erase';
import { logCheck, logImport } from '@/server/records/log';
import { keepMonths } from '@/server/records/partitions';
import { replayCalls } from '@/server/records/replay';
import { mailedMessages } from '@/server/messages/mailed';
import { dropDeleted } from '@/server/messages/rows';
import { dropTold } from '@/server/board/told';
import { dropRecordings } from '@/server/records/recording-rows';
import { forgetMail } from '@/server/mail/queue';
import { sendDueMail } from '@/server/mail/send';
import { endWithStarter } from './with-starter';

/* The worker: takes long work from the database until it is told to end, one loop for each lane. Several may run. */

endWithStarter();
const IDLE_MS = 120;
const AWAY_MS = 1000;
const FEEDS_EVERY_MS = 60_000;
const MONTHS_EVERY_MS = 3_600_000;

let ending = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => (ending = true));

// Long work leaves the processor to those who wait for a page.
try {
  setPriority(10);
} catch {
  // Not everywhere allowed; then it is as important as everything else.
}
const ground = holdPlansHere();
const importing = { ground, workbookThread: fileURLToPath(new URL('./workbook-thread.mjs', import.meta.url)) };
const handlers = {
  'import-check': importCheck(importing),
  'import-apply': importApply(importing),
  'bulk-edit': bulkEdit,
  undo: undoWork,
  'log-check': logCheck(ground),
  'log-import': logImport(ground),
  replay: replayCalls(ground),
  'erase-calls': eraseCalls,
};

async function work(lane: Lane): Promise<void> {
  while (!ending) {
    try {
      if (!(await workOnce(handlers, lane))) await sleep(IDLE_MS);
    } catch (e) {
      if (!(e instanceof DatabaseGone)) log.error({ err: e }, 'the worker met an error');
      await sleep(AWAY_MS);
    }
  }
}

/** Reads calendars of others that are due; what goes wrong with one is said where it is looked at. */
async function feeds(): Promise<void> {
  while (!ending) {
    try {
      if (await readDueFeed()) continue;
    } catch (e) {
      if (!(e instanceof DatabaseGone)) log.error({ err: e }, 'a calendar could not be read');
    }
    for (let waited = 0; waited < FEEDS_EVERY_MS && !ending; waited += AWAY_MS) await sleep(AWAY_MS);
  }
}

/** Months of call records are split off ahead, and dropped when they are kept long enough; deleted messages, recordings and old mail go in time. */
async function months(): Promise<void> {
  while (!ending) {
    try {
      while ((await writing((c) => dropDeleted(c, new Date()))) > 0 && !ending);
      while ((await writing((c) => dropRecordings(c, new Date()))) > 0 && !ending);
      while ((await writing((c) => dropTold(c, new Date()))) > 0 && !ending);
      while ((await writing((c) => forgetMail(c, new Date()))) > 0 && !ending);
      await keepMonths();
    } catch (e) {
      // A database of one's own may not have granted it: the records are kept all the same, in fewer partitions.
      if (!(e instanceof DatabaseGone)) log.warn({ err: e }, 'the months of call records could not be kept');
    }
    for (let waited = 0; waited < MONTHS_EVERY_MS && !ending; waited += AWAY_MS) await sleep(AWAY_MS);
  }
}

/** Mail that waits goes out as soon as it can. */
async function mails(): Promise<void> {
  while (!ending) {
    try {
      if (await sendDueMail(mailedMessages)) continue;
    } catch (e) {
      if (!(e instanceof DatabaseGone)) log.error({ err: e }, 'a mail could not be sent');
    }
    await sleep(AWAY_MS);
  }
}

/** What was planned goes live when its time has come. */
async function goings(): Promise<void> {
  while (!ending) {
    try {
      if (await goLiveDue(new Date())) continue;
    } catch (e) {
      if (!(e instanceof DatabaseGone)) log.error({ err: e }, 'what was planned could not go live');
    }
    await sleep(AWAY_MS);
  }
}

/** What the exchange says itself is spoken once, in the background. */
async function phrases(): Promise<void> {
  try {
    await speakPhrases(() => !ending);
  } catch (e) {
    if (!(e instanceof DatabaseGone)) log.error({ err: e }, 'the phrases could not be spoken');
  }
}

const silent = heartbeat('worker');
const unwatched = watchMemory();
void Promise.all([...LANES.map(work), feeds(), phrases(), months(), mails(), goings()]).finally(() => {
  silent();
  unwatched();
  return closePool();
});
