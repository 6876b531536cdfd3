// Bundles a TypeScript file and runs it with the given arguments: node bin/run-bundle.mjs tests/support/shots.ts …
import { spawnSync } from 'node:child_process';
import { basename } from 'node:path';
import { bundle } from './bundle.mjs';

const [entry, ...args] = process.argv.slice(2);
const file = await bundle(entry, basename(entry, '.ts'), ['src', 'tests', 'demo', 'bench']);
process.exitCode = spawnSync(process.execPath, [file, ...args], { stdio: 'inherit' }).status ?? 1;
