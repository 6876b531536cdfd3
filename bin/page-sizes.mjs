// How much script each page of the built application brings into the browser, compressed; too much is a fault.
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { ROOT } from './bundle.mjs';

const MOST_KB = 400;
const NEXT = join(ROOT, '.next');

/** Sizes in kB (1000 bytes) by page, largest first. */
export function pageSizes() {
  const app = join(NEXT, 'server', 'app');
  const pages = readdirSync(app, { recursive: true }).filter((f) => f.endsWith('page_client-reference-manifest.js'));
  const sizes = new Map();
  const sizeOf = (file) => {
    if (!sizes.has(file)) sizes.set(file, gzipSync(readFileSync(join(NEXT, file))).length);
    return sizes.get(file);
  };
  return pages
    .map((page) => {
      const text = readFileSync(join(app, page), 'utf8');
      const [, route, json] = /__RSC_MANIFEST\["([^"]+)"\] = (\{[^]*\});?\s*$/.exec(text);
      const manifest = JSON.parse(json);
      const own = join(app, page.replace('page_client-reference-manifest.js', 'page'), 'build-manifest.json');
      const root = existsSync(own) ? JSON.parse(readFileSync(own, 'utf8')).rootMainFiles : [];
      const files = new Set([...root, ...Object.values(manifest.entryJSFiles).flat()]);
      const bytes = [...files].reduce((sum, f) => sum + sizeOf(f), 0);
      return { route: route.replace(/\/page$/, '').replace('/(work)', '') || '/', kb: bytes / 1000 };
    })
    .sort((a, b) => b.kb - a.kb);
}

/** What is too large, as lines; none when all is well. */
export function tooLarge(sizes) {
  return sizes
    .filter((p) => p.kb > MOST_KB)
    .map((p) => `${p.route} brings ${p.kb.toFixed(0)} kB of script; ${MOST_KB} kB is the most`);
}
