import { execFileSync, spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { request } from 'node:https';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, jest } from '@jest/globals';
import { FIRST_PORT, start, stopped, type Started } from '../support/started';
import { until } from '../support/until';

/*
 * Every command of docs/operations.md, read from that page and run: the paths and ports in it become those of a folder of the
 * test, and a small stand-in for the service manager starts and stops what the page's unit says.
 */

jest.setTimeout(300_000);

const folder = mkdtempSync(join(tmpdir(), 'polydrome-real-'));
const [PORT, DB_PORT, TLS_PORT] = [FIRST_PORT + 60, FIRST_PORT + 66, FIRST_PORT + 63];
const OTHER = { POLYDROME_PORT: String(PORT + 1), POLYDROME_DB_PORT: String(DB_PORT + 1) };
const page = readFileSync('docs/operations.md', 'utf8');
const blocks = new Map(
  [...page.matchAll(/^```(\w+) name=([\w-]+)\n([^]*?)^```$/gm)].map(([, , name, text]) => [name!, text!]),
);
const used = new Set<string>();

/** A block of the page with the paths and ports of this test. */
function block(name: string, data = 'data'): string {
  used.add(name);
  return blocks
    .get(name)!
    .replaceAll('/opt/polydrome', join(folder, 'opt'))
    .replaceAll('/var/lib/polydrome', join(folder, data))
    .replaceAll('/var/backups/polydrome', join(folder, 'backups'))
    .replaceAll('/etc/polydrome', folder)
    .replaceAll('127.0.0.1:4500', `127.0.0.1:${PORT}`)
    .replaceAll('=4500', `=${PORT}`)
    .replaceAll('listen 443', `listen 127.0.0.1:${TLS_PORT}`)
    .replaceAll('127.0.0.1:3306', `127.0.0.1:${DB_PORT}`);
}

/** Lines `NAME=value` of a block. */
const settingsOf = (text: string): Record<string, string> =>
  Object.fromEntries([...text.matchAll(/^([A-Z]\w+)=(.*)$/gm)].map(([, name, value]) => [name!, value!]));

const bin = join(folder, 'bin');

/** A stand-in for a program of the machine. */
function standIn(name: string, script: string): void {
  mkdirSync(bin, { recursive: true });
  writeFileSync(join(bin, name), `#!/bin/sh\n${script}\n`);
  chmodSync(join(bin, name), 0o755);
}

/** Runs a block as it stands; throws with what it printed when a command fails. */
function run(name: string, data?: string): string {
  const ran = spawnSync('bash', ['--norc', '-euo', 'pipefail', '-c', block(name, data)], {
    env: { ...process.env, PATH: `${bin}:${process.env.PATH}:/usr/sbin:/sbin` },
    encoding: 'utf8',
  });
  if (ran.status !== 0) throw new Error(`${name} failed:\n${ran.stdout}${ran.stderr}`);
  return ran.stdout;
}

const asked = () => readFileSync(join(folder, 'asked'), 'utf8').trim().split('\n');

let own: Started;

/** Starts what the unit of the page says, in the environment of the page. */
async function service(data = 'data', more: Record<string, string> = {}): Promise<Started> {
  const environment = { ...settingsOf(block('environment', data)), POLYDROME_DB_PORT: String(DB_PORT), ...more };
  const started = start(environment);
  await until(
    () => /Ctrl-C|^Port|failed|can’t/m.test(started.said()),
    () => started.said(),
    180,
  );
  writeFileSync(join(folder, 'journal'), started.said());
  return started;
}

const json = (path: string, body?: unknown, headers: Record<string, string> = {}, port = PORT) =>
  fetch(`http://127.0.0.1:${port}/api/v1${path}`, {
    method: body === undefined ? 'GET' : 'POST',
    headers: { ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
    body: body === undefined ? undefined : JSON.stringify(body),
  });

const OWNER = { name: 'Maren Oduya', signIn: 'maren', password: 'berth and ladder 40' };

beforeAll(async () => {
  standIn('systemctl', `echo "$@" >> ${folder}/asked`);
  standIn('journalctl', `cat ${folder}/journal`);
  // A checkout of something small stands for ours: what is tried here is the way, not the build.
  execFileSync('bash', [
    '--norc',
    '-euc',
    `git init -q --bare ${folder}/up.git && git clone -q ${folder}/up.git ${folder}/opt 2>/dev/null && cd ${folder}/opt
     git config user.email test@polydrome.example && git config user.name Test
     echo '{"name":"opt","private":true,"scripts":{"build":"true"}}' > package.json && git add . && git commit -qm first && git push -q origin HEAD`,
  ]);
  own = await service();
});
afterAll(async () => {
  await stopped(own);
});

describe('running it for real, as its page says', () => {
  it('is prepared and started as a service, whose journal shows the code', async () => {
    run('prepare');
    const unit = settingsOf(block('unit'));
    expect(unit.ExecStart).toBe('/usr/bin/node bin/start.mjs');
    expect(unit.EnvironmentFile).toBe(join(folder, 'environment'));
    const journal = run('service');
    expect(asked()).toEqual(['daemon-reload', 'enable --now polydrome']);
    const code = /with this code: (\S+)/.exec(journal)![1]!;
    const begun = await json('/first', {
      code,
      owner: OWNER,
      organisation: { name: 'Quaywright Boats', language: 'sv', dayOrder: 'day first' },
      site: { name: 'Boatyard', country: 'SE', zone: 'Europe/Stockholm', address: '', area: '31' },
    });
    expect(begun.status).toBe(200);
    expect(JSON.parse(/^\{[^}]*\}/.exec(run('health'))![0])).toMatchObject({ draftVersion: 1 });
  });

  it('stands behind a proxy with TLS, which is believed', async () => {
    execFileSync(
      'openssl',
      [
        ...['req', '-x509', '-newkey', 'rsa:2048', '-nodes', '-days', '2', '-subj', '/CN=phones.example.com'],
        ...['-keyout', join(folder, 'tls.key'), '-out', join(folder, 'tls.crt')],
      ],
      { stdio: 'ignore' },
    );
    const site = join(folder, 'site.conf');
    writeFileSync(site, block('proxy'));
    const temporary = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi'].map(
      (t) => `${t}_temp_path ${folder}/nginx;`,
    );
    writeFileSync(
      join(folder, 'nginx.conf'),
      `pid ${folder}/nginx.pid; error_log ${folder}/nginx.log; events {} http { access_log off; ${temporary.join(' ')} include ${site}; }`,
    );
    const nginx = execFileSync('bash', ['-c', 'PATH=$PATH:/usr/sbin command -v nginx'], { encoding: 'utf8' }).trim();
    standIn('nginx', `exec ${nginx} -c ${folder}/nginx.conf "$@"`);
    run('proxy-check');
    const proxy: ChildProcess = spawn(nginx, ['-c', join(folder, 'nginx.conf'), '-g', 'daemon off;']);
    try {
      const body = JSON.stringify({ name: OWNER.signIn, password: OWNER.password });
      const ask = () =>
        new Promise<{ status: number; cookies: string[] }>((done, failed) => {
          const asking = request(
            {
              host: '127.0.0.1',
              port: TLS_PORT,
              path: '/api/v1/session',
              method: 'POST',
              rejectUnauthorized: false,
              headers: { host: 'phones.example.com', 'content-type': 'application/json' },
            },
            (answer) => {
              answer.resume();
              done({ status: answer.statusCode!, cookies: answer.headers['set-cookie'] ?? [] });
            },
          );
          asking.on('error', failed);
          asking.end(body);
        });
      let answer = await ask().catch(() => null);
      for (let i = 0; !answer && i < 50; i++) {
        await new Promise((done) => setTimeout(done, 100));
        answer = await ask().catch(() => null);
      }
      expect(answer!.status).toBe(200);
      expect(answer!.cookies.length).toBeGreaterThan(0);
      for (const cookie of answer!.cookies) expect(cookie).toMatch(/; Secure/);
    } finally {
      proxy.kill('SIGTERM');
    }
  });

  it('works in a database of one’s own, with a user that can’t change tables', async () => {
    const root = [
      `--socket=${folder}/data/mysql/s.sock`,
      '--user=root',
      `--password=${readFileSync(join(folder, 'data', 'db-root-password'), 'utf8').trim()}`,
    ];
    execFileSync('mariadb', root, { input: block('own-database') });
    const urls = settingsOf(block('own-database-environment'));
    const other = await service('other', { ...OTHER, ...urls });
    try {
      expect(other.said()).toMatch(/with this code: /);
      expect(other.said()).toContain('Database phones at 127.0.0.1');
      expect((await json('/health', undefined, {}, PORT + 1)).status).toBe(200);
      const dropped = spawnSync(
        'mariadb',
        ['--host=127.0.0.1', `--port=${DB_PORT}`, '--user=phones', '--password=a-long-password', 'phones'],
        { input: 'DROP TABLE account;', encoding: 'utf8' },
      );
      expect(dropped.stderr).toMatch(/denied/);
    } finally {
      await stopped(other);
    }
    const wrong = start({
      ...settingsOf(block('environment', 'other')),
      ...OTHER,
      POLYDROME_DB_URL: urls.POLYDROME_DB_URL!.replace('a-long', 'a-wrong'),
    });
    expect(await wrong.ended).toBe(1);
    expect(wrong.said()).toMatch(/can’t be used: .*denied/i);
    expect(wrong.said()).not.toContain('a-wrong-password');
  });

  it('is backed up while it runs, restored into an empty one, and upgraded', async () => {
    run('backup');
    await stopped(own);
    own = await service('restored');
    expect(await (await json('/first')).json()).toMatchObject({ open: true });
    run('restore', 'restored');
    expect(asked().at(-1)).toBe('restart polydrome');
    await stopped(own);
    own = await service('restored');
    expect(await (await json('/first')).json()).toMatchObject({ open: false });
    expect((await json('/session', { name: OWNER.signIn, password: OWNER.password })).status).toBe(200);
    expect(readFileSync(join(folder, 'restored', 'secret-key'), 'utf8')).toBe(
      readFileSync(join(folder, 'data', 'secret-key'), 'utf8'),
    );
    run('upgrade');
    expect(asked().at(-1)).toBe('restart polydrome');
  });

  it('tries every block of the page', () => {
    expect([...blocks.keys()].filter((name) => !used.has(name))).toEqual([]);
  });
});
