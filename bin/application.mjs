// Builds the application when stale, and runs it with everything it needs around it.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT, bundle, newest } from './bundle.mjs';
import { Trouble, ensureDebian, ensureFree, ensurePackages, settings } from './environment.mjs';
import { startDatabase } from './database.mjs';

const NEXT = join(ROOT, 'node_modules', 'next', 'dist', 'bin', 'next');

/** Environment of every process of ours. */
export function environmentOf({ port, dbPort, data }) {
  return {
    ...process.env,
    NEXT_TELEMETRY_DISABLED: '1',
    POLYDROME_PORT: String(port),
    POLYDROME_DB_PORT: String(dbPort),
    POLYDROME_DATA: data,
  };
}

/** Runs a command to its end; its output is shown when it fails. */
export function runToEnd(command, args, env, what) {
  const ran = spawnSync(command, args, { cwd: ROOT, env, encoding: 'utf8', maxBuffer: 64 * 1024 * 1024 });
  if (ran.stdout && ran.status === 0 && /\S/.test(ran.stdout) && what === null) process.stdout.write(ran.stdout);
  if (ran.status !== 0)
    throw new Trouble(`${what ?? command} failed:\n${((ran.stdout || '') + (ran.stderr || '')).slice(-4000)}`);
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

/** Database, migrations, demo company; what both the demo and the tests stand on. */
export async function startGround(purpose, options) {
  ensureDebian([['mariadbd', 'mariadb-server'], ...(options.browser ? [['chromium', 'chromium']] : [])]);
  ensurePackages();
  const set = settings(purpose);
  await ensureFree(set.port, purpose === 'test' ? 'POLYDROME_TEST_PORT' : 'POLYDROME_PORT', 'the application');
  const database = await startDatabase(set, options);
  try {
    const env = environmentOf(set);
    runToEnd(
      process.execPath,
      [await bundle('bin/migrate.ts', 'migrate')],
      { ...env, POLYDROME_MIGRATE: JSON.stringify(database.admin) },
      'Bringing the database up to date',
    );
    runToEnd(process.execPath, [await bundle('demo/load.ts', 'load-demo')], env, 'Loading the demo company');
    return { set, env, database };
  } catch (e) {
    await database.stop();
    throw e;
  }
}

/** Starts a process that is started again, after a growing pause, when it ends by itself. */
function keepRunning(what, start) {
  let stopped = false;
  let pause = 200;
  let child = start();
  const watch = () =>
    child.once('exit', async (code) => {
      if (stopped) return;
      console.error(`${what} ended (exit code ${code}); it is started again.`);
      await new Promise((done) => setTimeout(done, pause));
      pause = Math.min(pause * 2, 10_000);
      if (stopped) return;
      child = start();
      watch();
    });
  watch();
  return {
    get child() {
      return child;
    },
    stop: () => {
      stopped = true;
      return stopChild(child);
    },
  };
}

/** Starts the engine: the process whose threads hold the plans and answer the web processes. */
export async function startEngine({ env }) {
  await bundle('src/server/engine/thread.ts', 'engine-thread');
  const file = await bundle('bin/engine.ts', 'engine');
  return keepRunning('The routing engine', () =>
    spawn(process.execPath, [file], {
      cwd: ROOT,
      env: { ...env, NODE_ENV: 'production' },
      stdio: ['ignore', 'ignore', 'inherit'],
      detached: true,
    }),
  );
}

/** Starts the web application with its engine and waits until both answer. */
export async function startWeb({ set, env }, { dev = false, quiet = false } = {}) {
  const engine = await startEngine({ env });
  const args = [NEXT, dev ? 'dev' : 'start', '-H', '127.0.0.1', '-p', String(set.port)];
  const child = spawn(process.execPath, args, {
    cwd: ROOT,
    env: { ...env, NODE_ENV: dev ? 'development' : 'production' },
    stdio: quiet ? ['ignore', 'ignore', 'inherit'] : ['ignore', dev ? 'inherit' : 'ignore', 'inherit'],
    detached: true,
  });
  const stop = async () => {
    await Promise.all([stopChild(child), engine.stop()]);
  };
  const url = `http://127.0.0.1:${set.port}`;
  for (let tries = 0; tries < 300; tries++) {
    if (child.exitCode !== null) {
      await stop();
      throw new Trouble(`The application ended while it started (exit code ${child.exitCode}).`);
    }
    const ok = await fetch(`${url}/api/v1/health`).then(
      (r) => r.ok,
      () => false,
    );
    if (ok) return { child, engine, url, stop };
    await new Promise((done) => setTimeout(done, 200));
  }
  await stop();
  throw new Trouble('The application did not answer within a minute.');
}

/** Starts the worker that does long work: imports, bulk edits, large undos. */
export async function startWorker({ env }) {
  const file = await bundle('bin/worker.ts', 'worker');
  return keepRunning('The worker', () =>
    spawn(process.execPath, [file], {
      cwd: ROOT,
      env: { ...env, NODE_ENV: 'production' },
      stdio: ['ignore', 'ignore', 'inherit'],
      detached: true,
    }),
  );
}

async function stopChild(child) {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const ended = new Promise((done) => child.once('exit', done));
  child.kill('SIGTERM');
  const timer = setTimeout(() => child.kill('SIGKILL'), 8000);
  await ended;
  clearTimeout(timer);
}
