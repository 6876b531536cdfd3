// npm run bench: speed of the core on the demo plan, of the Ask line, and of work with 20,000 people in the running application.
import { spawnSync } from 'node:child_process';
import { ROOT, bundle } from './bundle.mjs';
import { Trouble, ensurePackages } from './environment.mjs';
import { buildWhenStale, startGround, startWeb, startWorker } from './application.mjs';

let ground = null;
let web = null;
let worker = null;
const run = async (entry, name, env = process.env, flags = []) => {
  const file = await bundle(entry, name, ['src', 'bench', 'tests', 'demo']);
  const { status } = spawnSync(process.execPath, [...flags, file], { cwd: ROOT, env, stdio: 'inherit' });
  if (status !== 0) process.exitCode = 1;
};
try {
  ensurePackages();
  await run('bench/main.ts', 'bench');
  await run('bench/reference.ts', 'bench-reference', process.env, ['--expose-gc', '--max-old-space-size=4096']);
  ground = await startGround('test', { fresh: true, browser: true });
  buildWhenStale();
  web = await startWeb(ground, { quiet: true });
  await run('bench/ask.ts', 'bench-ask', ground.env);
  worker = await startWorker(ground);
  await run('bench/people.ts', 'bench-people', ground.env);
} catch (e) {
  console.error(e instanceof Trouble ? e.message : e);
  process.exitCode = 1;
} finally {
  await Promise.all([web?.stop(), worker?.stop()]);
  await ground?.database.stop();
}
