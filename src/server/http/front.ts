import { createServer, type IncomingMessage, type RequestListener, type Server, type ServerResponse } from 'node:http';
import type { Duplex } from 'node:stream';
import { createProxyServer } from 'httpxy';
import { log } from '../log';
import { segmentsOf } from './paths';

/**
 * The server that browsers and users of the API reach: it answers below /api/v1 itself and hands every other request on to
 * the process that renders pages, so that no short question waits behind a page. `pages` is that process's local socket.
 */
export function frontServer(api: RequestListener, pages: string): Server {
  const proxy = createProxyServer({ target: { socketPath: pages, host: 'localhost' } });
  const server = createServer((request, response) => {
    const path = /^[^?#]*/.exec(request.url ?? '/')![0];
    const segments = segmentsOf(path);
    const wrong = segments ? wrongMethod(request.method) : BAD_PATH;
    if (wrong) return refuse(request, response, wrong);
    if (segments![0] === 'api' && segments![1] === 'v1') return api(request, response);
    proxy.web(request, response).catch((e: unknown) => {
      if (!response.headersSent && !response.destroyed) return refuse(request, response, pagesAway(e));
      response.destroy();
    });
  });
  // In development the page tells its changes over a web socket.
  if (process.env.NODE_ENV === 'development')
    server.on('upgrade', (request: IncomingMessage, socket: Duplex, head: Buffer) => {
      proxy.ws(request, socket as never, {}, head).catch(() => socket.destroy());
    });
  return server;
}

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

const METHODS = ['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS'];

const wrongMethod = (method: string | undefined): Wrong | null =>
  METHODS.includes(method ?? '')
    ? null
    : { status: 405, code: 'no-such-method', sentence: `Nothing here takes ${method}.` };

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
