import { existsSync, unlinkSync } from 'node:fs';
import { createServer, type Server, type Socket } from 'node:net';
import { log } from '../log';
import { socketOf } from '../sockets';
import { readFrames, writeFrame } from './frames';
import { ALIVE, pack, type Request } from './messages';
import { Threads, type Task } from './threads';

/* The engine process: takes questions from web processes over a local socket and passes them to its threads. */

const THREADS = 2;
const NOTHING = new Uint8Array();

/** Serves until it is ended. `threadFile` is the bundle that each thread runs. */
export function serveEngine(threadFile: string): { server: Server; end: () => Promise<void> } {
  const threads = new Threads(threadFile, THREADS);
  const sockets = new Set<Socket>();
  const path = socketOf('engine');
  if (existsSync(path)) unlinkSync(path);
  const server = createServer((socket) => {
    sockets.add(socket);
    const asked = new Map<number, Task>();
    const forget = () => {
      for (const task of asked.values()) threads.drop(task);
      asked.clear();
      sockets.delete(socket);
    };
    socket.on('close', forget);
    socket.on('error', forget);
    readFrames<Request>(socket, ({ head, body }) => {
      if (head.type === 'drop') {
        const task = asked.get(head.id);
        if (task) threads.drop(task);
        asked.delete(head.id);
        return;
      }
      if (head.name === ALIVE) {
        writeFrame(socket, { id: head.id, ok: true }, pack({ threads: threads.count }));
        return;
      }
      const task: Task = {
        name: head.name,
        lane: head.lane,
        // The frame's memory belongs to the socket's buffer; a thread gets a copy of its own.
        body: new Uint8Array(body),
        deaths: 0,
        progress: (share) => {
          if (!socket.destroyed) writeFrame(socket, { id: head.id, ok: true, progress: share }, NOTHING);
        },
        answer: (ok, answer) => {
          if (asked.delete(head.id) && !socket.destroyed) writeFrame(socket, { id: head.id, ok }, answer);
        },
      };
      asked.set(head.id, task);
      threads.ask(task);
    });
  });
  server.listen(path);
  server.on('error', (e) => log.error({ err: e }, 'the engine can’t listen'));
  return {
    server,
    end: async () => {
      for (const socket of sockets) socket.destroy();
      await new Promise<void>((done) => server.close(() => done()));
      await threads.end();
    },
  };
}
