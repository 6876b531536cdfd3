// npm run screenshots: one picture of each main view into docs/screenshots, from a fresh demo company of its own.
import { spawnSync } from 'node:child_process';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT, bundle } from './bundle.mjs';
import { settings, Trouble } from './environment.mjs';
import { buildWhenStale, startGround, startWeb, startWorker } from './application.mjs';

let ground = null;
let web = null;
let worker = null;
try {
  ground = await startGround(settings('test'), { fresh: true, browser: true });
  buildWhenStale();
  web = await startWeb(ground);
  worker = await startWorker(ground);
  const [folder = join(ROOT, 'docs', 'screenshots'), ...rest] = process.argv.slice(2);
  if (rest.length === 0) rmSync(folder, { recursive: true, force: true });
  const shots = await bundle('tests/support/shots.ts', 'shots', ['src', 'tests']);
  process.exitCode =
    spawnSync(process.execPath, [shots, folder, ...rest], { cwd: ROOT, env: ground.env, stdio: 'inherit' }).status ?? 1;
} catch (e) {
  console.error(e instanceof Trouble ? e.message : e);
  process.exitCode = 1;
} finally {
  await Promise.all([web?.stop(), worker?.stop()]);
  await ground?.database.stop();
}
