import { parentPort } from 'node:worker_threads';
import { Ground } from './ground/held';
import { pack, unpack, wrongOf, type Asked } from './messages';
import { answerHere, type Question } from './ground/question';
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

port.on('message', ({ name, body }: { name: string; body: Uint8Array }) => {
  void answer(name, body).then((reply) => port.postMessage(reply));
});

// Reads and compiles before anybody asks.
void ground
  .now()
  .then(({ draft, live }) => {
    live.exchange();
    draft.exchange();
    ground.indexOf(draft);
  })
  .catch(() => undefined);
