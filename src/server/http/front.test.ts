import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, get, request as httpRequest, type RequestListener, type Server } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import { frontServer } from './front';

/* The front with a small stand-in behind it, asked with Node's own client: what is passed on, and what is refused before. */

const folder = mkdtempSync(join(tmpdir(), 'polydrome-front-'));
const socket = join(folder, 'pages.sock');
let behind: RequestListener = (_, response) => response.end('page');
let pages: Server;
let front: Server;
let port = 0;

const startPages = () =>
  new Promise<void>((done) => {
    pages = createServer((q, a) => behind(q, a));
    pages.listen(socket, done);
  });
const stopped = (server: Server) =>
  new Promise<void>((done) => {
    server.close(() => done());
    server.closeAllConnections();
  });

beforeAll(async () => {
  const api: RequestListener = (request, response) => response.end(`api ${request.method} ${request.url}`);
  front = frontServer(api, socket, ['phones.example']);
  await new Promise<void>((done) => front.listen(0, '127.0.0.1', done));
  port = (front.address() as AddressInfo).port;
});
beforeEach(startPages);
afterEach(() => stopped(pages));
afterAll(async () => {
  await stopped(front);
  rmSync(folder, { recursive: true });
});

interface Got {
  status: number;
  headers: Record<string, string | string[] | undefined>;
  body: string;
}

function asked(path: string, options: { method?: string; headers?: object; body?: string } = {}): Promise<Got> {
  return new Promise((done, failed) => {
    const request = httpRequest(
      { port, path, method: options.method ?? 'GET', headers: { ...options.headers }, agent: false },
      (response) => {
        let body = '';
        response.on('data', (d) => (body += String(d)));
        response.on('end', () => done({ status: response.statusCode!, headers: response.headers, body }));
      },
    );
    request.on('error', failed);
    request.end(options.body);
  });
}

/** What the front answers to octets that no client of good manners would send. */
function raw(octets: string): Promise<string> {
  return new Promise((done) => {
    let text = '';
    const line = connect(port, '127.0.0.1', () => line.write(octets));
    line.on('data', (d) => (text += String(d)));
    line.on('close', () => done(text));
    line.on('error', () => done(text));
  });
}

describe('what the front does with a request', () => {
  it('answers the API itself and hands pages on, with method, address, headers and body', async () => {
    behind = (q, a) => {
      let body = '';
      q.on('data', (d) => (body += String(d)));
      q.on('end', () => {
        a.setHeader('set-cookie', ['a=1', 'b=2']);
        a.statusCode = 201;
        a.end([q.method, q.url, q.headers.cookie, q.headers.host, body].join(' | '));
      });
    };
    expect((await asked('/api/v1/plan?of=live')).body).toBe('api GET /api/v1/plan?of=live');
    const page = await asked('/people?q=%C3%A5', {
      method: 'POST',
      headers: { cookie: 'x=y', host: 'phones.example' },
      body: 'typed',
    });
    expect(page).toMatchObject({ status: 201, body: 'POST | /people?q=%C3%A5 | x=y | phones.example | typed' });
    expect(page.headers['set-cookie']).toEqual(['a=1', 'b=2']);
  });

  it.each(['/api/v10/plan', '/api', '/apis/v1', '/people/api/v1'])('takes %s for a page', async (path) => {
    behind = (q, a) => a.end(`page ${q.url}`);
    expect((await asked(path)).body).toBe(`page ${path}`);
  });

  it('reads an escaped path as the API does, so that no page hides behind an escape', async () => {
    expect((await asked('/%61pi/v1/plan')).body).toBe('api GET /%61pi/v1/plan');
  });

  it('passes a page on as it comes, not when it is whole', async () => {
    let finish = () => {};
    behind = (_, a) => {
      a.write('<p>first</p>');
      finish = () => a.end('<p>last</p>');
    };
    const first = await new Promise<string>((done) => {
      get({ port, path: '/', agent: false }, (response) => response.once('data', (d) => done(String(d))));
    });
    expect(first).toBe('<p>first</p>');
    finish();
  });

  it('lets go of a page that nobody waits for any more', async () => {
    const left = new Promise<void>((done) => {
      behind = (q, a) => {
        a.on('close', () => done());
        a.write('…');
      };
    });
    const request = get({ port, path: '/', agent: false }, (response) =>
      response.once('data', () => request.destroy()),
    );
    request.on('error', () => {});
    await left;
  });
});

describe('what the front refuses', () => {
  it.each(['/people/%', '/people/%zz', '/api/v1/people/%c3', '/%e0%a4%a'])('a broken escape: %s', async (path) => {
    const got = await asked(path, { headers: { accept: 'application/json' } });
    expect(got.status).toBe(400);
    expect(JSON.parse(got.body).error).toMatchObject({ code: 'bad-path', sentence: expect.stringMatching(/percent/) });
  });

  it('what is no escape only in the query is left to those who read it', async () => {
    behind = (q, a) => a.end(q.url);
    expect((await asked('/people?q=100%')).body).toBe('/people?q=100%');
  });

  it('methods that nothing takes, by a method that Node reads and by one that it does not', async () => {
    expect(await asked('/', { method: 'TRACE' })).toMatchObject({ status: 405 });
    expect(await raw('BREW /pot HTTP/1.1\r\nHost: localhost\r\n\r\n')).toMatch(/^HTTP\/1\.1 400 /);
  });

  it('names that are not its own, so that no page of somebody else’s reads ours through a name that leads here', async () => {
    for (const host of ['evil.example', 'localhost.evil.example', '127.0.0.1.evil.example:4700', '169.254.0.1'])
      for (const path of ['/', '/api/v1/plan'])
        expect([host, (await asked(path, { headers: { host } })).status]).toEqual([host, 421]);
    for (const host of ['localhost', 'LOCALHOST:4700', '127.0.0.1', '[::1]:80', 'phones.example:443'])
      expect([host, (await asked('/api/v1/plan', { headers: { host } })).status]).toEqual([host, 200]);
  });

  it('a head that never ends, and two lengths of one body', async () => {
    expect(await raw(`GET / HTTP/1.1\r\nHost: localhost\r\nX-Long: ${'a'.repeat(40_000)}\r\n\r\n`)).toMatch(
      /^HTTP\/1\.1 431 /,
    );
    expect(await raw('POST / HTTP/1.1\r\nHost: localhost\r\nContent-Length: 1\r\nContent-Length: 2\r\n\r\nab')).toMatch(
      /^HTTP\/1\.1 400 /,
    );
  });

  it('a head that comes drop by drop, without keeping anybody else waiting', async () => {
    const begun = Date.now();
    const slow = new Promise<string>((done) => {
      let text = '';
      const line = connect(port, '127.0.0.1', () => line.write('GET / HTTP/1.1\r\nHost: localhost\r\n'));
      const drip = setInterval(() => line.write('X-Slow: 1\r\n'), 500);
      line.on('data', (d) => (text += String(d)));
      line.on('close', () => {
        clearInterval(drip);
        done(text);
      });
      line.on('error', () => undefined);
    });
    expect((await asked('/api/v1/health')).status).toBe(200);
    expect(await slow).toMatch(/^HTTP\/1\.1 408 /);
    expect(Date.now() - begun).toBeLessThan(20_000);
  }, 30_000);
});

describe('while nothing renders pages', () => {
  it('says so to a browser as a page that asks again, to others as the API does, and answers the API all along', async () => {
    await stopped(pages);
    rmSync(socket, { force: true });
    const page = await asked('/people', { headers: { accept: 'text/html,*/*' } });
    expect(page.status).toBe(503);
    expect(page.headers['retry-after']).toBe('2');
    expect(page.body).toMatch(/<meta http-equiv="refresh" content="2">.*Pages are being started/);
    const data = await asked('/people', { headers: { accept: '*/*' } });
    expect(JSON.parse(data.body).errors).toHaveLength(1);
    expect((await asked('/api/v1/health')).status).toBe(200);
    await startPages();
    behind = (_, a) => a.end('again');
    expect((await asked('/people')).body).toBe('again');
  });

  it('breaks off a page whose process dies in the middle, so that half a page is not taken for a whole one', async () => {
    behind = (_, a) => {
      a.write('<p>half');
      setTimeout(() => a.socket!.destroy(), 20);
    };
    await expect(
      new Promise((done, failed) => {
        get({ port, path: '/', agent: false }, (response) => {
          response.on('data', () => {});
          response.on('end', () => done('whole'));
          response.on('error', failed);
        });
      }),
    ).rejects.toThrow(/aborted|reset/i);
  });
});
