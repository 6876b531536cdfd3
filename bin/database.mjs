// A private MariaDB: made, started, prepared and stopped here. Its data directory belongs to one purpose only.
import { spawn, spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, openSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Trouble, ensureFree, find } from './environment.mjs';

const asRoot = () => (process.getuid?.() === 0 ? ['--user=root'] : []);
const pause = (ms) => new Promise((done) => setTimeout(done, ms));

/** Starts the database of a data folder, making it first where there is none. Gives a handle with `stop` and `kill`. */
export async function startDatabase({ data, dbPort }, { fresh = false } = {}) {
  const folder = join(data, 'mysql');
  const made = join(data, 'mysql-made');
  const pidFile = join(data, 'mysql.pid');
  await clearAway(pidFile, data);
  if (fresh)
    for (const name of readdirSync(data))
      if (name !== 'started-by' && name !== 'purpose') rmSync(join(data, name), { recursive: true, force: true });
  await ensureFree(dbPort, 'POLYDROME_DB_PORT', 'the database');
  mkdirSync(data, { recursive: true, mode: 0o700 });
  if (existsSync(folder) && !existsSync(made))
    throw new Trouble(
      `The data folder ${data} was only half made, perhaps by a start that was cut short. Begin anew with: npm run demo -- --fresh`,
    );
  const first = !existsSync(folder);
  // A starting MariaDB sweeps its folder for temporary tables: shared with another's, it would take that one's away under its hands.
  const temporary = join(data, 'mysql-tmp');
  mkdirSync(temporary, { recursive: true, mode: 0o700 });
  if (first) makeFolder(folder, temporary);
  const process_ = launch(folder, temporary, dbPort, data, pidFile);
  const socket = join(folder, 's.sock');
  const rootPassword = secretFile(data, 'db-root-password');
  secretFile(data, 'db-password');
  secretFile(data, 'secret-key', 32);
  const root = await connected(process_, socket, first ? '' : rootPassword, data);
  if (first) {
    await root.query(`ALTER USER 'root'@'localhost' IDENTIFIED BY '${rootPassword}'`);
    await root.query("DELETE FROM mysql.global_priv WHERE User = '' OR (User = 'root' AND Host <> 'localhost')");
    await root.query('FLUSH PRIVILEGES');
    writeFileSync(made, new Date().toISOString());
  }
  await prepare(root, data);
  await root.end();
  return {
    process: process_,
    admin: {
      socketPath: socket,
      user: 'root',
      password: rootPassword,
      database: 'polydrome',
      multipleStatements: false,
    },
    stop: () => stop(process_),
    kill: () => process_.kill('SIGKILL'),
  };
}

function makeFolder(folder, temporary) {
  const ran = spawnSync(
    find('mariadb-install-db'),
    [
      '--auth-root-authentication-method=normal',
      ...asRoot(),
      `--datadir=${folder}`,
      `--tmpdir=${temporary}`,
      '--skip-test-db',
    ],
    { encoding: 'utf8' },
  );
  if (ran.status !== 0) {
    rmSync(folder, { recursive: true, force: true });
    throw new Trouble(
      `The database could not be made in ${folder}:\n${(ran.stderr || ran.stdout || String(ran.error)).slice(-1500)}`,
    );
  }
}

function launch(folder, temporary, port, data, pidFile) {
  const log = openSync(join(data, 'mysql.log'), 'a');
  const args = [
    ...asRoot(),
    `--datadir=${folder}`,
    `--tmpdir=${temporary}`,
    '--bind-address=127.0.0.1',
    `--port=${port}`,
    `--socket=${join(folder, 's.sock')}`,
    `--pid-file=${pidFile}`,
    '--skip-name-resolve',
    '--transaction-isolation=READ-COMMITTED',
    '--max-allowed-packet=128M',
    '--innodb-buffer-pool-size=256M',
  ];
  // Detached: a Ctrl-C in the terminal reaches us alone, and we stop the database in order.
  return spawn(find('mariadbd'), ['--no-defaults', ...args], { stdio: ['ignore', log, log], detached: true });
}

/** What a process is called, and null when there is none of that number. */
function commandOf(pid) {
  try {
    return pid > 0 ? readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ') : null;
  } catch {
    return null;
  }
}

/**
 * Makes sure that nobody else runs on a data folder, and takes note that we do. A database whose start command was killed is
 * left over: it is stopped in order, so that a new start begins from what was saved.
 */
async function clearAway(pidFile, data) {
  const owner = join(data, 'started-by');
  const numberIn = (file) => (existsSync(file) ? Number(readFileSync(file, 'utf8').trim()) : 0);
  const [starter, pid] = [numberIn(owner), numberIn(pidFile)];
  const alive = () => commandOf(pid)?.includes('mariadbd') ?? false;
  if (alive()) {
    if (starter !== process.pid && commandOf(starter)?.includes('node'))
      throw new Trouble(
        `The database of ${data} runs already (process ${pid}), for the Polydrome of process ${starter}. Stop that with: kill ${starter}`,
      );
    console.log(`A database was left over by a start that was killed (process ${pid}); it is stopped first.`);
    process.kill(pid, 'SIGTERM');
    for (let tries = 0; alive(); tries++) {
      if (tries === 150) process.kill(pid, 'SIGKILL');
      if (tries > 200) throw new Trouble(`The database of ${data} (process ${pid}) can’t be stopped; end it by hand.`);
      await pause(100);
    }
  }
  mkdirSync(data, { recursive: true, mode: 0o700 });
  writeFileSync(owner, String(process.pid));
}

/** A database of one's own that runs already; the tables in it are ours to make. */
export async function ownDatabase({ data, database: { application, admin } }) {
  mkdirSync(data, { recursive: true, mode: 0o700 });
  secretFile(data, 'secret-key', 32);
  const { createConnection } = await import('mysql2/promise');
  for (const [name, given] of [
    ['POLYDROME_DB_ADMIN_URL', admin],
    ['POLYDROME_DB_URL', application],
  ])
    try {
      const connection = await createConnection({ ...given, connectTimeout: 5000 });
      const [[{ version }]] = await connection.query('SELECT VERSION() AS version');
      await connection.end();
      const [major, minor] = version.split('.').map(Number);
      if (!/mariadb/i.test(version) || major < 10 || (major === 10 && minor < 11))
        throw new Error(`it is ${version}; MariaDB 10.11 or newer is needed`);
    } catch (e) {
      throw new Trouble(
        `The database of ${name} (${given.user} at ${given.host}:${given.port}, ${given.database}) can’t be used: ${e.message}.`,
      );
    }
  return {
    process: null,
    admin: { ...admin, multipleStatements: false },
    stop: () => Promise.resolve(),
    kill: () => undefined,
  };
}

/** A secret of ours in a file that only we may read; made when missing. */
function secretFile(data, name, bytes = 24) {
  const path = join(data, name);
  if (!existsSync(path)) writeFileSync(path, randomBytes(bytes).toString('hex'), { mode: 0o600 });
  return readFileSync(path, 'utf8').trim();
}

async function connected(process_, socketPath, password, data) {
  const { createConnection } = await import('mysql2/promise');
  for (let tries = 0; tries < 150; tries++) {
    if (process_.exitCode !== null || process_.signalCode !== null) break;
    try {
      return await createConnection({ socketPath, user: 'root', password });
    } catch (e) {
      if (e.code === 'ER_ACCESS_DENIED_ERROR')
        throw new Trouble(
          `The database refuses our own password; ${data} comes from somewhere else. Begin anew with: npm run demo -- --fresh`,
        );
      await pause(200);
    }
  }
  throw new Trouble(
    `The database did not start. What it said last stands in ${join(data, 'mysql.log')}:\n${readFileSync(join(data, 'mysql.log'), 'utf8').split('\n').slice(-8).join('\n')}`,
  );
}

/** Database, and the application's own user: it may change rows, never tables but the months of call records. */
async function prepare(root, data) {
  const password = readFileSync(join(data, 'db-password'), 'utf8').trim();
  await root.query('CREATE DATABASE IF NOT EXISTS polydrome CHARACTER SET utf8mb4 COLLATE utf8mb4_uca1400_as_ci');
  await root.query(`CREATE OR REPLACE USER 'polydrome'@'127.0.0.1' IDENTIFIED BY '${password}'`);
  await root.query("GRANT SELECT, INSERT, UPDATE, DELETE ON polydrome.* TO 'polydrome'@'127.0.0.1'");
  await root.query("GRANT CREATE, ALTER, DROP ON polydrome.call_record TO 'polydrome'@'127.0.0.1'");
}

async function stop(process_) {
  if (process_.exitCode !== null || process_.signalCode !== null) return;
  const ended = new Promise((done) => process_.once('exit', done));
  process_.kill('SIGTERM');
  await Promise.race([ended, pause(15_000).then(() => process_.kill('SIGKILL'))]);
}
