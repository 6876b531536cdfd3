import { parentPort, workerData } from 'node:worker_threads';
import { AHEAD_MS, atlasesAhead, cutAhead } from '@/core/proof';
import { editsAhead } from './ahead';
import { Ground } from './ground/held';
import { pack, unpack, wrongOf, type Asked } from './messages';
import { answerHere, type Question } from './ground/question';
import { hourOf } from './ground/verdicts';
import { QUESTIONS } from './questions';

/* One thread of the engine: holds draft and live, follows their edits, and answers one question after the other. */

const ground = new Ground();
const port = parentPort!;

async function answer(name: string, body: Uint8Array): Promise<{ ok: boolean; body: Uint8Array }> {
  try {
    const question = (QUESTIONS as unknown as Record<string, Question<unknown, unknown> | undefined>)[name];
    if (!question || !Object.hasOwn(QUESTIONS, name)) throw new Error(`nothing here answers “${name}”`);
    const { input, at } = unpack(body) as Asked;
    return { ok: true, body: pack(await answerHere(ground, question, input, at)) };
  } catch (e) {
    return { ok: false, body: pack(wrongOf(e)) };
  }
}

/** When something was asked last, in milliseconds since 1970 UTC. */
let lastAsked = 0;
/** What is done ahead waits until nobody has asked for so long. */
const QUIET_MS = 1000;

port.on('message', ({ name, body }: { name: string; body: Uint8Array }) => {
  lastAsked = Date.now();
  void answer(name, body).then((reply) => port.postMessage(reply));
});

const quiet = async () => {
  do await new Promise((done) => setTimeout(done, QUIET_MS));
  while (Date.now() - lastAsked < QUIET_MS);
};

/** Takes one step after another, each in a quiet moment. */
async function inQuiet(steps: Iterator<unknown>): Promise<void> {
  do await quiet();
  while (!steps.next().done);
}

/** Reads, compiles and, in quiet moments, cuts what can be dialled, draws atlases and asks as for an edit, before anybody does. */
async function prepare(): Promise<void> {
  const { draft, live } = await ground.now();
  live.exchange();
  draft.exchange();
  ground.indexOf(draft);
  const from = hourOf(Date.now());
  const span = { from, to: from + AHEAD_MS };
  const { isLong } = workerData as { isLong: boolean };
  await inQuiet(cutAhead(draft.exchange(), span));
  // Only where long questions come: what is quick never waits for it.
  if (isLong) await inQuiet(editsAhead(live.exchange(), span));
  await inQuiet(atlasesAhead(draft.exchange(), span));
}

void prepare().catch(() => undefined);
