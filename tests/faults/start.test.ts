import { existsSync, mkdirSync, mkdtempSync, readFileSync, readdirSync } from 'node:fs';
import { createServer, type Server } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { FIRST_PORT as FIRST, start as startOf } from '../support/started';
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import { until } from '../support/until';

jest.setTimeout(120_000);
const PORT = FIRST + 10;
const DB_PORT = FIRST + 16;
const folder = mkdtempSync(join(tmpdir(), 'polydrome-start-'));

const start = (env: Record<string, string> = {}, args: string[] = []) =>
  startOf(
    {
      POLYDROME_PORT: String(PORT),
      POLYDROME_DB_PORT: String(DB_PORT),
      POLYDROME_DATA: join(folder, 'data'),
      ...env,
    },
    [...args, '--demo'],
  );

const health = () =>
  fetch(`http://127.0.0.1:${PORT}/api/v1/health`).then(
    async (r) => ((await r.json()) as { draftVersion: number }).draftVersion,
    () => null,
  );

/** The processes that a start command under test has started, the database aside. */
function ours(): { pid: number; line: string }[] {
  return readdirSync('/proc')
    .filter((p) => /^\d+$/.test(p))
    .flatMap((p) => {
      try {
        const line = readFileSync(`/proc/${p}/cmdline`, 'utf8').replaceAll('\0', ' ');
        const mine = readFileSync(`/proc/${p}/environ`, 'utf8').split('\0').includes(`POLYDROME_PORT=${PORT}`);
        return mine && /\.build\/|polydrome pages/.test(line) ? [{ pid: Number(p), line }] : [];
      } catch {
        return [];
      }
    });
}

describe('the start command', () => {
  let busy: Server;
  beforeAll(async () => {
    busy = createServer().listen(FIRST, '127.0.0.1');
    await new Promise((done) => busy.once('listening', done));
  });
  afterAll(() => {
    busy.close();
  });

  it.each<[string, Record<string, string>, string[], RegExp]>([
    [
      'a taken port',
      { POLYDROME_PORT: String(FIRST) },
      [],
      new RegExp(`Port ${FIRST} for the application is taken.*POLYDROME_PORT=${FIRST + 1}`),
    ],
    [
      'a taken database port',
      { POLYDROME_DB_PORT: String(FIRST) },
      [],
      new RegExp(`Port ${FIRST} for the database is taken.*POLYDROME_DB_PORT=${FIRST + 1}`),
    ],
    ['a port that is none', { POLYDROME_PORT: 'many' }, [], /POLYDROME_PORT=many is no port/],
    ['an unknown flag', {}, ['--wild'], /--wild: not known/],
  ])('says what to do about %s', async (_, env, args, message) => {
    const { said, ended } = start({ POLYDROME_DATA: join(folder, 'other'), ...env }, args);
    expect(await ended).toBe(1);
    expect(said().trim()).toMatch(message);
    expect(said().trim().split('\n')).toHaveLength(1);
  });

  it('says what to do about a half-made data folder, and leaves it alone', async () => {
    mkdirSync(join(folder, 'half', 'mysql'), { recursive: true });
    const { said, ended } = start({ POLYDROME_DATA: join(folder, 'half') });
    expect(await ended).toBe(1);
    expect(said()).toMatch(/only half made.*--fresh/);
    expect(existsSync(join(folder, 'half', 'mysql'))).toBe(true);
  });

  it('starts everything, stops everything at Ctrl-C, and a second start keeps the data', async () => {
    const first = start();
    await until(() => first.said().includes('runs at'));
    expect(first.said()).toMatch(new RegExp(`http://127\\.0\\.0\\.1:${PORT}[^]*admin[^]*helpdesk[^]*auditor`));
    const before = await health();
    const database = Number(readFileSync(join(folder, 'data', 'mysql.pid'), 'utf8'));
    const again = start({ POLYDROME_PORT: String(PORT + 1), POLYDROME_DB_PORT: String(DB_PORT + 1) });
    expect(await again.ended).toBe(1);
    expect(again.said()).toMatch(/runs already \(process \d+\)/);
    first.child.kill('SIGINT');
    expect(await first.ended).toBe(0);
    expect(await health()).toBeNull();
    expect(() => process.kill(database, 0)).toThrow();

    const second = start();
    await until(() => second.said().includes('runs at'));
    expect(await health()).toEqual(before);
    second.child.kill('SIGINT');
    expect(await second.ended).toBe(0);
  });

  it('killed outright leaves nothing running but the database, which the next start stops in order and begins again', async () => {
    const first = start();
    await until(() => first.said().includes('runs at'));
    const before = await health();
    const database = Number(readFileSync(join(folder, 'data', 'mysql.pid'), 'utf8'));
    const children = ours();
    expect(children.length).toBeGreaterThanOrEqual(4);
    first.child.kill('SIGKILL');
    await until(() => ours().length === 0);
    expect(() => process.kill(database, 0)).not.toThrow();

    const second = start();
    await until(() => second.said().includes('runs at'));
    expect(second.said()).toMatch(new RegExp(`left over by a start that was killed \\(process ${database}\\)`));
    expect(await health()).toBe(before);
    second.child.kill('SIGINT');
    expect(await second.ended).toBe(0);
  });

  it('keeps a log where it says, of what goes wrong and of no secret', async () => {
    const run = start({ POLYDROME_LOG: 'trace' });
    await until(() => run.said().includes('runs at'));
    const path = /what goes wrong in (\S+)\./.exec(run.said())![1]!;
    const base = `http://127.0.0.1:${PORT}/api/v1`;
    const json = { 'content-type': 'application/json' };
    const send = (method: string, at: string, body: unknown, headers: Record<string, string>) =>
      fetch(base + at, { method, body: JSON.stringify(body), headers: { ...json, ...headers } });
    const secrets = ['quay-lantern-42', 'guessed-and-wrong-99', '739164'];
    await send('POST', '/session', { name: 'admin', password: secrets[1] }, {});
    const signedIn = await send('POST', '/session', { name: 'admin', password: secrets[0] }, {});
    const cookie = /polydrome_session=([^;]+)/.exec(signedIn.headers.get('set-cookie')!)!;
    secrets.push(cookie[1]!);
    const own = { cookie: cookie[0], 'sec-fetch-site': 'same-origin' };
    expect((await send('PUT', '/mailboxes/m-2120/pin', { pin: secrets[2] }, own)).status).toBe(200);
    const made = (await (await send('POST', '/extensions/e-2120/sip-password', { make: true }, own)).json()) as {
      password: string;
    };
    const token = (await (await send('POST', '/tokens', { name: 'x', role: 'auditor', days: 1 }, own)).json()) as {
      token: string;
    };
    secrets.push(made.password, token.token);
    // Something that goes wrong: an engine that dies.
    const engine = ours().find(({ line }) => line.includes('engine.mjs'))!;
    process.kill(engine.pid, 'SIGKILL');
    await until(() => run.said().includes('The routing engine ended (SIGKILL); it is started again'));
    run.child.kill('SIGINT');
    expect(await run.ended).toBe(0);
    const text = [path, join(folder, 'data', 'mysql.log')]
      .map((file) => (existsSync(file) ? readFileSync(file, 'utf8') : ''))
      .join();
    expect(
      secrets.filter(
        (secret) =>
          text.includes(secret) ||
          run
            .said()
            .replace(/admin {6}quay.*/, '')
            .includes(secret),
      ),
    ).toEqual([]);
  });

  it('gives up a process that dies three times within a minute, stops everything, and says why', async () => {
    const run = start();
    await until(() => run.said().includes('runs at'));
    for (let death = 1; death <= 3; death++) {
      await until(() => ours().some(({ line }) => line.includes('worker.mjs')));
      process.kill(ours().find(({ line }) => line.includes('worker.mjs'))!.pid, 'SIGKILL');
      await until(() => run.said().split('The worker ended').length > death);
    }
    expect(await run.ended).toBe(1);
    expect(run.said()).toMatch(/The worker ended 3 times within a minute \(SIGKILL\)/);
    expect(ours()).toEqual([]);
    expect(await health()).toBeNull();
  });
});
