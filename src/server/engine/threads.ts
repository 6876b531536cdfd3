import { Worker } from 'node:worker_threads';
import { log } from '../log';
import { pack, wrongOf, type Lane } from './messages';

/** A question on its way through the engine. */
export interface Task {
  name: string;
  lane: Lane;
  body: Uint8Array;
  /** how often a thread has died over it */
  deaths: number;
  answer: (ok: boolean, body: Uint8Array) => void;
}

/** A question over which so many threads have died is given up. */
const MOST_DEATHS = 2;

interface Thread {
  worker: Worker;
  task: Task | null;
}

/**
 * The threads that hold the plans. Quick questions go to whichever is free, long ones only to the last, so that there is
 * always one for what is quick. A thread that dies is replaced and its question asked again.
 */
export class Threads {
  private readonly threads: Thread[] = [];
  private readonly waiting: Task[] = [];
  private ended = false;

  constructor(
    private readonly file: string,
    count: number,
  ) {
    for (let i = 0; i < count; i++) this.threads.push(this.start(i));
  }

  get count(): number {
    return this.threads.length;
  }

  private start(at: number): Thread {
    const worker = new Worker(this.file, { name: `engine-${at}` });
    const thread: Thread = { worker, task: null };
    worker.on('message', ({ ok, body }: { ok: boolean; body: Uint8Array }) => {
      const { task } = thread;
      thread.task = null;
      task?.answer(ok, body);
      this.next();
    });
    worker.on('error', (e) => log.error({ err: e }, 'a thread of the engine broke'));
    worker.on('exit', () => {
      if (this.ended) return;
      const { task } = thread;
      this.threads[at] = this.start(at);
      if (task) {
        task.deaths++;
        if (task.deaths >= MOST_DEATHS) task.answer(false, pack(wrongOf(new Error(`“${task.name}” broke the engine`))));
        else this.waiting.unshift(task);
      }
      this.next();
    });
    return thread;
  }

  ask(task: Task): void {
    this.waiting.push(task);
    this.next();
  }

  /** Forgets a question that waits; one that is being answered is answered. */
  drop(task: Task): void {
    const at = this.waiting.indexOf(task);
    if (at >= 0) this.waiting.splice(at, 1);
  }

  private next(): void {
    const last = this.threads.length - 1;
    for (const [i, thread] of this.threads.entries()) {
      if (thread.task) continue;
      const mayLong = i === last;
      // The thread for long work looks at long questions first, and helps with quick ones when there are none.
      const at = mayLong
        ? Math.max(
            this.waiting.findIndex((t) => t.lane === 'long'),
            this.waiting.length > 0 && !this.waiting.some((t) => t.lane === 'long') ? 0 : -1,
          )
        : this.waiting.findIndex((t) => t.lane === 'quick');
      if (at < 0) continue;
      const task = this.waiting.splice(at, 1)[0]!;
      thread.task = task;
      thread.worker.postMessage({ name: task.name, body: task.body });
    }
  }

  async end(): Promise<void> {
    this.ended = true;
    await Promise.all(this.threads.map((t) => t.worker.terminate()));
  }
}
