/** Every command: how it is written, what it is for, and an example that runs as it stands. */
const COMMANDS: readonly (readonly [usage: string, purpose: string, example: string])[] = [
  ['digits check MAP', 'is this digit map well formed, and what does it say', "digits check '90[1-8]x{8,9}'"],
  ['digits match MAP DIGITS', 'what is known after these digits', "digits match '90[1-8]x{8,9}' 901632960100"],
  [
    'digits relate MAP_A MAP_B',
    'how two maps lie to each other, with the shortest string of each part',
    "digits relate '9[1-5]x' '9[4-7]x'",
  ],
  ['digits count MAP --length N', 'how many strings of a length a map takes', "digits count 'x{4}' --length 4"],
  ['digits example MAP --seed S --most K', 'some strings that a map takes', "digits example '2x{3}' --seed 7 --most 3"],
  ['digits simplify MAP…', 'one short map for several', 'digits simplify 2101 2102 2103'],
  ['number read TEXT --country CC [--area A]', 'what a number is', "number read '01632 960100' --country GB"],
  [
    'number write E164 --as FORM [--country CC --area A]',
    'a number as a trunk wants it',
    'number write +46313900610 --as national --country GB',
  ],
  [
    'hours when --spec S --zone Z --at T [--ics FILE]',
    'open or closed, and until when',
    "hours when --spec 'mon-fri 7-19' --zone Europe/London --at 2026-12-24T08:00",
  ],
  [
    'hours partition --spec S --zone Z --from T --to T',
    'stretches without change',
    "hours partition --spec 'mon-fri 7-19' --zone Europe/London --from 2026-12-21 --to 2026-12-24",
  ],
  ['hours read --spec S', 'opening times as a sentence', "hours read --spec 'mon-fri 7-19, sat 8-13'"],
  [
    'load erlang-b --erlangs A --channels N',
    'share of calls that find no channel',
    'load erlang-b --erlangs 10 --channels 18',
  ],
  ['load channels --erlangs A --blocking P', 'channels for a target', 'load channels --erlangs 10 --blocking 0.01'],
  [
    'load erlang-c --erlangs A --agents N --handle-seconds H --within-seconds T',
    'waiting when nobody hangs up',
    'load erlang-c --erlangs 8 --agents 10 --handle-seconds 240 --within-seconds 20',
  ],
  [
    'load erlang-a … --patience-seconds P',
    'waiting when callers hang up',
    'load erlang-a --erlangs 8 --agents 9 --handle-seconds 240 --within-seconds 20 --patience-seconds 120',
  ],
  [
    'load bandwidth --codec C --packet-ms N --ip 4|6 --link L',
    'kilobits a second of one call',
    'load bandwidth --codec G.711A --packet-ms 20 --ip 4 --link ethernet',
  ],
  ['load queue --file FILE', 'a queue simulated from a JSON or YAML file', 'load queue --file queue.json'],
  [
    'trace --plan FILE --from X --dial D [--at T] [--calling N] [--en-bloc] [--situation FILE] [--every-rule]',
    'what happens to a call and why',
    'trace --plan demo/plan.yaml --from 2104 --dial 999 --at now',
  ],
  [
    'course --plan FILE --number N | --digits D [--at T] [--situation FILE]',
    'all ways a call can take from there',
    'course --plan demo/plan.yaml --number +441632960100',
  ],
  ['check --plan FILE [--at T]', 'everything wrong or doubtful in a plan', 'check --plan demo/plan.yaml'],
  [
    'atlas --plan FILE --phone X [--at T] [--situation FILE]',
    'everything that a phone can dial, cut into regions that the plan decides alike',
    'atlas --plan demo/plan.yaml --phone 2104',
  ],
  [
    'impact --from FILE --to FILE [--at T] [--situation FILE]',
    'every kind of call that ends otherwise in one plan than in another',
    'impact --from demo/plan.yaml --to demo/plan.yaml',
  ],
  [
    'promises --plan FILE [--at T] [--situation FILE]',
    'whether each promise of a plan holds of all its calls, and what call breaks it',
    'promises --plan demo/plan.yaml',
  ],
  [
    'drill --plan FILE [--of ID] [--at T] [--situation FILE]',
    'what becomes of calls while a trunk, a link or a site is out of order',
    'drill --plan demo/plan.yaml --of kestrel',
  ],
  [
    'replay --plan FILE --calls FILE [--against FILE] [--site ID]',
    'which real calls would end elsewhere than they did, or than in another plan',
    'replay --plan demo/plan.yaml --calls demo/calls.jsonl',
  ],
  [
    'traffic --plan FILE --calls FILE [--trunk ID] [--site ID]',
    'erlangs, busy hour and most calls at once, from real calls',
    'traffic --plan demo/plan.yaml --calls demo/calls.jsonl',
  ],
  ['plan schema', 'the plan document as JSON Schema', 'plan schema'],
  ['plan format FILE', 'the canonical text of a plan', 'plan format demo/plan.yaml'],
  ['plan upgrade FILE', 'the same plan in the newest version', 'plan upgrade demo/plan.yaml'],
  ['batch', 'a JSON array of arguments a line in, a JSON value a line out', `batch < questions.txt`],
];

const FOOT = `
--json prints exactly one JSON value. Exit: 0 fine, 1 it found something, 2 bad input.
`;

/** Help for everything, or with examples for the commands that begin with some words. */
export function helpFor(words: readonly string[]): string {
  const asked = words.filter((w) => !w.startsWith('-')).slice(0, 2);
  const fitting = COMMANDS.filter(([usage]) => asked.every((w, i) => usage.split(' ')[i] === w));
  if (asked.length === 0 || fitting.length === 0) {
    const list = COMMANDS.map(
      ([usage, purpose, example]) => `  polydrome ${usage}\n      ${purpose}\n      such as: polydrome ${example}`,
    );
    return `polydrome asks the routing engine from the command line.\n\n${list.join('\n')}\n${FOOT}`;
  }
  const list = fitting.map(
    ([usage, purpose, example]) => `polydrome ${usage}\n  ${purpose}\n  example: polydrome ${example}`,
  );
  return `${list.join('\n\n')}\n${FOOT}`;
}
