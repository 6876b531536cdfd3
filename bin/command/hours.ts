import { readFileSync } from 'node:fs';
import { readWhen } from '@/core/ask';
import {
  clockOf,
  hoursInWords,
  isoAt,
  merged,
  nextChange,
  parseWeek,
  partition,
  readCalendar,
  stateAt,
  type Hours,
  type Notice,
  type Week,
} from '@/core/hours';
import { Refusal, flagsOf, need, noCommand, ofName, type Answer } from './answer';

const MOST_DAYS = 3700;

interface Given {
  hours: Hours;
  notices: Notice[];
  notCarried: string[];
}

function weekOf(flags: Map<string, string>, needed: boolean): Week {
  const text = needed
    ? need(flags, 'spec', 'opening times such as "mon-fri 7-19, sat 8-13"')
    : (flags.get('spec') ?? '');
  const read = parseWeek(text);
  if (!read.ok) throw new Refusal('bad-spec', '--spec', read.error.sentence, read.error.offset);
  return read.week;
}

function clock(flags: Map<string, string>) {
  const zone = need(flags, 'zone', 'a time zone such as Europe/London');
  try {
    return clockOf(zone);
  } catch {
    throw new Refusal('bad-zone', '--zone', `${zone} is no time zone; an IANA name such as Europe/London is needed.`);
  }
}

/** The weekly hours of --spec with what an iCalendar file of --ics adds. */
function given(flags: Map<string, string>): Given {
  const file = flags.get('ics');
  const week = weekOf(flags, file === undefined);
  const zone = clock(flags);
  const plain: Hours = { clock: zone, week, holidays: new Map(), yearly: new Map(), exceptions: new Map() };
  if (file === undefined) return { hours: plain, notices: [], notCarried: [] };
  let text: string;
  try {
    text = readFileSync(file, 'utf8');
  } catch {
    throw new Refusal('no-such-file', '--ics', `${file} can't be read; the path of an iCalendar file is needed.`);
  }
  const read = readCalendar(text, zone.zone);
  if (!read.ok) throw new Refusal('bad-calendar', '--ics', read.sentence);
  const { hours, notices, notCarried } = read.read;
  return { hours: { ...hours, week: week.map((s, i) => merged([...s, ...hours.week[i]!])) }, notices, notCarried };
}

function moment(flags: Map<string, string>, name: string, zone: string): number {
  const read = readWhen(need(flags, name, 'a moment such as 2026-12-24T08:00'), zone, Date.now());
  if (!read.ok) throw new Refusal('bad-time', `--${name}`, read.sentence);
  return read.at;
}

function when(flags: Map<string, string>): Answer {
  const { hours, notices, notCarried } = given(flags);
  const at = moment(flags, 'at', hours.clock.zone);
  const { open, mode } = stateAt(hours, notices, at);
  const until = nextChange(hours, notices, at);
  const value = {
    open,
    mode,
    until: until === null ? null : isoAt(hours.clock, until),
    ...(notCarried.length > 0 ? { notCarried } : {}),
  };
  const long = value.until === null ? 'without an end in sight' : `until ${value.until}`;
  return { exit: 0, value, text: [`${open ? 'open' : 'closed'} (${mode}) ${long}`, ...notCarried].join('\n') };
}

function stretches(flags: Map<string, string>): Answer {
  const { hours, notices } = given(flags);
  const [from, to] = [moment(flags, 'from', hours.clock.zone), moment(flags, 'to', hours.clock.zone)];
  if (to <= from) throw new Refusal('bad-time', '--to', '--to is not after --from.');
  if (to - from > MOST_DAYS * 86_400_000) throw new Refusal('too-long', '--to', 'At most ten years are cut at once.');
  // The contract tells open from closed only, so neighbours that differ in their reason are one stretch here.
  const value: { from: string; to: string; open: boolean }[] = [];
  for (const s of partition(hours, notices, from, to)) {
    const last = value[value.length - 1];
    if (last && last.open === s.state.open) last.to = isoAt(hours.clock, s.to);
    else value.push({ from: isoAt(hours.clock, s.from), to: isoAt(hours.clock, s.to), open: s.state.open });
  }
  const text = value.map((s) => `${s.from}  ${s.to}  ${s.open ? 'open' : 'closed'}`).join('\n');
  return { exit: 0, value: { stretches: value }, text };
}

function read(flags: Map<string, string>): Answer {
  const { hours } = flags.has('ics') ? given(flags) : { hours: null };
  const sentence = hours
    ? hoursInWords(hours.week, hours.holidays.size + hours.yearly.size, hours.exceptions.size)
    : hoursInWords(weekOf(flags, true), 0);
  return { exit: 0, value: { sentence }, text: sentence };
}

const VERBS: Record<string, { run: (flags: Map<string, string>) => Answer; flags: readonly string[] }> = {
  when: { run: when, flags: ['spec', 'zone', 'at', 'ics'] },
  partition: { run: stretches, flags: ['spec', 'zone', 'from', 'to', 'ics'] },
  read: { run: read, flags: ['spec', 'zone', 'ics'] },
};

export function hours(args: string[]): Answer {
  const verb = ofName(VERBS, args[0]);
  if (!verb) throw noCommand(args[0], Object.keys(VERBS), 'hours ');
  return verb.run(flagsOf(args.slice(1), { flags: verb.flags, words: 0 }).flags);
}
