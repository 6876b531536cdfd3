// Bundles a TypeScript entry into .build/ when any source is newer than the bundle. Plain Node and esbuild.
import { existsSync, mkdirSync, readdirSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = join(dirname(fileURLToPath(import.meta.url)), '..');

/** The newest change below a path, in milliseconds. */
export function newest(path) {
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  return readdirSync(path).reduce((most, name) => Math.max(most, newest(join(path, name))), stat.mtimeMs);
}

/** Bundles `entry` (from the root) as .build/`name`.mjs unless it is up to date; returns the bundle's path. */
export async function bundle(entry, name, sources = ['src', 'bin', 'demo', 'bench', 'stand-ins', 'package.json']) {
  const out = join(ROOT, '.build', `${name}.mjs`);
  const since = Math.max(
    ...sources
      .map((s) => join(ROOT, s))
      .filter(existsSync)
      .map(newest),
  );
  if (existsSync(out) && statSync(out).mtimeMs >= since) return out;
  mkdirSync(dirname(out), { recursive: true });
  const { build } = await import('esbuild');
  await build({
    entryPoints: [join(ROOT, entry)],
    outfile: out,
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    absWorkingDir: ROOT,
    logLevel: 'warning',
    sourcemap: 'inline',
  });
  return out;
}
