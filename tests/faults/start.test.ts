import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';

jest.setTimeout(120_000);
/* Ports beside those of the application under test, so that two runs can stand beside each other. */
const FIRST = Number(process.env.POLYDROME_PORT ?? 4700) + 80;
const PORT = FIRST + 10;
const DB_PORT = FIRST + 16;
const folder = mkdtempSync(join(tmpdir(), 'polydrome-start-'));

function start(
  env: Record<string, string> = {},
  args: string[] = [],
): { child: ChildProcess; said: () => string; ended: Promise<number> } {
  let text = '';
  const child: ChildProcess = spawn(process.execPath, ['bin/start.mjs', ...args], {
    env: {
      ...process.env,
      POLYDROME_PORT: String(PORT),
      POLYDROME_DB_PORT: String(DB_PORT),
      POLYDROME_DATA: join(folder, 'data'),
      ...env,
    },
  });
  child.stdout!.on('data', (d) => (text += String(d)));
  child.stderr!.on('data', (d) => (text += String(d)));
  return { child, said: () => text, ended: new Promise((done) => child.once('exit', (code) => done(code ?? -1))) };
}

async function until(what: () => boolean, seconds = 60): Promise<void> {
  for (let i = 0; i < seconds * 10; i++) {
    if (what()) return;
    await new Promise((done) => setTimeout(done, 100));
  }
  throw new Error('waited in vain');
}

const health = () =>
  fetch(`http://127.0.0.1:${PORT}/api/v1/health`).then(
    (r) => r.json() as Promise<{ draftVersion: number }>,
    () => null,
  );

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
    await until(() => second.said().includes('runs at'), 30);
    expect(await health()).toEqual(before);
    second.child.kill('SIGINT');
    expect(await second.ended).toBe(0);
  });
});
