import { mkdtempSync } from 'node:fs';
import { createServer, type Server, type Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { socketOf } from '../sockets';
import { EngineClient } from './client';
import { readFrames, writeFrame } from './frames';
import { errorOf, pack, unpack, wrongOf, type Asked, type Request, type Wrong } from './messages';
import { EditRefused, Refused } from '../access/rights';
import { DatabaseBusy, DatabaseGone } from '../db/pool';
import { Dropped, EngineAway } from './messages';

/* The connection between a web process and the engine, with an engine of our own at its other end. */

beforeEach(() => {
  process.env.POLYDROME_DATA = mkdtempSync(join(tmpdir(), 'polydrome-'));
});

type Heard = { head: Request; input: unknown; socket: Socket };
let server: Server | null = null;
const sockets = new Set<Socket>();

/** Listens as the engine does; tells what it hears. */
function listen(onHeard: (heard: Heard) => void): Promise<void> {
  server = createServer((socket) => {
    sockets.add(socket);
    socket.on('error', () => undefined);
    readFrames<Request>(socket, ({ head, body }) => {
      const input = head.type === 'ask' ? (unpack(body) as Asked).input : null;
      onHeard({ head, input, socket });
    });
  });
  return new Promise((done) => server!.listen(socketOf('engine'), done));
}

async function hangUp(): Promise<void> {
  for (const socket of sockets) socket.destroy();
  sockets.clear();
  const closing = server;
  server = null;
  if (closing) await new Promise((done) => closing.close(done));
}
afterEach(hangUp);

const answer = ({ head, input, socket }: Heard) => {
  if (head.type === 'ask') writeFrame(socket, { id: head.id, ok: true }, pack({ heard: input }));
};

describe('a question to the engine', () => {
  it('waits for an engine that is not there yet, and is answered by it', async () => {
    const client = new EngineClient();
    const asked = client.ask('anything', { input: 1 }, 'quick');
    await new Promise((done) => setTimeout(done, 300));
    await listen(answer);
    expect(await asked).toEqual({ heard: 1 });
  });

  it('is asked again of the next engine when the first one dies over it', async () => {
    let heard = 0;
    await listen(({ socket }) => {
      heard++;
      socket.destroy();
    });
    const client = new EngineClient();
    const asked = client.ask('anything', { input: 'again' }, 'quick');
    while (heard === 0) await new Promise((done) => setTimeout(done, 10));
    await hangUp();
    await listen(answer);
    expect(await asked).toEqual({ heard: 'again' });
  });

  it('is taken back when nobody waits for it any more', async () => {
    const heard: Heard[] = [];
    await listen((h) => heard.push(h));
    const given = new AbortController();
    const client = new EngineClient();
    const asked = client.ask('anything', { input: null }, 'quick', { signal: given.signal });
    while (heard.length === 0) await new Promise((done) => setTimeout(done, 10));
    given.abort();
    await expect(asked).rejects.toMatchObject({ kind: 'dropped' });
    while (heard.length === 1) await new Promise((done) => setTimeout(done, 10));
    expect(heard[1]!.head).toEqual({ type: 'drop', id: heard[0]!.head.id });
    const before = client.ask('anything', { input: null }, 'quick', { signal: AbortSignal.abort() });
    await expect(before).rejects.toMatchObject({ kind: 'dropped' });
  });

  it('is answered by its own answer, in whatever order they come', async () => {
    const waiting: Heard[] = [];
    await listen((h) => {
      waiting.push(h);
      if (waiting.length === 20) for (const one of waiting.reverse()) answer(one);
    });
    const client = new EngineClient();
    const all = await Promise.all(Array.from({ length: 20 }, (_, i) => client.ask('n', { input: i }, 'quick')));
    expect(all).toEqual(Array.from({ length: 20 }, (_, i) => ({ heard: i })));
  });
});

describe('frames', () => {
  it('come out as they went in, however the stream is cut', async () => {
    const part = fc.record({
      head: fc.record({ id: fc.nat(), text: fc.string({ maxLength: 20 }) }),
      body: fc.uint8Array({ maxLength: 200 }),
    });
    await fc.assert(
      fc.asyncProperty(
        fc.array(part, { minLength: 1, maxLength: 8 }),
        fc.integer({ min: 1, max: 60 }),
        async (parts, cut) => {
          const chunks: Buffer[] = [];
          const into = {
            cork() {},
            uncork() {},
            write: (c: Uint8Array) => chunks.push(Buffer.from(c)),
          } as unknown as Socket;
          for (const p of parts) writeFrame(into, p.head, p.body);
          const stream = Buffer.concat(chunks);
          const out: unknown[] = [];
          let hear: (chunk: Buffer) => void = () => {};
          const from = { on: (_: string, f: typeof hear) => (hear = f), destroy() {} } as unknown as Socket;
          readFrames(from, ({ head, body }) => out.push({ head, body: Buffer.from(body).toString('hex') }));
          for (let at = 0; at < stream.length; at += cut) hear(stream.subarray(at, at + cut));
          expect(out).toEqual(parts.map((p) => ({ head: p.head, body: Buffer.from(p.body).toString('hex') })));
        },
      ),
      { numRuns: 200 },
    );
  });

  it('end the connection when they are none of ours', () => {
    let ended = false;
    let hear: (chunk: Buffer) => void = () => {};
    const from = { on: (_: string, f: typeof hear) => (hear = f), destroy: () => (ended = true) } as unknown as Socket;
    readFrames(from, () => {
      throw new Error('nothing should come out');
    });
    hear(Buffer.from('GET / HTTP/1.1\r\n\r\n'));
    expect(ended).toBe(true);
  });
});

describe('what goes wrong in the engine', () => {
  const over = (e: unknown) => errorOf(unpack(pack(wrongOf(e))) as Wrong);

  it('is of the same class on the other side, with all it says', () => {
    const refused = over(new Refused(409, 'moved', 'Somebody was faster.', 'edits.0', { by: 'Grace' })) as Refused;
    expect(refused).toBeInstanceOf(Refused);
    expect([refused.status, refused.code, refused.message, refused.path, refused.detail]).toEqual([
      409,
      'moved',
      'Somebody was faster.',
      'edits.0',
      { by: 'Grace' },
    ]);
    const errors = [
      { code: 'a', path: 'x', sentence: 'One.' },
      { code: 'b', path: 'y', sentence: 'Two.' },
    ];
    const edit = over(new EditRefused(422, 'invalid', errors)) as EditRefused;
    expect(edit).toBeInstanceOf(EditRefused);
    expect(edit.errors).toEqual(errors);
    expect(over(new DatabaseGone(new Error('x')))).toBeInstanceOf(DatabaseGone);
    expect(over(new DatabaseBusy())).toBeInstanceOf(DatabaseBusy);
    expect(over(new Dropped())).toBeInstanceOf(Dropped);
    expect(errorOf({ kind: 'away', message: '' })).toBeInstanceOf(EngineAway);
  });

  it('that is a fault of ours keeps its message and where it happened', () => {
    const fault = over(new TypeError('no such thing'));
    expect(fault).not.toBeInstanceOf(Refused);
    expect([fault.message, fault.stack!.includes('client.test')]).toEqual(['no such thing', true]);
    expect(over('just a text').message).toBe('just a text');
  });
});
