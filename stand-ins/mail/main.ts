import { mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { join } from 'node:path';
import { simpleParser, type ParsedMail } from 'mailparser';
import { SMTPServer } from 'smtp-server';
import { endWithStarter } from '../../bin/with-starter';
import { listPage, mailPage } from './pages';

/*
 * A mail server for trying: takes every mail over SMTP (RFC 5321) on this machine, keeps it as a file as it came (RFC 5322),
 * and shows it on a page. It sends nothing on. Mail for refused@… is refused for good, for busy@… for now.
 */

endWithStarter();
const [smtpPort, pagePort] = [Number(process.env.POLYDROME_MAIL_PORT), Number(process.env.POLYDROME_MAIL_PAGE_PORT)];
const folder = join(process.env.POLYDROME_DATA!, 'mail');
mkdirSync(folder, { recursive: true });

const MOST_MAIL_BYTES = 80_000_000;
const MOST_SHOWN = 200;

const names = () =>
  readdirSync(folder)
    .filter((n) => n.endsWith('.eml'))
    .sort()
    .reverse()
    .slice(0, MOST_SHOWN);

let count = 0;
/** Files sort by when they came. */
const nextName = () => `${new Date().toISOString().replace(/[:.]/g, '-')}-${String((count += 1)).padStart(4, '0')}.eml`;

const refusal = (code: number, words: string) => Object.assign(new Error(words), { responseCode: code });

const smtp = new SMTPServer({
  authOptional: true,
  disabledCommands: ['STARTTLS'],
  size: MOST_MAIL_BYTES,
  onAuth: (auth, _session, done) => done(null, { user: auth.username }),
  onRcptTo({ address }, _session, done) {
    if (address.startsWith('refused@')) return done(refusal(550, `5.1.1 nobody here is called ${address}`));
    if (address.startsWith('busy@')) return done(refusal(451, '4.3.0 try again later'));
    done();
  },
  onData(stream, _session, done) {
    const parts: Buffer[] = [];
    stream.on('data', (p: Buffer) => parts.push(p));
    stream.on('end', () => {
      if (stream.sizeExceeded) return done(refusal(552, '5.3.4 the mail is too large'));
      writeFileSync(join(folder, nextName()), Buffer.concat(parts));
      done();
    });
  },
});
smtp.on('error', (e) => console.error(`mail stand-in: ${e.message}`));

const parsed = (name: string): Promise<ParsedMail> => simpleParser(readFileSync(join(folder, name)));

const page = createServer(async (request, response) => {
  const path = new URL(request.url ?? '/', 'http://127.0.0.1').pathname;
  const send = (status: number, type: string, body: string | Buffer) => {
    response.writeHead(status, {
      'content-type': type,
      'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; media-src 'self'",
      'x-content-type-options': 'nosniff',
    });
    response.end(body);
  };
  try {
    if (path === '/') {
      const list = await Promise.all(names().map(async (name) => ({ name, mail: await parsed(name) })));
      return send(200, 'text/html; charset=utf-8', listPage(list));
    }
    const [, name, part] = /^\/([\w-]+\.eml)(?:\/(\d{1,3}))?$/.exec(path) ?? [];
    if (!name || !names().includes(name)) return send(404, 'text/plain', 'There is no such mail.');
    const mail = await parsed(name);
    if (part === undefined) return send(200, 'text/html; charset=utf-8', mailPage(name, mail));
    const found = mail.attachments[Number(part)];
    return found ? send(200, found.contentType, found.content) : send(404, 'text/plain', 'There is no such part.');
  } catch (e) {
    send(500, 'text/plain', `This mail can't be shown: ${(e as Error).message}`);
  }
});

smtp.listen(smtpPort, '127.0.0.1');
page.listen(pagePort, '127.0.0.1');
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    page.close();
    page.closeAllConnections();
    smtp.close(() => process.exit(0));
  });
