// Installs what is missing, says clearly what can't be done. Plain Node: runs before anything is installed.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join, resolve } from 'node:path';
import { createHash } from 'node:crypto';
import { ROOT } from './bundle.mjs';

/** Ends with a message for people instead of a stack. */
export class Trouble extends Error {}

/** Settings from the environment, with defaults for a purpose (demo or tests), so that they never meet. */
export function settings(purpose) {
  const test = purpose === 'test';
  const number = (name, fallback) => {
    const text = process.env[name];
    if (text === undefined || text === '') return fallback;
    if (!/^[0-9]{1,5}$/.test(text) || Number(text) > 65535 || Number(text) === 0)
      throw new Trouble(`${name}=${text} is no port; a number from 1 to 65535 is needed.`);
    return Number(text);
  };
  const from = test ? 'POLYDROME_TEST_' : 'POLYDROME_';
  return {
    variable: `${from}PORT`,
    port: number(`${from}PORT`, test ? 4700 : 4600),
    dbPort: number(`${from}DB_PORT`, test ? 4706 : 4606),
    data: resolve(ROOT, process.env[`${from}DATA`] || (test ? '.data-test' : '.data')),
  };
}

/** Where a command is; also where an ordinary user's PATH does not look. Null when it is nowhere. */
export function find(command) {
  const folders = [...(process.env.PATH ?? '').split(':'), '/usr/bin', '/usr/sbin', '/sbin', '/bin'];
  return folders.map((f) => join(f, command)).find(existsSync) ?? null;
}

/** Makes sure that Debian packages are there: [command, package] pairs. */
export function ensureDebian(wanted) {
  const missing = wanted.filter(([command]) => !find(command)).map(([, name]) => name);
  if (missing.length === 0) return;
  if (process.getuid?.() !== 0)
    throw new Trouble(`Missing: ${missing.join(', ')}. Install with: sudo apt-get install -y ${missing.join(' ')}`);
  if (!find('apt-get'))
    throw new Trouble(`Missing: ${missing.join(', ')}, and this system has no apt-get to install them with.`);
  console.log(`Installing ${missing.join(', ')} …`);
  const environment = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  for (const args of [
    ['update', '-qq'],
    ['install', '-y', '-qq', ...missing],
  ]) {
    const ran = spawnSync('apt-get', args, { env: environment, encoding: 'utf8' });
    if (ran.status !== 0)
      throw new Trouble(`apt-get ${args.join(' ')} failed:\n${(ran.stderr || ran.stdout || '').slice(-2000)}`);
  }
}

/** Makes sure that the npm packages of package.json are installed. `npm install`, since lock files lack other platforms. */
export function ensurePackages() {
  const stamp = join(ROOT, 'node_modules', '.polydrome-installed');
  const wanted = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  console.log('Installing npm packages …');
  const ran = spawnSync('npm', ['install', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: ROOT,
    encoding: 'utf8',
  });
  if (ran.status !== 0) throw new Trouble(`npm install failed:\n${(ran.stderr || ran.stdout || '').slice(-3000)}`);
  writeFileSync(stamp, wanted);
}

/** Processes of a start that was killed leave their port within so long. */
const LEAVING_MS = 2000;

/** Throws when something listens on a port already, and goes on listening. */
export async function ensureFree(port, variable, what) {
  for (const begun = Date.now(); ;) {
    try {
      return await probe(port, variable, what);
    } catch (e) {
      if (Date.now() - begun > LEAVING_MS) throw e;
      await new Promise((done) => setTimeout(done, 200));
    }
  }
}

async function probe(port, variable, what) {
  await new Promise((done, failed) => {
    const probe = createServer();
    probe.once('error', (e) =>
      failed(
        e.code === 'EADDRINUSE'
          ? new Trouble(
              `Port ${port} for ${what} is taken. Stop what runs there, or choose another: ${variable}=${port + 1} npm run …`,
            )
          : e,
      ),
    );
    probe.listen(port, '127.0.0.1', () => probe.close(done));
  });
}
