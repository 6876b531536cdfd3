// A thread for tests of how questions are given out: echoes, waits, dies, or dies the first time only.
import { existsSync, writeFileSync } from 'node:fs';
import { parentPort, threadId, workerData } from 'node:worker_threads';
import { deserialize, serialize } from 'node:v8';

parentPort.on('message', async ({ name, body }) => {
  const input = deserialize(body);
  if (name === 'die') process.exit(1);
  if (name === 'die-once' && !existsSync(input)) {
    writeFileSync(input, '');
    process.exit(1);
  }
  if (name === 'wait') await new Promise((done) => setTimeout(done, input));
  if (name === 'work') {
    // Long work that looks whether it should stop, and tells how far it has come.
    const told = new Int32Array(workerData.shared);
    for (let i = 0; i < input && Atomics.load(told, 0) === 0; i += 20) {
      Atomics.store(told, 1, Math.round((1000 * i) / input));
      await new Promise((done) => setTimeout(done, 20));
    }
    if (Atomics.load(told, 0) !== 0) {
      parentPort.postMessage({ ok: false, body: serialize({ kind: 'dropped', message: '' }) });
      return;
    }
  }
  parentPort.postMessage({ ok: true, body: serialize({ name, input, thread: threadId }) });
});
