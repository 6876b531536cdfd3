// npm run demo: everything from a bare machine to a running Polydrome. `--fresh` begins anew, `--dev` rebuilds while you edit.
import { settings, Trouble } from './environment.mjs';
import { buildWhenStale, keepDatabase, startGround, startWeb, startWorker } from './application.mjs';

const args = process.argv.slice(2);
const unknown = args.filter((a) => !['--fresh', '--dev'].includes(a));
const dev = args.includes('--dev');
let ground = null;
let web = null;
let worker = null;
let database = null;
let ending = false;

async function end(code) {
  if (ending) return;
  ending = true;
  await Promise.all([web?.stop(), worker?.stop()]);
  await (database ?? ground?.database)?.stop();
  await ground?.log.close();
  process.exit(code);
}

for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => end(0));

try {
  if (unknown.length > 0)
    throw new Trouble(`${unknown.join(' ')}: not known. --fresh begins anew, --dev is for developers.`);
  ground = await startGround(settings('demo'), { fresh: args.includes('--fresh'), browser: false });
  if (!dev) buildWhenStale();
  web = await startWeb(ground, { dev });
  worker = await startWorker(ground);
  database = keepDatabase(ground);
  void Promise.race([web.over, worker.over, database.over]).then((reason) => {
    if (ending) return;
    console.error(reason);
    return end(1);
  });
  console.log(`
Polydrome runs at ${web.url}

  admin      quay-lantern-42     everything
  helpdesk   berth-whistle-17    looks, asks, resets PINs
  auditor    ledger-beacon-93    looks

Data in ${ground.set.data}, what goes wrong in ${ground.log.path}. Ctrl-C stops everything.`);
} catch (e) {
  console.error(e instanceof Trouble ? e.message : e);
  await end(1);
}
