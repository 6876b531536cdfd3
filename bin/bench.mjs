// npm run bench: speed of the core, of the Ask line on the demo company, and of the running application with 20,000 people.
// Arguments choose among them: `npm run bench -- server`.
import { spawnSync } from 'node:child_process';
import { ROOT, bundle } from './bundle.mjs';
import { ensurePackages, settings, Trouble } from './environment.mjs';
import { buildWhenStale, startGround, startWeb, startWorker } from './application.mjs';

const SERVED = ['ask', 'calls', 'server', 'people', 'proving'];
let ground = null;
let web = null;
let worker = null;
const wanted = process.argv.slice(2);
// People work in the company that the bench of the server makes.
if (wanted.includes('people')) wanted.push('server');
const run = async (entry, name, env = process.env, flags = []) => {
  if (wanted.length > 0 && !wanted.some((w) => entry === `bench/${w}.ts`)) return;
  const file = await bundle(entry, name, ['src', 'bench', 'tests', 'demo']);
  const { status } = spawnSync(process.execPath, [...flags, file], { cwd: ROOT, env, stdio: 'inherit' });
  if (status !== 0) process.exitCode = 1;
};
try {
  ensurePackages();
  await run('bench/main.ts', 'bench');
  await run('bench/proof.ts', 'bench-proof', process.env, ['--expose-gc']);
  await run('bench/reference.ts', 'bench-reference', process.env, ['--expose-gc', '--max-old-space-size=4096']);
  // What needs no running application is done by now.
  if (wanted.length === 0 || wanted.some((w) => SERVED.includes(w))) await served();
} catch (e) {
  console.error(e instanceof Trouble ? e.message : e);
  process.exitCode = 1;
} finally {
  await Promise.all([web?.stop(), worker?.stop()]);
  await ground?.database.stop();
}

/** The benches of the running application. */
async function served() {
  ground = await startGround(settings('test'), { fresh: true, browser: true });
  buildWhenStale();
  web = await startWeb(ground);
  // The benches read row versions and the like as the administrator of the database.
  const env = { ...ground.env, POLYDROME_MIGRATE: JSON.stringify(ground.database.admin) };
  await run('bench/ask.ts', 'bench-ask', env);
  worker = await startWorker(ground);
  // Filling it takes minutes: only when it is asked for.
  if (wanted.includes('calls')) await run('bench/calls.ts', 'bench-calls', env);
  await run('bench/server.ts', 'bench-server', env);
  await run('bench/people.ts', 'bench-people', env);
  await run('bench/proving.ts', 'bench-proving', env);
}
