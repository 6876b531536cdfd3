import type { Socket } from 'node:net';

/*
 * Messages over a local socket: eight octets with the lengths of head and body (32 bits each, big-endian), then the head as
 * JSON, then the body as it is. The engine's first process passes bodies on without reading them.
 */

export interface Frame<H> {
  head: H;
  body: Uint8Array;
}

/** Longest head and body: longer ones are no messages of ours. */
const MOST_HEAD = 64 * 1024;
const MOST_BODY = 512 * 1024 * 1024;

export function writeFrame(socket: Socket, head: object, body: Uint8Array = new Uint8Array(0)): void {
  const text = Buffer.from(JSON.stringify(head), 'utf8');
  const lengths = Buffer.alloc(8);
  lengths.writeUInt32BE(text.length, 0);
  lengths.writeUInt32BE(body.length, 4);
  socket.cork();
  socket.write(lengths);
  socket.write(text);
  if (body.length > 0) socket.write(body);
  socket.uncork();
}

/** Reads frames from a socket as they come whole; what is no frame ends the connection. */
export function readFrames<H>(socket: Socket, onFrame: (frame: Frame<H>) => void): void {
  let chunks: Buffer[] = [];
  let size = 0;
  let wanted = 8;
  socket.on('data', (chunk: Buffer) => {
    chunks.push(chunk);
    size += chunk.length;
    while (size >= wanted) {
      // Joined once for each message, not for each chunk.
      const all = chunks.length === 1 ? chunks[0]! : Buffer.concat(chunks);
      const [head, body] = [all.readUInt32BE(0), all.readUInt32BE(4)];
      if (head > MOST_HEAD || body > MOST_BODY) return void socket.destroy(new Error('this is no message of ours'));
      wanted = 8 + head + body;
      chunks = [all];
      if (size < wanted) return;
      const frame = {
        head: JSON.parse(all.subarray(8, 8 + head).toString('utf8')) as H,
        body: all.subarray(8 + head, wanted),
      };
      const rest = all.subarray(wanted);
      chunks = rest.length > 0 ? [rest] : [];
      size = rest.length;
      wanted = 8;
      onFrame(frame);
    }
  });
}
