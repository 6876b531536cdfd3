import { Worker } from 'node:worker_threads';
import { log } from '../log';
import { DONE, SHARED_BYTES, STOP } from './ground/going-on';
import { pack, wrongOf, type Lane } from './messages';

/** A question on its way through the engine. */
export interface Task {
  name: string;
  lane: Lane;
  body: Uint8Array;
  /** told how far it has come, 0 to 1, now and then while it is long */
  progress?: (share: number) => void;
  /** how often a thread has died over it */
  deaths: number;
  answer: (ok: boolean, body: Uint8Array) => void;
}

/** A question over which so many threads have died is given up. */
const MOST_DEATHS = 2;

/** How often those who wait for long work are told how far it has come. */
const TOLD_EVERY_MS = 250;

interface Thread {
  worker: Worker;
  /** shared with it: whether it is to stop, and how far it has come */
  told: Int32Array;
  task: Task | null;
  /** stopped for something more urgent: it is begun anew later */
  putOff: boolean;
}

/**
 * The threads that hold the plans. Quick questions go to whichever is free, long ones only to the last, so that there is
 * always one for what is quick. A thread that dies is replaced and its question asked again.
 */
export class Threads {
  private readonly threads: Thread[] = [];
  private readonly waiting: Task[] = [];
  private ended = false;
  private readonly telling = setInterval(() => this.tell(), TOLD_EVERY_MS).unref();

  constructor(
    private readonly file: string,
    readonly count: number,
  ) {
    for (let i = 0; i < count; i++) this.threads.push(this.start(i));
  }

  private start(at: number): Thread {
    const shared = new SharedArrayBuffer(SHARED_BYTES);
    const isLong = at === this.count - 1;
    const worker = new Worker(this.file, { name: `engine-${at}`, workerData: { shared, isLong } });
    const thread: Thread = { worker, told: new Int32Array(shared), task: null, putOff: false };
    worker.on('message', ({ ok, body }: { ok: boolean; body: Uint8Array }) => {
      const { task } = thread;
      thread.task = null;
      if (task && thread.putOff && !ok) this.waiting.push(task);
      else task?.answer(ok, body);
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
    if (task.lane === 'long') this.putOffIdle();
    this.next();
  }

  /** Something idle makes way where it looks whether it should. */
  private putOffIdle(): void {
    for (const thread of this.threads) {
      if (thread.task?.lane !== 'idle') continue;
      thread.putOff = true;
      Atomics.store(thread.told, STOP, 1);
    }
  }

  /** Forgets a question that waits; a thread that is at it stops where it looks whether it should. */
  drop(task: Task): void {
    const at = this.waiting.indexOf(task);
    if (at >= 0) this.waiting.splice(at, 1);
    for (const thread of this.threads) {
      if (thread.task !== task) continue;
      thread.putOff = false;
      Atomics.store(thread.told, STOP, 1);
    }
  }

  private tell(): void {
    for (const { task, told } of this.threads)
      if (task?.lane === 'long') task.progress?.(Atomics.load(told, DONE) / 1000);
  }

  private next(): void {
    const last = this.count - 1;
    for (const [i, thread] of this.threads.entries()) {
      if (thread.task) continue;
      // The thread for long work looks at long questions first, then helps with quick ones, and does what is idle at last.
      const lanes: readonly Lane[] = i === last ? ['long', 'quick', 'idle'] : ['quick'];
      const at = lanes.map((lane) => this.waiting.findIndex((t) => t.lane === lane)).find((found) => found >= 0) ?? -1;
      if (at < 0) continue;
      const task = this.waiting.splice(at, 1)[0]!;
      thread.task = task;
      thread.told.fill(0);
      thread.putOff = false;
      thread.worker.postMessage({ name: task.name, body: task.body });
    }
  }

  async end(): Promise<void> {
    this.ended = true;
    clearInterval(this.telling);
    await Promise.all(this.threads.map((t) => t.worker.terminate()));
  }
}
