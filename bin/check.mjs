// npm run check: types, style, format, who may know whom, dead code, what pages bring into the browser.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './bundle.mjs';
import { Trouble, ensurePackages } from './environment.mjs';
import { buildWhenStale } from './application.mjs';
import { pageSizes, tooLarge } from './page-sizes.mjs';

const CHECKS = [
  ['types', 'tsc', ['--noEmit', '-p', '.']],
  ['eslint', 'eslint', ['--max-warnings', '0', '.']],
  ['prettier', 'prettier', ['--check', '--log-level', 'warn', '.']],
  ['dependencies', 'depcruise', ['src', 'bin', '--config', '.dependency-cruiser.cjs']],
  ['what reaches pages', 'depcruise', ['src', '--config', '.dependency-cruiser.pages.mjs']],
  ['dead code', 'knip', []],
];

try {
  ensurePackages();
  let failed = 0;
  for (const [name, command, args] of CHECKS) {
    const ran = spawnSync(join(ROOT, 'node_modules', '.bin', command), args, {
      cwd: ROOT,
      encoding: 'utf8',
      maxBuffer: 1e8,
      env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' },
    });
    console.log(`${name}: ${ran.status === 0 ? 'fine' : 'failed'}`);
    if (ran.status === 0) continue;
    failed++;
    console.log(`${ran.stdout}${ran.stderr}`.slice(0, 6000));
  }
  buildWhenStale();
  const sizes = pageSizes();
  const large = tooLarge(sizes);
  console.log(`page sizes: ${large.length === 0 ? `fine, the largest ${sizes[0].kb.toFixed(0)} kB` : 'failed'}`);
  for (const line of large) console.log(line);
  process.exitCode = failed > 0 || large.length > 0 ? 1 : 0;
} catch (e) {
  console.error(e instanceof Trouble ? e.message : e);
  process.exitCode = 1;
}
