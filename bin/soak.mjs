// npm run soak: every property test with another seed and twenty times as many examples; says the seed, so that it can be repeated.
// POLYDROME_TEST_SEED and POLYDROME_SOAK choose others; arguments go to Jest.
import { spawnSync } from 'node:child_process';
import { randomInt } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './bundle.mjs';

const seed = process.env.POLYDROME_TEST_SEED ?? String(randomInt(2 ** 31));
const times = process.env.POLYDROME_SOAK ?? '20';
const files = ['src', 'bin', 'tests'].flatMap((folder) =>
  readdirSync(join(ROOT, folder), { recursive: true })
    .map((f) => join(folder, f))
    .filter((f) => f.endsWith('.test.ts') && /fc\.assert|POLYDROME_SOAK/.test(readFileSync(join(ROOT, f), 'utf8'))),
);
console.log(`Seed ${seed}, ${times} times the examples, ${files.length} files with property tests`);
const { status } = spawnSync(
  process.execPath,
  [
    join(ROOT, 'bin', 'test.mjs'),
    ...(process.argv.length > 2 ? process.argv.slice(2) : files),
    '--testTimeout=3600000',
  ],
  { cwd: ROOT, stdio: 'inherit', env: { ...process.env, POLYDROME_TEST_SEED: seed, POLYDROME_SOAK: times } },
);
console.log(`Seed ${seed}`);
process.exitCode = status ?? 1;
