// A thread for tests of how questions are given out: echoes, waits, dies, or dies the first time only.
import { existsSync, writeFileSync } from 'node:fs';
import { parentPort, threadId } from 'node:worker_threads';
import { deserialize, serialize } from 'node:v8';

parentPort.on('message', async ({ name, body }) => {
  const input = deserialize(body);
  if (name === 'die') process.exit(1);
  if (name === 'die-once' && !existsSync(input)) {
    writeFileSync(input, '');
    process.exit(1);
  }
  if (name === 'wait') await new Promise((done) => setTimeout(done, input));
  parentPort.postMessage({ ok: true, body: serialize({ name, input, thread: threadId }) });
});
