/** The engine, as everything else on the server asks it: a process of its own, or this one where work has a process to itself. */
import { EngineClient } from './client';
import type { Versions } from '../db/versions';
import { ALIVE, errorOf, type Lane, type Wrong } from './messages';
import type { AnswerOf, InputOf, QuestionName } from './questions';

export { Dropped, EngineAway } from './messages';
export type { AnswerOf, InputOf, QuestionName } from './questions';

export interface AskOptions {
  /** nobody waits for the answer any more */
  signal?: AbortSignal;
  /** told how far long work has come, 0 to 1 */
  progress?: (share: number) => void;
  /** answered from draft and live of these versions: those that the page began with */
  at?: Versions;
}

type Asker = (name: QuestionName, input: unknown, options: AskOptions) => Promise<unknown>;

const held = globalThis as unknown as { polydromeEngine?: EngineClient; polydromeAsker?: Asker };

/** Long questions go to the thread for long work. */
const LONG: ReadonlySet<QuestionName> = new Set<QuestionName>([
  'consequences',
  'problems',
  'landings',
  'packed',
  'gate',
  'goingGate',
  'leaving',
  'book',
  'impact',
  'promises',
  'promiseFromCall',
  'reach',
  'drill',
  'planDocument',
  'planImport',
  'comparison',
  'bringBackEdits',
  'bulkPreview',
  'leavePreview',
  'bulkEdits',
  'sheetRows',
  'cards',
  'callTraffic',
  'queueFigures',
]);

/** Asked beside every page, for what nobody waits for. */
const IDLE: ReadonlySet<QuestionName> = new Set<QuestionName>(['effect']);

const lane = (name: QuestionName): Lane => (IDLE.has(name) ? 'idle' : LONG.has(name) ? 'long' : 'quick');

const client = () => (held.polydromeEngine ??= new EngineClient());

/** Asks a question of draft and live as they stand; refusals come out as they went in. */
export function ask<N extends QuestionName>(
  name: N,
  input: InputOf<N>,
  options: AskOptions = {},
): Promise<AnswerOf<N>> {
  const here = held.polydromeAsker;
  if (here) return here(name, input, options) as Promise<AnswerOf<N>>;
  return client()
    .ask<AnswerOf<N>>(name, { input, at: options.at }, lane(name), options)
    .catch((e: unknown) => {
      throw errorOf(e as Wrong);
    });
}

/** Whether the engine takes questions; asked of its process, not of its threads, which may be at long work. */
export async function engineAlive(signal: AbortSignal): Promise<boolean> {
  try {
    const { threads } = await client().ask<{ threads: number }>(ALIVE, { input: {} }, 'quick', { signal });
    return threads > 0;
  } catch {
    return false;
  }
}

/** The checksum of the draft as a thread of the engine holds it, also for processes that answer their own questions. */
export const engineDraft = (lane: Lane): Promise<AnswerOf<'draftSum'>> =>
  client()
    .ask<AnswerOf<'draftSum'>>('draftSum', { input: {} }, lane)
    .catch((e: unknown) => {
      throw errorOf(e as Wrong);
    });

/** Answers in this process from now on: for the worker, commands and tests. */
export function askHere(asker: Asker): void {
  held.polydromeAsker = asker;
}
