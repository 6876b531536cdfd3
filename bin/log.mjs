// The log of a run: what our processes say, line by line, in files under the data folder that are turned over by size.
import { join } from 'node:path';
import { createInterface } from 'node:readline';

const MOST_SIZE = '10M';
const MOST_FILES = 6;

/** Opens the log of a data folder; gives where it is, and what takes a stream of text into it. */
export async function openLog(data) {
  // Not there before packages are installed.
  const { createStream } = await import('rotating-file-stream');
  const folder = join(data, 'log');
  const file = createStream('polydrome.log', { path: folder, size: MOST_SIZE, maxFiles: MOST_FILES });
  // A full disk must not end what runs.
  file.on('error', (e) => console.error(`The log can’t be written: ${e.message}`));
  return {
    path: join(folder, 'polydrome.log'),
    /** Lines of whoever speaks: JSON as it is, anything else as JSON that says who. */
    take: (stream, what) =>
      createInterface({ input: stream, crlfDelay: Infinity }).on('line', (line) => {
        if (line.trim() === '') return;
        file.write(
          `${line.startsWith('{') ? line : JSON.stringify({ level: 50, time: Date.now(), what, msg: line })}\n`,
        );
      }),
    close: () => new Promise((done) => file.end(done)),
  };
}
