import { readFileSync } from 'node:fs';
import { readRecords, replay, type CallRecord, type ReplayEnd, type ReplayResult } from '@/core/records';
import { mainSite } from '@/core/plan';
import { readLog } from '@/core/records/log';
import type { Exchange } from '@/core/routing';
import { readCsv } from '@/core/formats';
import { Refusal, flagsOf, need, type Answer } from './answer';
import { exchangeOf } from './plan';

/**
 * Records of a file: JSON lines, or a log of another system as CSV, whose numbers and times are those of the site `at`. Refuses the first thing that is wrong, with its place.
 */
export function recordsOf(path: string, exchange: Exchange, at: string | undefined): CallRecord[] {
  let bytes: Uint8Array;
  try {
    bytes = readFileSync(path);
  } catch {
    throw new Refusal('no-such-file', '--calls', `${path} can't be read; a file of JSON lines or CSV is needed.`);
  }
  if (bytes.length === 0 || bytes[0] === '{'.charCodeAt(0)) {
    const read = readRecords(new TextDecoder().decode(bytes));
    if (read.ok) return read.records;
    const [first] = read.errors;
    throw new Refusal(first!.code, `--calls ${first!.path}`, first!.sentence);
  }
  const table = readCsv(bytes);
  if (!table.ok) throw new Refusal(table.fault.code, `--calls line ${table.fault.line ?? 1}`, table.fault.sentence);
  const named = exchange.plan.sites.find((s) => s.id === at);
  if (at !== undefined && !named)
    throw new Refusal(
      'no-such-site',
      '--site',
      `The plan has no site ${at}; ${exchange.plan.sites.map((s) => s.id).join(', ')} are.`,
    );
  const site = named ?? mainSite(exchange.plan);
  if (!site) throw new Refusal('no-site', '--plan', 'The plan has no site, so no number of the log can be read.');
  const { zone } = site;
  const reading = { exchange, zone, order: exchange.plan.organisation.dayOrder, place: exchange.places.get(site.id)! };
  const { records, faults } = readLog(table.table.rows, reading);
  const [first] = faults;
  if (!first) return records;
  throw new Refusal(first.code, `--calls line ${first.line}${first.column ? `, ${first.column}` : ''}`, first.sentence);
}

/** Calls that were made, run through a plan: what would end elsewhere than it did, or than in another plan. */
export function replayCommand(args: string[]): Answer {
  const { flags } = flagsOf(args, { flags: ['plan', 'calls', 'against', 'site'], words: 0 });
  const plan = exchangeOf(need(flags, 'plan', 'a plan file'));
  const records = recordsOf(need(flags, 'calls', 'a file of calls, JSON lines or CSV'), plan, flags.get('site'));
  const against = flags.get('against');
  const value = replay(records, { plan, against: against === undefined ? null : exchangeOf(against) });
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
