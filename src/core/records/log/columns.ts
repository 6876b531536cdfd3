/* The columns of a call log of another system: what each is, and plain names it goes by. */

export const LOG_COLUMNS = [
  'id',
  'started',
  'date',
  'time',
  'answered',
  'ended',
  'duration',
  'ringing',
  'talk',
  'direction',
  'calling',
  'called',
  'phone',
  'trunk',
  'result',
  'cause',
] as const;
export type LogColumn = (typeof LOG_COLUMNS)[number];

/** Title, note, and other names in small letters without blanks and signs. */
export const LOG_COLUMN_FACTS: Record<LogColumn, { title: string; also: readonly string[]; note: string }> = {
  id: { title: 'Call id', also: ['id', 'callid', 'identifier', 'samtalsid'], note: 'What tells calls apart.' },
  started: {
    title: 'Started',
    also: ['start', 'starttime', 'begin', 'begun', 'datetime', 'dateandtime', 'timestamp', 'startade', 'beginn'],
    note: 'Day and time at which the call came or was dialled.',
  },
  date: { title: 'Date', also: ['day', 'datum'], note: 'The day, where the time stands in a column of its own.' },
  time: { title: 'Time', also: ['timeofday', 'tid', 'uhrzeit', 'zeit', 'klockslag'], note: 'The time of that day.' },
  answered: {
    title: 'Answered at',
    also: ['answered', 'answertime', 'connected', 'pickedup', 'besvarad', 'angenommen'],
    note: 'When somebody took it; empty where nobody did.',
  },
  ended: { title: 'Ended', also: ['end', 'endtime', 'finished', 'slutade', 'ende'], note: 'When it was over.' },
  duration: {
    title: 'Duration',
    also: ['length', 'total', 'totalduration', 'totaltime', 'seconds', 'langd', 'dauer', 'varaktighet'],
    note: 'From start to end: 75, 1:15, 1 m 15 s, 75000 ms.',
  },
  ringing: {
    title: 'Ringing',
    also: ['ringtime', 'ringseconds', 'wait', 'waited', 'waittime', 'waitingtime', 'vantetid', 'wartezeit'],
    note: 'From start to answer.',
  },
  talk: {
    title: 'Talk',
    also: ['talktime', 'talked', 'conversation', 'spoken', 'taltid', 'sprechzeit', 'gesprachszeit'],
    note: 'From answer to end; 0 where nobody answered.',
  },
  direction: {
    title: 'Direction',
    also: ['calldirection', 'inout', 'riktning', 'richtung'],
    note: 'in, out or internal. Empty: told by the numbers.',
  },
  calling: {
    title: 'Calling',
    also: ['from', 'caller', 'callingnumber', 'callernumber', 'fran', 'uppringare', 'von', 'anrufer'],
    note: 'The caller’s number or extension; empty where it was withheld.',
  },
  called: {
    title: 'Called',
    also: [
      'to',
      'callednumber',
      'dialled',
      'dialed',
      'dialledno',
      'number',
      'till',
      'uppringt',
      'an',
      'gewahlt',
      'ziel',
    ],
    note: 'The number or digits that were called.',
  },
  phone: {
    title: 'Extension',
    also: ['phone', 'ext', 'answeredby', 'agent', 'takenby', 'user', 'anknytning', 'durchwahl', 'nebenstelle'],
    note: 'Whose phone it rang at, or which took it.',
  },
  trunk: { title: 'Trunk', also: ['line', 'carrier', 'gateway', 'linje', 'leitung'], note: 'Id or name of the trunk.' },
  result: {
    title: 'Result',
    also: ['status', 'outcome', 'state', 'resultat', 'ergebnis'],
    note: 'answered, missed, busy, voicemail, failed.',
  },
  cause: {
    title: 'Cause',
    also: ['q850', 'cause code', 'causecode', 'releasecause', 'grund'],
    note: 'ITU-T Q.850, 1 to 127.',
  },
};

/** A heading as names are compared: small letters and figures, without marks. */
export const plainHeading = (heading: string): string =>
  heading
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]/g, '');

const UNIT_WORDS: Record<string, number> = {
  ms: 1,
  millis: 1,
  milliseconds: 1,
  s: 1000,
  sec: 1000,
  secs: 1000,
  seconds: 1000,
  sek: 1000,
  m: 60_000,
  min: 60_000,
  mins: 60_000,
  minutes: 60_000,
  h: 3_600_000,
  hours: 3_600_000,
};

/** Where a heading's last word begins, when it is a unit: `Talk (min)`, `duration_ms`; null: it says none. */
function unitAt(heading: string): { at: number; unit: number } | null {
  const words = heading
    .toLowerCase()
    .split(/[^a-z]/)
    .filter(Boolean);
  const word = words.at(-1) ?? '';
  if (words.length < 2 || !Object.hasOwn(UNIT_WORDS, word)) return null;
  // One letter is a unit in brackets only.
  const at = heading.toLowerCase().lastIndexOf(word);
  return word.length > 1 || /[([]/.test(heading.charAt(at - 1)) ? { at, unit: UNIT_WORDS[word]! } : null;
}

/** Milliseconds of one of the figures under a heading, where it says a unit; null: it says none. */
export const unitIn = (heading: string): number | null => unitAt(heading)?.unit ?? null;

/** A heading without its unit. */
const withoutUnit = (heading: string): string => heading.slice(0, unitAt(heading)?.at ?? heading.length);

/** Which column each heading is, by its name; each column once, the first that fits. */
export function matchedColumns(header: readonly string[]): Partial<Record<LogColumn, number>> {
  const out: Partial<Record<LogColumn, number>> = {};
  for (const [i, heading] of header.entries()) {
    const plain = plainHeading(withoutUnit(heading));
    const column = LOG_COLUMNS.find(
      (c) =>
        out[c] === undefined &&
        [c, plainHeading(LOG_COLUMN_FACTS[c].title), ...LOG_COLUMN_FACTS[c].also].includes(plain),
    );
    if (column && plain !== '') out[column] = i;
  }
  return out;
}
