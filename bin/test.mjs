// npm test: sets the machine up, then unit, API, fault and browser tests, these against databases and applications of their own.
// Arguments go to Jest: `npm test -- src/core` runs only those.
import { spawn } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { join, relative } from 'node:path';
import { ROOT } from './bundle.mjs';
import { Trouble, ensurePackages, settings } from './environment.mjs';
import {
  buildWhenStale,
  environmentOf,
  keepDatabase,
  startGround,
  startMail,
  startWeb,
  startWorker,
} from './application.mjs';

const args = process.argv.slice(2);
const paths = args.filter((a) => !a.startsWith('-'));
/** Paths that are all of one kind need only that kind's tests. */
const unitOnly = paths.length > 0 && paths.every((a) => /^(src|bin|demo)\b/.test(a));
const systemOnly = paths.length > 0 && paths.every((a) => /^tests\b/.test(a));
const report = join(ROOT, '.build', 'test-report.json');

/** Tests of the system run so many side by side, each with an application of its own. A single file needs one only. */
const APPLICATIONS = paths.length === 1 && /\.test\.ts$|\/[^/]+\//.test(paths[0]) ? 1 : 2;
/** Between the ports of two applications. */
const APART = 20;
const AWAY_MS = 4000;

/** Seconds from which on a test is named as slow. */
const SLOW_SECONDS = 20;

/** Runs one project of Jest, so many files side by side. */
async function jest(project, workers, env) {
  rmSync(report, { force: true });
  const jestArgs = [
    workers > 1 ? `--maxWorkers=${workers}` : '--runInBand',
    '--passWithNoTests',
    '--json',
    `--outputFile=${report}`,
    ...args,
    '--selectProjects',
    project,
  ];
  const child = spawn(process.execPath, [join(ROOT, 'node_modules', 'jest', 'bin', 'jest.js'), ...jestArgs], {
    cwd: ROOT,
    env,
    stdio: 'inherit',
  });
  const code = await new Promise((done) => child.once('exit', (c) => done(c ?? 1)));
  const found = JSON.parse(readFileSync(report, 'utf8'));
  for (const t of found.testResults.flatMap((r) => r.assertionResults))
    if (t.duration > SLOW_SECONDS * 1000) console.log(`slow: ${(t.duration / 1000).toFixed(0)} s, ${t.fullName}`);
  // A file that fails beside its tests, before or after them, counts as one.
  const failures = found.testResults.flatMap((r) => {
    const names = r.assertionResults.filter((a) => a.status === 'failed').map((a) => a.fullName);
    const file = relative(ROOT, r.name);
    return r.status !== 'failed' ? [] : names.length === 0 ? [file] : names.map((name) => `${file}: ${name}`);
  });
  return { code, passed: found.numPassedTests, failures };
}

/** An application under test: its database, web process, pages, engine and worker. */
class Application {
  async start(number) {
    const { port, dbPort, data, ...rest } = settings('test');
    const set = {
      ...rest,
      port: port + APART * number,
      dbPort: dbPort + APART * number,
      data: join(data, String(number)),
    };
    this.ground = await startGround(set, { fresh: true, browser: true });
    buildWhenStale();
    // Every answer is held against its schema.
    this.ground.env.POLYDROME_CHECK_ANSWERS = '1';
    // The calendars that the tests serve are on this machine.
    this.ground.env.POLYDROME_FEEDS_HERE = '1';
    this.web = await startWeb(this.ground, { mostDeaths: Infinity });
    this.worker = await startWorker(this.ground, { mostDeaths: Infinity });
    this.mail = await startMail(this.ground);
    // Tests kill the database on purpose; it comes back after a while, as it would under a service manager.
    this.database = keepDatabase(this.ground, { pause: AWAY_MS, mostDeaths: Infinity });
  }

  /** What tests of this application find in their environment. */
  get env() {
    const { POLYDROME_PORT, POLYDROME_DB_PORT, POLYDROME_DATA } = environmentOf(this.ground.set);
    const POLYDROME_MIGRATE = JSON.stringify(this.ground.database.admin);
    return { POLYDROME_PORT, POLYDROME_DB_PORT, POLYDROME_DATA, POLYDROME_MIGRATE };
  }

  async stop() {
    await Promise.all([this.web?.stop(), this.worker?.stop(), this.mail?.stop()]);
    await (this.database ?? this.ground?.database)?.stop();
  }
}

const applications = [];
const stop = () => Promise.all(applications.map((a) => a.stop()));
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => stop().then(() => process.exit(130)));

try {
  ensurePackages();
  const results = systemOnly ? [] : [await jest('unit', 2, process.env)];
  if (!unitOnly) {
    for (let number = 0; number < APPLICATIONS; number++) {
      applications.push(new Application());
      await applications.at(-1).start(number);
    }
    const POLYDROME_APPLICATIONS = JSON.stringify(applications.map((a) => a.env));
    results.push(await jest('system', APPLICATIONS, { ...process.env, POLYDROME_APPLICATIONS }));
    await stop();
  }
  const sum = (of) => results.reduce((all, r) => all + r[of], 0);
  const failures = results.flatMap((r) => r.failures);
  // Once more at the end, where a long log is read first.
  for (const failure of failures) console.log(`failed: ${failure}`);
  console.log(`${sum('passed')} passed, ${failures.length} failed`);
  process.exit(sum('code') === 0 && failures.length === 0 ? 0 : 1);
} catch (e) {
  console.error(e instanceof Trouble ? e.message : e);
  await stop();
  process.exit(1);
}
