// npm start: everything from a bare machine to a Polydrome of one's own. `--demo` runs the demo company instead; with it `--fresh`
// begins anew and `--dev` rebuilds while you edit.
import { bundle } from './bundle.mjs';
import { settings, Trouble } from './environment.mjs';
import {
  buildWhenStale,
  keepDatabase,
  outputOf,
  startGround,
  startMail,
  startWeb,
  startWorker,
} from './application.mjs';

const args = process.argv.slice(2);
const unknown = args.filter((a) => !['--demo', '--fresh', '--dev'].includes(a));
const demo = args.includes('--demo');
const dev = args.includes('--dev');
let ground = null;
let web = null;
let worker = null;
let mail = null;
let database = null;
let ending = false;

const SIGN_INS = `  admin      quay-lantern-42     everything
  helpdesk   berth-whistle-17    looks, asks, resets PINs
  auditor    ledger-beacon-93    looks
  ilse.brandvik@lanternfold.example   harbour-thistle-58   a person, on the page of her own
`;

/** Nobody owns it yet: a new code for the first page. */
async function firstSteps() {
  const file = await bundle('bin/first-code.ts', 'first-code');
  const code = outputOf(process.execPath, [file], ground.env, 'Making the one-time code').trim();
  return code === '' ? '' : `Nobody owns it yet. Begin at ${web.url}/welcome with this code: ${code}\n`;
}

async function end(code) {
  if (ending) return;
  ending = true;
  await Promise.all([web?.stop(), worker?.stop(), mail?.stop()]);
  await (database ?? ground?.database)?.stop();
  await ground?.log.close();
  process.exit(code);
}

for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => end(0));

try {
  if (unknown.length > 0)
    throw new Trouble(`${unknown.join(' ')}: not known. --fresh begins the demo anew, --dev is for developers.`);
  ground = await startGround(settings(demo ? 'demo' : 'own'), { fresh: args.includes('--fresh'), browser: false });
  if (!dev) buildWhenStale();
  web = await startWeb(ground, { dev });
  worker = await startWorker(ground);
  if (demo) mail = await startMail(ground);
  database = keepDatabase(ground);
  void Promise.race([web.over, worker.over, database.over]).then((reason) => {
    if (ending) return;
    console.error(reason);
    return end(1);
  });
  const { data, database: own } = ground.set;
  const stands = own ? `Database ${own.application.database} at ${own.application.host}, other files` : 'Data';
  console.log(`
Polydrome runs at ${web.url}

${demo ? `${SIGN_INS}\nMail that was sent is shown at ${mail.url}\n` : await firstSteps()}
${stands} in ${data}, what goes wrong in ${ground.log.path}. Ctrl-C stops everything.`);
} catch (e) {
  console.error(e instanceof Trouble ? e.message : e);
  await end(1);
}
