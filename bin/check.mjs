// npm run check: types, style, format, who may know whom, dead code.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './bundle.mjs';
import { Trouble, ensurePackages } from './environment.mjs';

const CHECKS = [
  ['types', 'tsc', ['--noEmit', '-p', '.']],
  ['eslint', 'eslint', ['--max-warnings', '0', '.']],
  ['prettier', 'prettier', ['--check', '--log-level', 'warn', '.']],
  ['dependencies', 'depcruise', ['src', 'bin', '--config', '.dependency-cruiser.cjs']],
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
  process.exitCode = failed > 0 ? 1 : 0;
} catch (e) {
  console.error(e instanceof Trouble ? e.message : e);
  process.exitCode = 1;
}
