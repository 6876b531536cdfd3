import { connect, type Socket } from 'node:net';
import { socketOf } from '../sockets';
import { readFrames, writeFrame } from './frames';
import { pack, unpack, type Wrong, type Asked, type Lane, type Reply, type Request } from './messages';

interface Waiting {
  head: Extract<Request, { type: 'ask' }>;
  body: Uint8Array;
  take: (answer: unknown) => void;
  refuse: (e: Wrong) => void;
  progress: ((share: number) => void) | undefined;
}

/** How a question is waited for. */
interface Wait {
  /** nobody waits any more */
  signal?: AbortSignal;
  /** told how far long work has come, 0 to 1 */
  progress?: (share: number) => void;
}

/** How long a question waits for an engine that is not there. */
const MOST_WAIT_MS = 20_000;
const AGAIN_MS = 150;
const LOOK_EVERY_MS = 1000;

/**
 * The engine as a web process reaches it: one connection, made again when it breaks; what was asked is asked again. What goes
 * wrong comes as plain data: this object is shared by bundles, and each makes errors of its own classes of it.
 */
export class EngineClient {
  private socket: Socket | null = null;
  private open = false;
  /** since when there is no connection */
  private awaySince = Date.now();
  private readonly waiting = new Map<number, Waiting>();
  private last = 0;

  private connect(): void {
    if (this.socket) return;
    const socket = connect(socketOf('engine'));
    this.socket = socket;
    socket.on('connect', () => {
      this.open = true;
      for (const w of this.waiting.values()) writeFrame(socket, w.head, w.body);
    });
    readFrames<Reply>(socket, ({ head, body }) => {
      const asked = this.waiting.get(head.id);
      if (!asked) return;
      if (head.progress !== undefined) return asked.progress?.(head.progress);
      this.waiting.delete(head.id);
      const value = unpack(body);
      if (head.ok) asked.take(value);
      else asked.refuse(value as Wrong);
      this.idle();
    });
    socket.on('error', () => undefined);
    socket.on('close', () => {
      this.socket = null;
      if (this.open) this.awaySince = Date.now();
      this.open = false;
      if (this.waiting.size > 0) setTimeout(() => this.connect(), AGAIN_MS);
    });
    this.idle();
  }

  /** An idle connection does not keep the process alive. */
  private idle(): void {
    if (this.waiting.size === 0) this.socket?.unref();
    else this.socket?.ref();
  }

  private send<A>(head: Waiting['head'], body: Uint8Array, { signal, progress }: Wait): Promise<A> {
    return new Promise<A>((take, refuse) => {
      const { id } = head;
      const over = (e: Wrong) => {
        done();
        this.waiting.delete(id);
        if (this.open && this.socket) writeFrame(this.socket, { type: 'drop', id });
        refuse(e);
      };
      const asked = Date.now();
      const look = () => {
        const since = Math.max(asked, this.awaySince);
        if (!this.open && Date.now() - since > MOST_WAIT_MS) over({ kind: 'away', message: '' });
      };
      const timer = setInterval(look, LOOK_EVERY_MS);
      const abort = () => over({ kind: 'dropped', message: '' });
      const done = () => {
        clearInterval(timer);
        signal?.removeEventListener('abort', abort);
      };
      if (signal?.aborted) return abort();
      signal?.addEventListener('abort', abort, { once: true });
      this.waiting.set(id, {
        head,
        body,
        progress,
        take: (answer) => {
          done();
          take(answer as A);
        },
        refuse: (e) => {
          done();
          refuse(e);
        },
      });
      if (this.open && this.socket) writeFrame(this.socket, head, body);
      else this.connect();
      this.idle();
    });
  }

  ask<A>(name: string, asked: Asked, lane: Lane, wait: Wait = {}): Promise<A> {
    const id = ++this.last;
    return this.send<A>({ type: 'ask', id, name, lane }, pack(asked), wait);
  }
}
