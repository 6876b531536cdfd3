// npm run build: packages where missing, then the application.
import { Trouble, ensurePackages } from './environment.mjs';
import { buildWhenStale } from './application.mjs';

try {
  ensurePackages();
  buildWhenStale();
} catch (e) {
  console.error(e instanceof Trouble ? e.message : e);
  process.exitCode = 1;
}
