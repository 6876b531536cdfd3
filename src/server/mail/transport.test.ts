import { createServer, type AddressInfo, type Server, type Socket } from 'node:net';
import { afterEach, describe, expect, it } from '@jest/globals';
import { handOver, isForGood, refusalWords } from './transport';

/* The dialogue of RFC 5321 with a server that is written down here, line by line. */

let server: Server | null = null;
afterEach(() => {
  server?.close();
});

interface Heard {
  lines: string[];
  data: string;
}

/** A server that answers each verb with what is written; gives its port and what it heard. */
async function speaking(answers: Record<string, string>): Promise<{ port: number; heard: Heard }> {
  const heard: Heard = { lines: [], data: '' };
  server = createServer((socket: Socket) => {
    let inData = false;
    let rest = '';
    socket.write(`${answers.greeting ?? '220 here'}\r\n`);
    socket.on('data', (d) => {
      rest += d.toString('latin1');
      for (;;) {
        if (inData) {
          const end = rest.indexOf('\r\n.\r\n');
          if (end < 0) return;
          heard.data = rest.slice(0, end);
          rest = rest.slice(end + 5);
          inData = false;
          socket.write(`${answers.end ?? '250 taken as 42'}\r\n`);
          continue;
        }
        const at = rest.indexOf('\r\n');
        if (at < 0) return;
        const line = rest.slice(0, at);
        rest = rest.slice(at + 2);
        heard.lines.push(line);
        const verb = line.split(' ')[0]!.toUpperCase();
        if (verb === 'DATA' && !answers.DATA) inData = true;
        const usual: Record<string, string> = { DATA: '354 go on', QUIT: '221 bye' };
        socket.write(`${answers[verb] ?? usual[verb] ?? '250 ok'}\r\n`);
      }
    });
    socket.on('error', () => undefined);
  });
  await new Promise<void>((done) => server!.listen(0, '127.0.0.1', done));
  return { port: (server!.address() as AddressInfo).port, heard };
}

const by = (port: number) => ({
  host: '127.0.0.1',
  port,
  security: 'none' as const,
  user: '',
  hasPassword: false,
  password: null,
  sender: 'phones@lanternfold.example',
  pages: 'http://x',
});
const mail = {
  id: '018f0000-0000-7000-8000-000000000001',
  to: 'ilse@lanternfold.example',
  subject: 'Nachricht von Köln',
  text: 'first\n.a line that begins with a dot\n..two',
  sound: null,
};

describe('handing a mail over', () => {
  it('names sender and recipient, stuffs dots, and gives what the server said', async () => {
    const { port, heard } = await speaking({});
    expect(await handOver(by(port), mail)).toBe('250 taken as 42');
    expect(heard.lines.find((l) => l.startsWith('MAIL'))).toMatch(/^MAIL FROM:<phones@lanternfold\.example>/);
    expect(heard.lines).toContain('RCPT TO:<ilse@lanternfold.example>');
    // RFC 5321 section 4.5.2
    expect(heard.data).toContain('\r\n..a line that begins with a dot\r\n...two');
    expect(heard.data).toContain(`Message-ID: <${mail.id}@lanternfold.example>`);
    expect(heard.data).toMatch(/^Subject: =\?UTF-8\?[BQ]\?/m);
  });

  it.each([
    ['550 5.1.1 no such user', 'RCPT', true],
    ['451 4.3.0 later', 'RCPT', false],
    ['552 5.2.2 full', 'end', true],
    ['421 4.3.2 shutting down', 'end', false],
  ])('%s at %s: for good %s', async (answer, where, forGood) => {
    const { port } = await speaking({ [where]: answer });
    const refused: unknown = await handOver(by(port), mail).catch((e: unknown) => e);
    expect(refused).toBeInstanceOf(Error);
    expect(refusalWords(refused)).toContain(answer);
    expect(isForGood(refused)).toBe(forGood);
  });

  it('nobody listens: it is worth another try, and says so in words', async () => {
    const { port } = await speaking({});
    await new Promise((done) => server!.close(done));
    const refused: unknown = await handOver(by(port), mail).catch((e: unknown) => e);
    expect([isForGood(refused), refusalWords(refused)]).toEqual([false, expect.stringMatching(/ECONNREFUSED/)]);
  });
});
