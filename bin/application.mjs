// Builds the application when stale, and runs it with everything it needs around it.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT, bundle, newest } from './bundle.mjs';
import { Trouble, ensureDebian, ensureFree, ensurePackages } from './environment.mjs';
import { ownDatabase, startDatabase } from './database.mjs';
import { openLog } from './log.mjs';

const NEXT = join(ROOT, 'node_modules', 'next', 'dist', 'bin', 'next');

/** Environment of every process of ours. */
export function environmentOf({ port, dbPort, data, address, database }) {
  // The address of a database of one's own holds a password: it goes to no other purpose, and not to those who don't need it.
  const { POLYDROME_DB_URL: url, POLYDROME_DB_ADMIN_URL: _admin, ...environment } = process.env;
  return {
    ...environment,
    ...(database ? { POLYDROME_DB_URL: url } : {}),
    NEXT_TELEMETRY_DISABLED: '1',
    POLYDROME_PORT: String(port),
    POLYDROME_DB_PORT: String(dbPort),
    POLYDROME_DATA: data,
    POLYDROME_ADDRESS: address,
    // Where the mail stand-in listens, beside the database.
    POLYDROME_MAIL_PORT: String(dbPort + 1),
    POLYDROME_MAIL_PAGE_PORT: String(dbPort + 2),
  };
}

/** Runs a command to its end and gives what it printed; its output is told when it fails. */
export function outputOf(command, args, env, what) {
  const ran = spawnSync(command, args, { cwd: ROOT, env, encoding: 'utf8', maxBuffer: 64 * 1024 * 1024 });
  if (ran.status !== 0)
    throw new Trouble(`${what ?? command} failed:\n${((ran.stdout || '') + (ran.stderr || '')).slice(-4000)}`);
  return ran.stdout;
}

/** Runs a command to its end; without words of what it does, what it printed is shown. */
export function runToEnd(command, args, env, what) {
  const printed = outputOf(command, args, env, what);
  if (what === null && /\S/.test(printed)) process.stdout.write(printed);
}

/** A data folder belongs to one purpose for ever: the demo's people and sign-ins never meet an organisation of one's own. */
function keepPurpose({ data, purpose }, { fresh = false }) {
  const file = join(data, 'purpose');
  const known = existsSync(file) ? readFileSync(file, 'utf8').trim() : existsSync(join(data, 'mysql')) ? 'demo' : null;
  if (known !== null && known !== purpose && [known, purpose].includes('own'))
    throw new Trouble(
      `The data folder ${data} holds ${known === 'own' ? 'an organisation of your own' : 'the demo'}; choose another with POLYDROME_DATA.`,
    );
  if (fresh && purpose === 'own')
    throw new Trouble('--fresh begins the demo anew; an organisation of your own is never wiped by a start.');
  mkdirSync(data, { recursive: true, mode: 0o700 });
  writeFileSync(file, purpose);
}

/** Builds the application unless the last build is newer than every source. */
export function buildWhenStale() {
  const stamp = join(ROOT, '.next', 'polydrome-built');
  const sources = ['src', 'package.json', 'next.config.mjs'].map((s) => join(ROOT, s));
  if (existsSync(stamp) && statSync(stamp).mtimeMs >= Math.max(...sources.map(newest))) return;
  console.log('Building the application …');
  runToEnd(
    process.execPath,
    [NEXT, 'build'],
    { ...process.env, NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' },
    'The build',
  );
  mkdirSync(join(ROOT, '.next'), { recursive: true });
  writeFileSync(stamp, '');
}

/** Prompts are spoken from text where the program for it is there; without it everything else works. */
function ensureSpeech() {
  try {
    ensureDebian([['espeak-ng', 'espeak-ng']]);
  } catch (e) {
    if (!(e instanceof Trouble)) throw e;
    console.log(`Texts can't be spoken: ${e.message}`);
  }
}

/** Database, migrations and, where wanted, the demo company. `set`: ports, folder and database (`settings`). */
export async function startGround(set, options) {
  ensureDebian([
    ...(set.database ? [] : [['mariadbd', 'mariadb-server']]),
    // What only tests need: a browser, and the proxy that stands in front when it runs for real.
    ...(options.browser
      ? [
          ['chromium', 'chromium'],
          ['nginx', 'nginx-light'],
          ['openssl', 'openssl'],
        ]
      : []),
  ]);
  ensureSpeech();
  ensurePackages();
  await ensureFree(set.port, set.variable, 'the application', set.address);
  keepPurpose(set, options);
  const database = set.database ? await ownDatabase(set) : await startDatabase(set, options);
  try {
    const env = environmentOf(set);
    runToEnd(
      process.execPath,
      [await bundle('bin/migrate.ts', 'migrate')],
      { ...env, POLYDROME_MIGRATE: JSON.stringify(database.admin) },
      'Bringing the database up to date',
    );
    if (set.purpose !== 'own')
      runToEnd(process.execPath, [await bundle('demo/load.ts', 'load-demo')], env, 'Loading the demo company');
    return { set, env, database, log: await openLog(set.data) };
  } catch (e) {
    await database.stop();
    throw e;
  }
}

/** Deaths within `DEATHS_MS` after which a process is no longer started again. */
const MOST_DEATHS = 3;
const DEATHS_MS = 60_000;
const FIRST_PAUSE_MS = 200;
const STEADY_MS = 5_000;

/** Starts a process that is started again, after a growing pause, when it ends by itself; `over` comes when that is given up. */
function keepRunning(what, start, mostDeaths) {
  let stopped = false;
  let pause = FIRST_PAUSE_MS;
  let child = start();
  let since = Date.now();
  let deaths = [];
  let giveUp;
  const over = new Promise((done) => (giveUp = done));
  const watch = () =>
    child.once('exit', async (code, signal) => {
      if (stopped) return;
      const how = signal ?? `exit code ${code}`;
      deaths = [...deaths.filter((at) => at > Date.now() - DEATHS_MS), Date.now()];
      if (deaths.length >= mostDeaths) return giveUp(`${what} ended ${deaths.length} times within a minute (${how}).`);
      console.error(`${what} ended (${how}); it is started again.`);
      // What ran well for a while is no process that can't start.
      pause = Date.now() - since > STEADY_MS ? FIRST_PAUSE_MS : Math.min(pause * 2, 10_000);
      await new Promise((done) => setTimeout(done, pause));
      if (stopped) return;
      child = start();
      since = Date.now();
      watch();
    });
  watch();
  return {
    over,
    stop: () => {
      stopped = true;
      return stopChild(child);
    },
  };
}

/** A process of ours from its bundle, kept running; what it says goes to the log. It ends when this process does. */
function ours(what, file, env, log, { shown = false, mostDeaths = MOST_DEATHS } = {}) {
  const start = () => {
    const child = spawn(process.execPath, [file], {
      cwd: ROOT,
      env: { ...env, POLYDROME_STARTED: '1' },
      stdio: ['pipe', 'pipe', 'pipe'],
      detached: true,
    });
    child.stdin.on('error', () => undefined);
    for (const stream of [child.stdout, child.stderr]) {
      log.take(stream, what);
      if (shown) stream.pipe(process.stdout, { end: false });
    }
    return child;
  };
  return keepRunning(what, start, mostDeaths);
}

/**
 * Keeps a ground's database running: one that ends by itself is started again after a pause. `over` comes when that is given up.
 */
export function keepDatabase(ground, { pause = 500, mostDeaths = MOST_DEATHS } = {}) {
  let stopped = false;
  let deaths = [];
  let giveUp;
  const over = new Promise((done) => (giveUp = done));
  const ended = async (how) => {
    for (;;) {
      if (stopped) return;
      deaths = [...deaths.filter((at) => at > Date.now() - DEATHS_MS), Date.now()];
      if (deaths.length >= mostDeaths)
        return giveUp(
          `The database ended ${deaths.length} times within a minute (${how}); ${ground.set.data}/mysql.log says more.`,
        );
      console.error(`The database ended (${how}); it is started again. Nothing that was saved is lost.`);
      await new Promise((done) => setTimeout(done, pause));
      if (stopped) return;
      try {
        ground.database = await startDatabase(ground.set);
        return watch();
      } catch (e) {
        // It may have died while it was being started.
        how = e.message;
      }
    }
  };
  const watch = () => {
    const { process } = ground.database;
    // One that somebody else keeps running comes back when they say so; until then pages say that it is away.
    if (!process) return;
    const how = () => process.signalCode ?? `exit code ${process.exitCode}`;
    if (process.exitCode !== null || process.signalCode !== null) return ended(how());
    process.once('exit', () => void ended(how()));
  };
  void watch();
  return {
    over,
    stop: () => {
      stopped = true;
      return ground.database.stop();
    },
  };
}

/** Starts the engine: the process whose threads hold the plans and answer the web processes. */
async function startEngine({ env, log }, options) {
  await bundle('src/server/engine/thread.ts', 'engine-thread');
  const file = await bundle('bin/engine.ts', 'engine');
  return ours('The routing engine', file, { ...env, NODE_ENV: 'production' }, log, options);
}

/**
 * Starts the web process, the one that renders its pages and the engine, and waits until all three answer. Tests that kill
 * them on purpose raise `mostDeaths`.
 */
export async function startWeb({ set, env, log }, { dev = false, mostDeaths = MOST_DEATHS } = {}) {
  const own = { ...env, NODE_ENV: dev ? 'development' : 'production' };
  const options = { shown: dev, mostDeaths };
  const files = [await bundle('bin/pages.ts', 'pages'), await bundle('bin/web.ts', 'web')];
  const parts = [
    await startEngine({ env, log }, { mostDeaths }),
    ours('The process that renders pages', files[0], own, log, options),
    ours('The web process', files[1], own, log, options),
  ];
  let reason = null;
  const over = Promise.race(parts.map((p) => p.over)).then((r) => (reason = r));
  const stop = () => Promise.all(parts.map((p) => p.stop()));
  const url = `http://${/^(0\.0\.0\.0|::)$/.test(set.address) ? '127.0.0.1' : set.address.includes(':') ? `[${set.address}]` : set.address}:${set.port}`;
  const answers = (path) =>
    fetch(`${url}${path}`, { signal: AbortSignal.timeout(5000) }).then(
      (r) => r.ok,
      () => false,
    );
  for (let tries = 0; tries < 300; tries++) {
    if (reason) break;
    if ((await answers('/api/v1/health')) && (await answers('/sign-in'))) return { over, url, stop };
    await new Promise((done) => setTimeout(done, 200));
  }
  await stop();
  throw new Trouble(reason ?? 'The application did not answer within a minute.');
}

/** Starts the worker that does long work: imports, bulk edits, large undos. */
export async function startWorker({ env, log }, { mostDeaths = MOST_DEATHS } = {}) {
  await bundle('src/server/operations/workbook-thread.ts', 'workbook-thread');
  await bundle('src/server/sound/sound-thread.ts', 'sound-thread');
  const file = await bundle('bin/worker.ts', 'worker');
  return ours('The worker', file, { ...env, NODE_ENV: 'production' }, log, { mostDeaths });
}

/** Starts the mail server for trying, which shows what was sent; `url` is its page. */
export async function startMail({ env, log }, { mostDeaths = MOST_DEATHS } = {}) {
  const file = await bundle('stand-ins/mail/main.ts', 'mail-stand-in');
  const process = ours('The mail stand-in', file, env, log, { mostDeaths });
  return { ...process, url: `http://127.0.0.1:${env.POLYDROME_MAIL_PAGE_PORT}` };
}

async function stopChild(child) {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const ended = new Promise((done) => child.once('exit', done));
  child.kill('SIGTERM');
  const timer = setTimeout(() => child.kill('SIGKILL'), 8000);
  await ended;
  clearTimeout(timer);
}
