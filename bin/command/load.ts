import { inputErrors } from '@/core/plan';
import {
  LINK_OCTETS,
  MOST_CHANNELS,
  bandwidthOf,
  channelsFor,
  erlangA,
  erlangB,
  erlangC,
  queueSpec,
  simulationSteps,
  type Estimate,
  type LinkLayer,
  type Waiting,
} from '@/core/load';
import {
  Refusal,
  flagsOf,
  need,
  noCommand,
  ofName,
  readDocument,
  realNumber,
  wholeNumber,
  type Answer,
} from './answer';

type Flags = Map<string, string>;
const MOST_ERLANGS = 100_000;
const MOST_SECONDS = 1e6;

const erlangs = (flags: Flags) => realNumber(flags, 'erlangs', 0, MOST_ERLANGS);

function over0(flags: Flags, name: string, most: number): number {
  const value = realNumber(flags, name, 0, most);
  if (value === 0) throw new Refusal('bad-number', `--${name}`, `--${name} is 0; a number over 0 is needed.`);
  return value;
}

const percent = (share: number) => `${(share * 100).toFixed(2)} %`;

function blocking(flags: Flags): Answer {
  const value = { blocking: erlangB(erlangs(flags), wholeNumber(flags, 'channels', 0, MOST_CHANNELS)) };
  return { exit: 0, value, text: `${percent(value.blocking)} of calls find no channel` };
}

function channels(flags: Flags): Answer {
  const target = over0(flags, 'blocking', 1);
  const value = channelsFor(erlangs(flags), target);
  if (!value) throw new Refusal('too-many', '--erlangs', `That takes more than ${MOST_CHANNELS} channels.`);
  return { exit: 0, value, text: `${value.channels} channels; ${percent(value.blocking)} of calls find none` };
}

/** Load, agents, handling and the time asked about, as both waiting formulas take them. */
function waitingInput(flags: Flags): [number, number, number, number] {
  return [
    erlangs(flags),
    wholeNumber(flags, 'agents', 0, MOST_CHANNELS),
    over0(flags, 'handle-seconds', MOST_SECONDS),
    realNumber(flags, 'within-seconds', 0, MOST_SECONDS),
  ];
}

function waitingText(value: Waiting): string {
  const wait = value.averageWaitSeconds === null ? 'without end' : `${value.averageWaitSeconds.toFixed(1)} s`;
  return `${percent(value.waitProbability)} wait; ${percent(value.serviceLevel)} are answered in time; average wait ${wait}`;
}

function patient(flags: Flags): Answer {
  const value = erlangC(...waitingInput(flags));
  return { exit: 0, value, text: waitingText(value) };
}

function impatient(flags: Flags): Answer {
  const value = erlangA(...waitingInput(flags), over0(flags, 'patience-seconds', 1e12));
  return { exit: 0, value, text: `${waitingText(value)}; ${percent(value.abandonProbability)} hang up` };
}

function bandwidth(flags: Flags): Answer {
  const ip = need(flags, 'ip', '4 or 6');
  if (ip !== '4' && ip !== '6') throw new Refusal('bad-ip', '--ip', `“${ip}” is no version of IP here; 4 or 6 is.`);
  const link = need(flags, 'link', 'ethernet, none, ppp or vlan');
  if (!Object.hasOwn(LINK_OCTETS, link))
    throw new Refusal('bad-link', '--link', `“${link}” is no link layer; ${Object.keys(LINK_OCTETS).join(', ')} are.`);
  const found = bandwidthOf(
    need(flags, 'codec', 'a codec such as G.711A'),
    realNumber(flags, 'packet-ms', 0, 1000),
    ip === '4' ? 4 : 6,
    link as LinkLayer,
  );
  if (!found.ok)
    throw new Refusal(
      found.path === 'codec' ? 'bad-codec' : 'bad-packet-ms',
      found.path === 'codec' ? '--codec' : '--packet-ms',
      found.sentence,
    );
  const value = { kbitPerSecond: Math.round(found.kbitPerSecond * 1e6) / 1e6 };
  return { exit: 0, value, text: `${value.kbitPerSecond} kbit/s in each direction` };
}

function queue(flags: Flags): Answer {
  const parsed = queueSpec.safeParse(readDocument(need(flags, 'file', 'a queue file'), '--file'));
  if (!parsed.success) {
    const [first] = inputErrors(parsed.error);
    throw new Refusal(first!.code, `--file ${first!.path}`, first!.sentence);
  }
  const steps = simulationSteps(parsed.data);
  let said = Date.now();
  for (let step = steps.next(); ; step = steps.next()) {
    if (step.done) {
      const { serviceLevel, averageWaitSeconds, abandoned, full, waitedTooLong, occupancy, offeredCalls, agents } =
        step.value;
      const value = {
        serviceLevel,
        averageWaitSeconds,
        abandoned,
        full,
        waitedTooLong,
        occupancy,
        offeredCalls,
        agents,
      };
      const row = (what: string, e: Estimate, digits: number) =>
        `${what.padEnd(22)}${e.mean.toFixed(digits)}  (${e.low.toFixed(digits)} to ${e.high.toFixed(digits)})`;
      const text = [
        row('service level', serviceLevel, 4),
        row('average wait, s', averageWaitSeconds, 1),
        row('abandoned', abandoned, 4),
        row('occupancy', occupancy, 4),
      ].join('\n');
      return { exit: 0, value, text };
    }
    // Someone who watches is told how far it is; a pipe is not.
    if (process.stderr.isTTY && Date.now() - said > 500) {
      said = Date.now();
      process.stderr.write(`\r${step.value.done} of ${step.value.total} replications`);
    }
  }
}

const WAITING = ['erlangs', 'agents', 'handle-seconds', 'within-seconds'];

const VERBS: Record<string, { run: (flags: Flags) => Answer; flags: readonly string[] }> = {
  'erlang-b': { run: blocking, flags: ['erlangs', 'channels'] },
  'erlang-c': { run: patient, flags: WAITING },
  'erlang-a': { run: impatient, flags: [...WAITING, 'patience-seconds'] },
  channels: { run: channels, flags: ['erlangs', 'blocking'] },
  bandwidth: { run: bandwidth, flags: ['codec', 'packet-ms', 'ip', 'link'] },
  queue: { run: queue, flags: ['file'] },
};

export function load(args: string[]): Answer {
  const verb = ofName(VERBS, args[0]);
  if (!verb) throw noCommand(args[0], Object.keys(VERBS), 'load ');
  return verb.run(flagsOf(args.slice(1), { flags: verb.flags, words: 0 }).flags);
}
