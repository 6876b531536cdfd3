// npm test: sets the machine up, then unit, API, fault and browser tests against a database and an application of their own.
// Arguments go to Jest: `npm test -- src/core` runs only those.
import { spawn } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './bundle.mjs';
import { Trouble, ensurePackages } from './environment.mjs';
import { buildWhenStale, environmentOf, startGround, startWeb, startWorker } from './application.mjs';
import { startDatabase } from './database.mjs';

const args = process.argv.slice(2);
const paths = args.filter((a) => !a.startsWith('-'));
/** Paths that are all of one kind need only that kind's tests. */
const unitOnly = paths.length > 0 && paths.every((a) => /^(src|bin|demo)\b/.test(a));
const systemOnly = paths.length > 0 && paths.every((a) => /^tests\b/.test(a));
const report = join(ROOT, '.build', 'test-report.json');
let ground = null;
let web = null;
let worker = null;
let stopping = false;
const AWAY_MS = 4000;

/** Seconds from which on a test is named as slow. */
const SLOW_SECONDS = 20;

/** Runs one project of Jest: unit tests side by side, the others one after the other, since they share an application. */
async function jest(project, env) {
  rmSync(report, { force: true });
  const jestArgs = [
    ...(project === 'unit' ? ['--maxWorkers=2'] : ['--runInBand']),
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
  const broken = found.testResults.filter((r) => r.status === 'failed' && r.assertionResults.length === 0).length;
  return { code, passed: found.numPassedTests, failed: found.numFailedTests + broken };
}

/** Tests kill the database on purpose; it comes back after a while, as it would under a service manager. */
function bringBack() {
  ground.database.process.once('exit', async () => {
    if (stopping) return;
    await new Promise((done) => setTimeout(done, AWAY_MS));
    if (stopping) return;
    ground.database = await startDatabase(ground.set);
    bringBack();
  });
}

async function stop() {
  stopping = true;
  await Promise.all([web?.stop(), worker?.stop()]);
  await ground?.database.stop();
}
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => stop().then(() => process.exit(130)));

try {
  ensurePackages();
  const results = systemOnly ? [] : [await jest('unit', process.env)];
  if (!unitOnly) {
    ground = await startGround('test', { fresh: true, browser: true });
    buildWhenStale();
    // Every answer is held against its schema.
    ground.env.POLYDROME_CHECK_ANSWERS = '1';
    web = await startWeb(ground, { mostDeaths: Infinity });
    worker = await startWorker(ground);
    bringBack();
    const admin = JSON.stringify(ground.database.admin);
    results.push(await jest('system', { ...environmentOf(ground.set), POLYDROME_MIGRATE: admin }));
    await stop();
  }
  const sum = (of) => results.reduce((all, r) => all + r[of], 0);
  const [code, passed, failed] = [sum('code'), sum('passed'), sum('failed')];
  console.log(`${passed} passed, ${failed} failed`);
  process.exit(code === 0 && failed === 0 ? 0 : 1);
} catch (e) {
  console.error(e instanceof Trouble ? e.message : e);
  await stop();
  process.exit(1);
}
