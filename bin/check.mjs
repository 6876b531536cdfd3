// npm run check: types, style, format, who may know whom, dead code, what pages bring into the browser.
import { spawn } from 'node:child_process';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { ROOT } from './bundle.mjs';
import { Trouble, ensurePackages } from './environment.mjs';
import { buildWhenStale } from './application.mjs';
import { pageSizes, tooLarge } from './page-sizes.mjs';

const CHECKS = [
  ['types', 'tsc', ['--noEmit', '-p', '.']],
  ['eslint', 'eslint', ['--max-warnings', '0', '.']],
  ['prettier', 'prettier', ['--check', '--log-level', 'warn', '.']],
  ['dependencies', 'depcruise', ['src', 'bin', 'stand-ins', '--config', '.dependency-cruiser.cjs']],
  ['what reaches pages', 'depcruise', ['src', '--config', '.dependency-cruiser.pages.mjs']],
  ['dead code', 'knip', []],
];

/** Runs one check to its end; gives its exit code and what it printed. */
function run(command, args) {
  const child = spawn(join(ROOT, 'node_modules', '.bin', command), args, {
    cwd: ROOT,
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' },
  });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (d) => (said += String(d)));
  return new Promise((done) => child.once('close', (code) => done({ code, said })));
}

try {
  ensurePackages();
  let failed = 0;
  const left = [...CHECKS];
  // One beside the other, as many as there are cores.
  await Promise.all(
    Array.from({ length: Math.min(availableParallelism(), left.length) }, async () => {
      for (let next = left.shift(); next; next = left.shift()) {
        const [name, command, args] = next;
        const { code, said } = await run(command, args);
        console.log(`${name}: ${code === 0 ? 'fine' : 'failed'}`);
        if (code === 0) continue;
        failed++;
        console.log(said.slice(0, 6000));
      }
    }),
  );
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
