import { spawn } from 'node:child_process';
import { Refused } from '../access/rights';

/* Speech from text by espeak-ng, where it is installed. */

const PROGRAM = 'espeak-ng';
const PACKAGE = 'espeak-ng';
const MOST_SECONDS = 30;
/** words a minute: callers on a telephone follow this without strain */
export const USUAL_PACE = 150;

/** The voice of a language (BCP 47); espeak-ng takes the tag itself, in small letters. */
const voiceOf = (language: string): string =>
  /^[A-Za-z]{2,3}(?:-[A-Za-z0-9]{1,8})*$/.test(language) ? language.toLowerCase() : 'en';

const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

/** A text as SSML (W3C, 1.1): pauses written as `<break time="500ms"/>` are kept, everything else is said as it stands. */
export function ssmlOf(text: string): string {
  const parts = text.split(/(<break time="\d{1,5}(?:\.\d{1,3})?(?:ms|s)"\/>)/);
  return `<speak>${parts.map((p, i) => (i % 2 === 1 ? p : escaped(p))).join('')}</speak>`;
}

/** Runs the program; null when it is not installed. */
function run(args: readonly string[], input: string): Promise<Buffer | null> {
  return new Promise((done, stop) => {
    const child = spawn(PROGRAM, args, { stdio: ['pipe', 'pipe', 'ignore'] });
    const out: Buffer[] = [];
    const late = setTimeout(() => child.kill('SIGKILL'), MOST_SECONDS * 1000);
    child.stdout.on('data', (part: Buffer) => out.push(part));
    child.once('error', (e: NodeJS.ErrnoException) => {
      clearTimeout(late);
      if (e.code === 'ENOENT') done(null);
      else stop(e);
    });
    child.once('close', () => {
      clearTimeout(late);
      done(Buffer.concat(out));
    });
    child.stdin.on('error', () => undefined);
    child.stdin.end(input);
  });
}

/** What has to be installed before texts can be spoken; null: nothing. */
export async function speechMissing(): Promise<string | null> {
  const there = await run(['--version'], '');
  return there === null ? `Speech needs the program ${PROGRAM}: install the Debian package ${PACKAGE}.` : null;
}

/** A text spoken in a language, as a WAV file. Refused where nothing can be said, or the program is missing. */
export async function spokenText(text: string, language: string, pace: number = USUAL_PACE): Promise<Uint8Array> {
  if (text.trim() === '') throw new Refused(400, 'empty', 'There is no text to say.', 'text');
  const found = await run(['-m', '-v', voiceOf(language), '-s', String(pace), '--stdin', '--stdout'], ssmlOf(text));
  if (found === null) throw new Refused(503, 'no-speech', (await speechMissing()) ?? 'Speech is missing.', 'text');
  if (found.length <= 44)
    throw new Refused(422, 'no-voice', `There is no voice for the language “${language}”.`, 'language');
  return withLength(found);
}

/** The head of a WAV that was written to a pipe says no length: the true one is put there. */
function withLength(wav: Buffer): Uint8Array {
  const out = Buffer.from(wav);
  out.writeUInt32LE(out.length - 8, 4);
  const at = out.indexOf('data', 12, 'latin1');
  if (at > 0) out.writeUInt32LE(out.length - at - 8, at + 4);
  return out;
}
