import { setTimeout as sleep } from 'node:timers/promises';
import type { Job } from '@/contract/work';
import type { Actor } from '../access/rights';
import { DatabaseBusy, DatabaseGone } from '../db/pool';
import { readJob } from './jobs';

const LOOK_EVERY_MS = 150;
/** Something is sent at least so often, so that nobody between takes the stream for dead. */
const SIGN_EVERY_MS = 15_000;

const isOver = (job: Job) => job.state !== 'waiting' && job.state !== 'running';

/** How far long work is, as server-sent events (HTML, section 9.2): one whenever something is otherwise, the last when it ends. */
export async function jobEvents(actor: Actor, id: string, signal: AbortSignal): Promise<Response> {
  const first = await readJob(actor, id);
  const text = new TextEncoder();
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      const send = (line: string) => controller.enqueue(text.encode(line));
      let last = '';
      let sent = Date.now();
      let job = first;
      try {
        for (;;) {
          const now = JSON.stringify(job);
          if (now !== last) {
            send(`data: ${now}\n\n`);
            last = now;
            sent = Date.now();
          } else if (Date.now() - sent > SIGN_EVERY_MS) {
            send(': still here\n\n');
            sent = Date.now();
          }
          if (isOver(job)) break;
          await sleep(LOOK_EVERY_MS, undefined, { signal });
          job = await readJob(actor, id).catch((e: unknown) => {
            // Without the database the reader waits on; what is known stays true until it is back.
            if (e instanceof DatabaseGone || e instanceof DatabaseBusy) return job;
            throw e;
          });
        }
        controller.close();
      } catch {
        // The reader has gone, or the work with its reader's rights: the stream ends, and asking again tells why.
        try {
          controller.close();
        } catch {
          // closed by the reader already
        }
      }
    },
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
}
