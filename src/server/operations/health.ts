import { engineAlive } from '../engine';
import { DatabaseGone, reading, rows } from '../db/pool';

/** Within so long health is answered, also by a database that hangs. */
const WITHIN_MS = 1500;
/** How long the engine may take to say that it is there. */
const ENGINE_MS = 1000;
/** A worker that was heard of so long ago is taken for gone. */
const SILENT_SECONDS = 20;

/** What comes in time; throws `DatabaseGone` when nothing does. */
async function within<T>(milliseconds: number, work: Promise<T>): Promise<T> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, failed) => {
    timer = setTimeout(() => failed(new DatabaseGone(new Error('no answer in time'))), milliseconds);
  });
  work.catch(() => undefined);
  try {
    return await Promise.race([work, late]);
  } finally {
    clearTimeout(timer);
  }
}

interface Looked {
  draft: number;
  live: number;
  worker: number | null;
  memory: string | null;
}

async function looked(): Promise<Looked> {
  const [found] = await reading((c) =>
    rows<{ draft: number; live: number; silent: number | null; memory: string | null }>(
      c,
      `SELECT (SELECT version FROM draft WHERE id = 1) AS draft,
         (SELECT COALESCE(MAX(number), 0) FROM revision) AS live,
         (SELECT TIMESTAMPDIFF(SECOND, at, UTC_TIMESTAMP(3)) FROM heartbeat WHERE part = 'worker') AS silent,
         (SELECT part FROM heartbeat WHERE part LIKE 'memory-%' ORDER BY at DESC LIMIT 1) AS memory`,
    ),
  );
  return { draft: Number(found!.draft), live: Number(found!.live), worker: found!.silent, memory: found!.memory };
}

/** Whether application and database work, where draft and live stand, and which parts beside them answer. */
export async function health() {
  const engine = engineAlive(AbortSignal.timeout(ENGINE_MS));
  const { draft, live, worker, memory } = await within(WITHIN_MS, looked());
  return {
    ok: true as const,
    draftVersion: draft,
    revision: live,
    engine: await engine,
    worker: worker !== null && worker <= SILENT_SECONDS,
    // Null before it was first compared.
    memory: memory === null ? null : memory === 'memory-agrees',
  };
}

/** What of the application itself is not as it should be, in sentences for whoever administers it. */
export async function unsound(): Promise<string[]> {
  const { worker, memory } = await health();
  return [
    ...(worker ? [] : ['The worker has not been heard of for a while: imports and bulk edits wait until it is back.']),
    ...(memory === false
      ? [
          'What the engine holds of the draft is not what its tables hold. Answers may be wrong until the application is started anew; the tables are right.',
        ]
      : []),
  ];
}
