import { readFileSync } from 'node:fs';
import { readRecords, replay, type CallRecord, type ReplayEnd, type ReplayResult } from '@/core/records';
import { Refusal, flagsOf, need, type Answer } from './answer';
import { exchangeOf } from './plan';

/** Records of a file of JSON lines. Refuses the first that is wrong, with its line. */
function recordsOf(path: string): CallRecord[] {
  let text: string;
  try {
    text = readFileSync(path, 'utf8');
  } catch {
    throw new Refusal('no-such-file', '--calls', `${path} can't be read; the path of a file of JSON lines is needed.`);
  }
  const read = readRecords(text);
  if (read.ok) return read.records;
  const [first] = read.errors;
  throw new Refusal(first!.code, `--calls ${first!.path}`, first!.sentence);
}

/** Calls that were made, run through a plan: what would end elsewhere than it did, or than in another plan. */
export function replayCommand(args: string[]): Answer {
  const { flags } = flagsOf(args, { flags: ['plan', 'calls', 'against'], words: 0 });
  const plan = exchangeOf(need(flags, 'plan', 'a plan file'));
  const records = recordsOf(need(flags, 'calls', 'a file of call records, JSON lines'));
  const against = flags.get('against');
  const value = replay(records, plan, against === undefined ? null : exchangeOf(against));
  return { exit: value.changed > 0 ? 1 : 0, value, text: inWords(value) };
}

const endInWords = (e: ReplayEnd) =>
  e.lands
    ? `${e.lands.label}${e.trunk ? ` by ${e.trunk}` : ''}${e.shownNumber ? `, shown ${e.shownNumber}` : ''}`
    : e.outcome;

function inWords({ calls, changed, groups, unexplained }: ReplayResult): string {
  return [
    `${changed} of ${calls} calls end elsewhere`,
    ...groups.map(
      ({ count, example: { call }, was, willBe }) =>
        `${String(count).padStart(8)}  ${endInWords(was)} → ${endInWords(willBe)}; as ${call.from} > ${call.dial} @ ${call.at}`,
    ),
    ...unexplained.map(({ count, why, example }) => `${String(count).padStart(8)}  not explained: ${why} (${example})`),
  ].join('\n');
}
