import { createServer, type IncomingMessage, type RequestListener, type Server, type ServerResponse } from 'node:http';
import type { Duplex } from 'node:stream';
import { createProxyServer } from 'httpxy';
import { log } from '../log';
import { segmentsOf } from './paths';
import { ASKED_HEADER } from './request';

/**
 * The server that browsers and users of the API reach: it answers below /api/v1 itself and hands every other request on to
 * the process that renders pages, so that no short question waits behind a page. `pages` is that process's local socket,
 * `hosts` the names that it is reached by beside this machine's own.
 */
export function frontServer(api: RequestListener, pages: string, hosts: readonly string[] = []): Server {
  const served = new Set([...HOSTS, ...hosts]);
  const proxy = createProxyServer({ target: { socketPath: pages, host: 'localhost' } });
  const server = createServer(LIMITS, (request, response) => {
    const path = /^[^?#]*/.exec(request.url ?? '/')![0];
    const segments = segmentsOf(path);
    const wrong = segments
      ? (wrongMethod(request.method) ?? wrongHost(request, served) ?? wrongAddress(request.url!, segments))
      : BAD_PATH;
    if (wrong) return refuse(request, response, wrong);
    if (segments![0] === 'api' && segments![1] === 'v1') return api(request, response);
    request.headers[ASKED_HEADER] = request.method === 'GET' ? askedOf(request.url!) : '/';
    proxy.web(request, response).catch((e: unknown) => {
      if (!response.headersSent && !response.destroyed) return refuse(request, response, pagesAway(e));
      response.destroy();
    });
  });
  server.maxConnections = MOST_CONNECTIONS;
  // In development the page tells its changes over a web socket.
  if (process.env.NODE_ENV === 'development')
    server.on('upgrade', (request: IncomingMessage, socket: Duplex, head: Buffer) => {
      proxy.ws(request, socket as never, {}, head).catch(() => socket.destroy());
    });
  return server;
}

/** The address that a page is asked under, without what the browser's own reading of pages adds to it. */
function askedOf(url: string): string {
  if (!URL.canParse(url, 'http://localhost')) return '/';
  const { pathname, searchParams } = new URL(url, 'http://localhost');
  searchParams.delete('_rsc');
  return searchParams.size > 0 ? `${pathname}?${searchParams}` : pathname;
}

/** How much of a head is read, and how long a request may take to come; what is slower than that means harm or is broken. */
const LIMITS = {
  maxHeaderSize: 16 * 1024,
  headersTimeout: 10_000,
  requestTimeout: 120_000,
  keepAliveTimeout: 30_000,
  connectionsCheckingInterval: 2_000,
};
const MOST_CONNECTIONS = 2000;

interface Wrong {
  status: number;
  code: string;
  sentence: string;
}

const BAD_PATH: Wrong = {
  status: 400,
  code: 'bad-path',
  sentence: 'The address holds a percent sign that begins no escape of UTF-8 (RFC 3986, section 2.1).',
};

/** Longest part of a path, and longest value of a query. */
const MOST_PART = 200;
const MOST_VALUE = 4000;

/** An address that nobody honest asks: parts without end, zero octets, one parameter twice. */
function wrongAddress(url: string, segments: readonly string[]): Wrong | null {
  const refused = (code: string, sentence: string): Wrong => ({ status: 400, code, sentence });
  if (segments.some((s) => s.length > MOST_PART))
    return refused(
      'too-long',
      `A part of the address is longer than ${MOST_PART} characters; nothing has such a name.`,
    );
  const query = new URLSearchParams(/\?[^#]*/.exec(url)?.[0] ?? '');
  const seen = new Set<string>();
  for (const [key, value] of query) {
    // Names that every object of the language has are no names of parameters.
    if (key in {}) return refused('no-such-parameter', `Nothing reads ${key} in an address.`);
    if (seen.has(key)) return refused('twice', `The address says ${key.slice(0, 80)} twice; once is enough.`);
    seen.add(key);
    if (value.length > MOST_VALUE || key.length > MOST_PART)
      return refused('too-long', `${key.slice(0, 80)} in the address is longer than ${MOST_VALUE} characters.`);
  }
  if ([...segments, ...query.keys(), ...query.values()].some((s) => s.includes('\u0000')))
    return refused('no-text', 'The address holds a zero octet, which is no character of a text.');
  return null;
}

const METHODS = ['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS'];

const wrongMethod = (method: string | undefined): Wrong | null =>
  METHODS.includes(method ?? '')
    ? null
    : { status: 405, code: 'no-such-method', sentence: `Nothing here takes ${method}.` };

/** Names that this machine has for itself. */
const HOSTS = ['localhost', '127.0.0.1', '[::1]'];

/** A name that leads here and is none of ours: a page of somebody else's that reads ours through it (DNS rebinding). */
function wrongHost(request: IncomingMessage, served: ReadonlySet<string>): Wrong | null {
  const host = (request.headers.host ?? '').toLowerCase().replace(/:[0-9]*$/, '');
  if (served.has(host)) return null;
  return {
    status: 421,
    code: 'other-host',
    sentence: 'This is not served under that name; whoever runs it can allow it with POLYDROME_HOSTS.',
  };
}

function pagesAway(e: unknown): Wrong {
  log.warn({ err: e }, 'the process that renders pages does not answer');
  return { status: 503, code: 'pages-away', sentence: 'Pages are being started; this one comes by itself.' };
}

const AGAIN_SECONDS = 2;

/** A refusal before anything of ours was asked: a page for those who want one, else as the API says it. */
function refuse(request: IncomingMessage, response: ServerResponse, { status, code, sentence }: Wrong): void {
  response.statusCode = status;
  response.setHeader('cache-control', 'no-store');
  response.setHeader('x-content-type-options', 'nosniff');
  if (status === 503) response.setHeader('retry-after', String(AGAIN_SECONDS));
  if (!request.headers.accept?.includes('text/html')) {
    const error = { code, path: '', sentence };
    response.setHeader('content-type', 'application/json');
    response.end(JSON.stringify({ error, errors: [error] }));
    return;
  }
  const again = status === 503 ? `<meta http-equiv="refresh" content="${AGAIN_SECONDS}">` : '';
  response.setHeader('content-type', 'text/html; charset=utf-8');
  response.setHeader('content-security-policy', "default-src 'none'; style-src 'unsafe-inline'");
  response.end(
    `<!doctype html><html lang="en"><head><meta name="viewport" content="width=device-width"><meta name="color-scheme" content="light dark">${again}<title>Polydrome</title></head><body style="font:16px/1.5 sans-serif;max-width:32rem;margin:20vh auto;padding:0 1rem"><h1 style="font-size:1.25rem">Polydrome</h1><p>${escaped(sentence)}</p></body></html>`,
  );
}

const escaped = (text: string) => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);
