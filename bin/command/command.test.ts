import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeAll, describe, expect, it, jest } from '@jest/globals';
import { parse, stringify } from 'yaml';
import { helpFor } from './help';
import { answer } from './run';

jest.setTimeout(30_000);

function polydrome(args: string[], input?: string): { code: number | null; out: string; err: string } {
  const ran = spawnSync('./bin/polydrome', args, { encoding: 'utf8', input });
  return { code: ran.status, out: ran.stdout, err: ran.stderr };
}
/** A command as the program answers it; that the program in its own process says the same is asked below. */
const json = (args: string[]) => {
  const { exit, value } = answer(args);
  return {
    code: exit,
    value: JSON.parse(JSON.stringify(value)) as Record<string, unknown> & { error: Record<string, unknown> },
  };
};

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'polydrome-command-'));
});

describe('polydrome digits and number', () => {
  it('check answers with words, or with offset and what was expected, exit 2', () => {
    expect(json(['digits', 'check', '90[1-8]x{8,9}'])).toEqual({
      code: 0,
      value: { ok: true, words: '90, then 1-8, then 8 to 9 digits' },
    });
    expect(json(['digits', 'check', '9(0'])).toMatchObject({ code: 2, value: { ok: false, offset: 3, expected: ')' } });
  });

  it('match answers the state; dead exits 1; a bad map exits 2 with its offset', () => {
    expect(json(['digits', 'match', '90x{2}', '9012'])).toEqual({
      code: 0,
      value: { state: 'final', why: 'matches, and nothing longer can' },
    });
    expect(json(['digits', 'match', '90x{2}', '8'])).toMatchObject({
      code: 1,
      value: { state: 'dead', why: '1st digit is 8; needs 9' },
    });
    expect(json(['digits', 'match', '9[', '8'])).toMatchObject({
      code: 2,
      value: { error: { code: 'bad-map', path: 'MAP', offset: 2 } },
    });
    expect(json(['digits', 'match', '9', '8a'])).toMatchObject({
      code: 2,
      value: { error: { code: 'bad-digits', offset: 1 } },
    });
  });

  it('number read answers E.164, kind and why not', () => {
    expect(json(['number', 'read', '031-390 06 10', '--country', 'SE', '--area', '31'])).toMatchObject({
      code: 0,
      value: { e164: '+46313900610', country: 'SE', kind: 'local', why: null },
    });
    expect(json(['number', 'read', '+44 1632 960100', '--country', 'GB'])).toMatchObject({
      code: 1,
      value: { kind: 'unknown' },
    });
    expect(json(['number', 'read', '1', '--country', 'XX'])).toMatchObject({
      code: 2,
      value: { error: { path: '--country' } },
    });
    expect(json(['number', 'read', '1'])).toMatchObject({
      code: 2,
      value: { error: { path: '--country', code: 'flag-missing' } },
    });
  });
});

describe('polydrome digits, number, hours and load, as scripts rely on them', () => {
  const queueFile = () => {
    const file = join(folder, 'queue.json');
    writeFileSync(
      file,
      JSON.stringify({
        seed: 1,
        replications: 10,
        hours: 4,
        arrivalsPerHour: [60],
        handleSeconds: { mean: 240, law: 'exponential' },
        agents: 5,
        withinSeconds: 20,
      }),
    );
    return file;
  };
  const icsFile = () => {
    const file = join(folder, 'hours.ics');
    const event = [
      'BEGIN:VEVENT',
      'UID:1',
      'SUMMARY:Regatta',
      'DTSTART;VALUE=DATE:20261224',
      'CATEGORIES:holiday',
      'END:VEVENT',
    ];
    writeFileSync(
      file,
      ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//x//y//EN', ...event, 'END:VCALENDAR'].join('\r\n'),
    );
    return file;
  };
  const week = ['--spec', 'mon-fri 7-19, sat 8-13', '--zone', 'Europe/London'];

  it.each<[() => string[], number, object]>([
    [
      () => ['digits', 'relate', '9[1-5]x', '9[4-7]x'],
      0,
      { relation: 'overlaps', onlyA: '910', onlyB: '960', both: '940' },
    ],
    [() => ['digits', 'relate', '1', '2'], 1, { relation: 'disjoint', onlyA: '1', onlyB: '2', both: null }],
    [() => ['digits', 'count', 'x{20}', '--length', '20'], 0, { length: 20, count: '100000000000000000000' }],
    [() => ['digits', 'example', '[12]', '--seed', '5', '--most', '9'], 0, { examples: ['1', '2'] }],
    [() => ['digits', 'simplify', '2101', '2102', '2103'], 0, { map: '210[1-3]' }],
    [() => ['digits', 'simplify', '2101', '2['], 2, { error: { code: 'bad-map', path: 'MAP 2', offset: 2 } }],
    [() => ['digits', 'count', 'x', '--length', 'ten'], 2, { error: { path: '--length' } }],
    [() => ['number', 'write', '+441632960100', '--as', 'national'], 0, { digits: '01632960100' }],
    [
      () => ['number', 'write', '+441632960100', '--as', 'subscriber', '--country', 'GB', '--area', '1632'],
      0,
      { digits: '960100' },
    ],
    [
      () => ['number', 'write', '+441632960100', '--as', 'significant', '--country', 'SE'],
      0,
      { digits: '00441632960100' },
    ],
    [() => ['number', 'write', '+80012345678', '--as', 'national'], 2, { error: { path: '--country' } }],
    [() => ['number', 'write', '+441632960100', '--as', 'roman'], 2, { error: { path: '--as' } }],
    [
      () => ['hours', 'when', ...week, '--at', '2026-11-23T10:00'],
      0,
      { open: true, mode: 'open', until: '2026-11-23T19:00:00+00:00' },
    ],
    [
      () => ['hours', 'when', ...week, '--at', '2026-12-24T10:00', '--ics', icsFile()],
      0,
      { open: false, mode: 'holiday', until: '2026-12-25T00:00:00+00:00' },
    ],
    [
      () => ['hours', 'when', '--spec', 'mon-sun 0-24', '--zone', 'UTC', '--at', '2026-12-24T10:00'],
      0,
      { open: true, until: null },
    ],
    [
      () => ['hours', 'when', '--spec', 'mon 9-9', '--zone', 'UTC', '--at', 'now'],
      2,
      { error: { path: '--spec', offset: 4 } },
    ],
    [() => ['hours', 'when', '--spec', '', '--zone', 'Sea/Side', '--at', 'now'], 2, { error: { path: '--zone' } }],
    [
      () => ['hours', 'partition', ...week, '--from', '2026-11-21T12:00', '--to', '2026-11-21T14:00'],
      0,
      {
        stretches: [
          { from: '2026-11-21T12:00:00+00:00', to: '2026-11-21T13:00:00+00:00', open: true },
          { from: '2026-11-21T13:00:00+00:00', to: '2026-11-21T14:00:00+00:00', open: false },
        ],
      },
    ],
    [
      () => ['hours', 'partition', ...week, '--from', '2026-11-21', '--to', '2026-11-20'],
      2,
      { error: { path: '--to' } },
    ],
    [() => ['hours', 'read', '--spec', 'mon-fri 7-19'], 0, { sentence: 'Mondays to Fridays 07:00 to 19:00' }],
    [() => ['load', 'erlang-b', '--erlangs', '10', '--channels', '18'], 0, { blocking: 0.007142438157899779 }],
    [
      () => ['load', 'channels', '--erlangs', '10', '--blocking', '0.01'],
      0,
      { channels: 18, blocking: 0.007142438157899779 },
    ],
    [
      () => ['load', 'erlang-c', '--erlangs', '9', '--agents', '9', '--handle-seconds', '60', '--within-seconds', '20'],
      0,
      { waitProbability: 1, serviceLevel: 0, averageWaitSeconds: null },
    ],
    [
      () => ['load', 'bandwidth', '--codec', 'G.711A', '--packet-ms', '20', '--ip', '4', '--link', 'ethernet'],
      0,
      { kbitPerSecond: 87.2 },
    ],
    [
      () => ['load', 'bandwidth', '--codec', 'G.729', '--packet-ms', '15', '--ip', '4', '--link', 'none'],
      2,
      { error: { path: '--packet-ms' } },
    ],
    [
      () => ['load', 'bandwidth', '--codec', 'tin', '--packet-ms', '20', '--ip', '4', '--link', 'none'],
      2,
      { error: { path: '--codec' } },
    ],
    [() => ['load', 'queue', '--file', queueFile()], 0, { abandoned: { mean: 0 } }],
    [() => ['load', 'queue', '--file', icsFile()], 2, { error: {} }],
    [() => ['load', 'erlang-b', '--erlangs', '-1', '--channels', '2'], 2, { error: { path: '--erlangs' } }],
    [() => ['load', 'fly'], 2, { error: { code: 'no-such-command' } }],
    [() => ['course', '--plan', 'demo/plan.yaml', '--number', '+441632960100'], 0, { loops: [] }],
    [() => ['course', '--plan', 'demo/plan.yaml', '--digits', '9999'], 2, { error: { path: '--digits' } }],
    [() => ['course', '--plan', 'demo/plan.yaml', '--number', '+46846500417'], 2, { error: { path: '--number' } }],
    [() => ['check', '--plan', 'demo/plan.yaml'], 1, {}],
    [() => ['plan', 'schema'], 0, { type: 'object' }],
    [() => ['plan', 'format', 'demo/plan.yaml'], 0, { format: 'polydrome-plan', version: 5 }],
    [() => ['plan', 'format'], 2, { error: { path: 'FILE' } }],
    [() => ['plan', 'melt', 'x'], 2, { error: { code: 'no-such-command' } }],
  ])('%#', (args, code, value) => {
    const found = json(args());
    expect([args().join(' '), found.code]).toEqual([args().join(' '), code]);
    expect(found.value).toMatchObject(value);
  });

  it('upgrade reads an older file; format gives the same bytes for the same plan', () => {
    const old = join(folder, 'old.yaml');
    writeFileSync(
      old,
      'format: polydrome-plan\nversion: 2\norganisation: {name: X}\nmailboxes: [{id: m, name: M, site: s, owner: p}]\npeople: [{id: p, name: P, site: s}]\nsites: [{id: s, name: S, country: GB, zone: Europe/London}]\n',
    );
    const upgraded = polydrome(['plan', 'upgrade', old]);
    expect([upgraded.code, JSON.parse(upgraded.out)]).toMatchObject([
      0,
      { version: 5, mailboxes: [{ owners: ['p'] }] },
    ]);
    const again = join(folder, 'new.json');
    writeFileSync(again, upgraded.out);
    expect(polydrome(['plan', 'format', again]).out).toBe(upgraded.out);
    expect(polydrome(['plan', 'format', old]).out).toBe(upgraded.out);
  });

  it('every command has help with an example that runs', () => {
    const examples = [...helpFor([]).matchAll(/^ {2}polydrome (\w+)(?: ([\w-]+))?/gm)];
    expect(examples.length).toBeGreaterThan(20);
    for (const [, group, verb] of examples) {
      const out = helpFor([group!, ...(verb ? [verb] : [])]);
      expect([group, verb, /example: polydrome /.test(out)]).toEqual([group, verb, true]);
    }
  });
});

describe('polydrome trace', () => {
  const plan = ['trace', '--plan', 'demo/plan.yaml'];

  it('answers as agreed', () => {
    const { code, value } = json([...plan, '--from', '2101', '--dial', '3001', '--at', '2026-12-04T17:10']);
    expect(code).toBe(0);
    expect(value).toMatchObject({
      outcome: 'routed',
      lands: { kind: 'extension', id: 'e-3001', digits: '3001' },
      then: [{ when: 'no answer', afterSeconds: 25, lands: { kind: 'mailbox' } }],
      kind: 'internal',
      trunk: null,
      cause: null,
      secondsWaited: 0,
    });
    for (const key of ['rule', 'digitsSent', 'shownNumber', 'e164', 'steps']) expect(value).toHaveProperty(key);
  });

  it('takes a situation and a trunk with a calling number; not routed exits 1', () => {
    const file = join(folder, 'situation.json');
    writeFileSync(file, JSON.stringify({ busy: ['e-2101'] }));
    expect(
      json([
        ...plan,
        '--from',
        'trunk:kestrel',
        '--calling',
        '+46846500417',
        '--dial',
        '01632960101',
        '--situation',
        file,
      ]).value,
    ).toMatchObject({ lands: { kind: 'mailbox', id: 'm-2101' } });
    expect(json([...plan, '--from', '2160', '--dial', '901632960150'])).toMatchObject({
      code: 1,
      value: { outcome: 'refused', cause: { q850: 21, sip: 403 } },
    });
  });

  it.each([
    [['--from', '9999', '--dial', '1'], '--from'],
    [['--from', '2101', '--dial', '1a'], '--dial'],
    [['--from', '2101', '--dial', '1', '--at', 'never'], '--at'],
    [['--dial', '1'], '--from'],
    [['--from'], '--from'],
  ])('%j is bad input', (args, path) =>
    expect(json([...plan, ...args])).toMatchObject({ code: 2, value: { error: { path } } }),
  );

  it('says where a plan file is wrong', () => {
    const broken = join(folder, 'broken.yaml');
    writeFileSync(broken, 'format: polydrome-plan\nversion: 1\norganisation: {name: X}\nsites: [{id: a}]\n');
    expect(json(['trace', '--plan', broken, '--from', '1', '--dial', '1'])).toMatchObject({
      code: 2,
      value: { error: { path: '--plan sites.0.name' } },
    });
    writeFileSync(broken, 'a: [1');
    expect(json(['trace', '--plan', broken, '--from', '1', '--dial', '1'])).toMatchObject({
      code: 2,
      value: { error: { code: 'broken-file' } },
    });
    expect(json(['trace', '--plan', join(folder, 'none.yaml'), '--from', '1', '--dial', '1'])).toMatchObject({
      code: 2,
      value: { error: { code: 'no-such-file' } },
    });
  });

  it('says in a process of its own what it says here: one line of JSON, with the exit code of the answer', () => {
    for (const args of [
      ['digits', 'match', '90x{2}', '9012'],
      ['digits', 'match', '90x{2}', '8'],
      [...plan, '--from', '2101', '--dial', '3001', '--at', '2026-12-04T17:10'],
      [...plan, '--from', '2101', '--dial', '1a'],
      ['plan', 'melt', 'x'],
    ]) {
      const { code, out } = polydrome([...args, '--json']);
      expect(out.trim().split('\n')).toHaveLength(1);
      expect({ code, value: JSON.parse(out) }).toEqual(json(args));
    }
    expect(polydrome(['trace', '--help']).out).toBe(helpFor(['trace']));
  });

  it('prints for people without --json, errors on the error stream', () => {
    expect(polydrome([...plan, '--from', '2101', '--dial', '112']).out).toMatch(
      /^routed: Emergency 112 through Kestrel Voice\n/,
    );
    const bad = polydrome([...plan, '--from', '9999', '--dial', '112']);
    expect([bad.code, bad.out]).toEqual([2, '']);
    expect(bad.err).toContain('No extension has the digits 9999');
  });
});

describe('polydrome replay', () => {
  const calls = ['--calls', 'demo/calls.jsonl'];

  it('answers as agreed: what changed against the records, or against another plan, and what is not explained', () => {
    const same = json(['replay', '--plan', 'demo/plan.yaml', ...calls]);
    expect(same).toEqual({
      code: 0,
      value: {
        calls: 5,
        changed: 0,
        lost: 0,
        groups: [],
        unexplained: [
          {
            code: 'number-not-ours',
            count: 1,
            why: '+441632960999 is no number of the plan.',
            example: 'demo-5',
          },
        ],
      },
    });
    const other = join(folder, 'other.yaml');
    const document = parse(readFileSync('demo/plan.yaml', 'utf8')) as {
      numbers: { e164: string; belongsTo: string }[];
    };
    document.numbers.find((n) => n.e164 === '+441632960104')!.belongsTo = 'e-2105';
    writeFileSync(other, stringify(document));
    for (const more of [[], ['--against', 'demo/plan.yaml']]) {
      const { code, value } = json(['replay', '--plan', other, ...calls, ...more]);
      expect(code).toBe(1);
      expect(value.changed).toBe(2);
      const [group] = value.groups as { example: { call: Record<string, string> }; was: object; willBe: object }[];
      expect(group).toMatchObject({
        count: 1,
        was: { outcome: 'routed', lands: { id: expect.stringMatching(/^(e|m)-2104$/) } },
        willBe: { outcome: 'routed', lands: { id: 'e-2105' } },
      });
      // The example really differs, asked one by one.
      const { from, dial, at } = group!.example.call;
      const traced = (plan: string) =>
        (json(['trace', '--plan', plan, '--from', from!, '--dial', dial!, '--at', at!]).value.lands as { id: string })
          .id;
      expect([traced(other), traced('demo/plan.yaml')]).toEqual(['e-2105', 'e-2104']);
    }
  });

  it('takes the log of another system as CSV, and says at which cell it is wrong', () => {
    const file = join(folder, 'log.csv');
    const line = (number: string, talk: string) => `23/11/2026 9:05;07700 900123;${number};2104;answered;${talk}`;
    const head = 'Started;From;To;Extension;Result;Talk';
    writeFileSync(file, [head, line('01632 960104', '1:05'), line('01632 960999', '20')].join('\r\n'));
    const { code, value } = json(['replay', '--plan', 'demo/plan.yaml', '--calls', file]);
    expect([code, value]).toMatchObject([
      0,
      { calls: 2, changed: 0, unexplained: [{ code: 'number-not-ours', count: 1 }] },
    ]);
    writeFileSync(file, [head, line('01632 960104', '1:05'), line('01632 960105', 'ages')].join('\n'));
    const wrong = json(['replay', '--plan', 'demo/plan.yaml', '--calls', file]);
    expect([wrong.code, wrong.value.error]).toMatchObject([2, { code: 'bad-duration', path: '--calls line 3, talk' }]);
  });

  it('says in which line of the calls something is wrong', () => {
    const file = join(folder, 'calls.jsonl');
    writeFileSync(file, `${readFileSync('demo/calls.jsonl', 'utf8')}{"id":"x"}\n`);
    const { code, value } = json(['replay', '--plan', 'demo/plan.yaml', '--calls', file]);
    expect([code, value.error.path]).toEqual([2, '--calls line 6.started']);
    expect(json(['replay', '--plan', 'demo/plan.yaml', '--calls', 'nowhere']).value.error.code).toBe('no-such-file');
  });
});

describe('polydrome traffic', () => {
  it('answers with erlangs, busy hour and most calls at once, of all calls or of a trunk', () => {
    const asked = ['traffic', '--plan', 'demo/plan.yaml', '--calls', 'demo/calls.jsonl'];
    const { code, value } = json(asked);
    expect(code).toBe(0);
    expect(value).toMatchObject({ calls: 5, refused: 0, peak: { calls: 1 }, busyHour: { from: '10:00' } });
    expect((value.week as number[]).length).toBe(672);
    expect(json([...asked, '--trunk', 'kestrel']).value).toMatchObject({ calls: 0, busyHour: null });
    expect(json([...asked, '--trunk', 'nowhere'])).toMatchObject({
      code: 2,
      value: { error: { code: 'no-such-trunk' } },
    });
  });
});

describe('polydrome batch', () => {
  it('answers line by line in order, errors in their lines, exit 0', () => {
    const lines = [
      ['digits', 'match', '9x', '91'],
      ['digits', 'match', '9[', '91'],
      'nonsense',
      ['trace', '--plan', 'demo/plan.yaml', '--from', '2101', '--dial', '999'],
      ['fly'],
    ];
    const { code, out } = polydrome(['batch'], lines.map((l) => JSON.stringify(l)).join('\n') + '\nnot json\n');
    const values = out
      .trim()
      .split('\n')
      .map((l) => JSON.parse(l) as { state?: string; error?: { code: string }; outcome?: string });
    expect(code).toBe(0);
    expect(values.map((v) => v.state ?? v.outcome ?? v.error?.code)).toEqual([
      'final',
      'bad-map',
      'bad-line',
      'routed',
      'no-such-command',
      'bad-line',
    ]);
  });

  it('help names an example, and no command at all is bad input', () => {
    expect(polydrome(['--help'])).toMatchObject({
      code: 0,
      out: expect.stringContaining('polydrome trace --plan demo/plan.yaml'),
    });
    expect(polydrome([]).code).toBe(2);
  });
});

describe('polydrome and arguments that are not so', () => {
  const plan = ['--plan', 'demo/plan.yaml'];
  const trace = (...more: string[]) => json(['trace', ...plan, '--from', '2101', '--dial', '2104', ...more]);
  const situation = (value: object) => {
    const file = join(folder, 'situation.json');
    writeFileSync(file, JSON.stringify(value));
    return ['--situation', file];
  };

  it.each([
    ['a mistyped flag', ['check', ...plan, '--plann', 'x'], /--plann is not known here; --plan is/],
    [
      'a flag of another command',
      ['digits', 'count', 'x{3}', '--length', '3', '--seed', '1'],
      /--seed is not known here/,
    ],
    ['a flag twice', ['check', ...plan, ...plan], /--plan stands there twice/],
    ['a word too many', ['number', 'read', '112', '113', '--country', 'GB'], /“113” is one word too many/],
    ['a word where none is taken', ['check', 'demo/plan.yaml', ...plan], /one word too many/],
    ['a command almost right', ['trase', ...plan], /“trase” is no command; trace is/],
    ['a verb almost right', ['digits', 'mach', 'x', '1'], /“digits mach” is no command; digits match is/],
    [
      'a calling number that is none',
      ['trace', ...plan, '--from', 'trunk:kestrel', '--dial', '01632960101', '--calling', 'abc'],
      /“abc” is no calling number/,
    ],
    [
      'a calling number without a trunk',
      ['trace', ...plan, '--from', '2101', '--dial', '2104', '--calling', '112'],
      /goes with a trunk only/,
    ],
    [
      'both entries of a course',
      ['course', ...plan, '--number', '+441632960100', '--digits', '2101'],
      /one of them is right/,
    ],
    ['a moment that is none', ['check', ...plan, '--at', 'soon'], /./],
    [
      'a calendar of octets',
      ['hours', 'when', '--zone', 'Europe/London', '--at', 'now', '--ics', '/bin/ls'],
      /^This is no iCalendar text: (?!Cannot)/,
    ],
  ])('%s is refused, with what would be right', (_what, args, sentence) => {
    const { code, value } = json(args);
    expect(code).toBe(2);
    expect(value.error.sentence).toMatch(sentence);
  });

  it('an id in a situation that the plan has not is refused with its path', () => {
    const { code, value } = trace(...situation({ busy: ['e-2104', 'e-9999'] }));
    expect([code, value.error.path]).toEqual([2, '--situation busy.1']);
    expect(trace(...situation({ busy: ['e-2104'] })).code).toBe(0);
    expect(trace(...situation({ notices: [{ id: 'n', from: '2026-12-01T00:00:00Z', open: true }] })).code).toBe(2);
  });

  it('no line of a batch, however broken, loses the answer of another', () => {
    const good = ['trace', ...plan, '--from', '2101', '--dial', '2104'];
    const full = [
      'trace',
      ...plan,
      '--from',
      'outside:+46313900610',
      '--dial',
      '+494066969200',
      ...situation({
        trunks: [{ id: 'elbkontor', busyChannels: Array.from({ length: 30 }, (_, i) => i + 1) }],
      }),
    ];
    const lines = [
      good,
      ['__proto__'],
      ['constructor', 'x'],
      [1, 2],
      { a: 1 },
      ['trace', '--from'],
      full,
      ['trace', ...plan, '--json', '--from', '2101', '--dial', '2104'],
      good,
    ];
    const { code, out } = polydrome(['batch'], lines.map((l) => JSON.stringify(l)).join('\n') + '\n{"\n\u0000\n');
    const answers = out
      .trim()
      .split('\n')
      .map((l) => JSON.parse(l) as { outcome?: string; error?: { code: string } });
    expect(code).toBe(0);
    expect(answers.map((a) => a.outcome ?? a.error!.code)).toEqual([
      'routed',
      'no-such-command',
      'no-such-command',
      'bad-line',
      'bad-line',
      'value-missing',
      'failed',
      'routed',
      'routed',
      'bad-line',
      'bad-line',
    ]);
  });
});

/** Tables of numbers are prepared when they are first asked for. */
const PREPARED_MS = 120_000;

describe('polydrome atlas and impact', () => {
  const plan = 'demo/plan.yaml';
  const at = '2026-12-04T17:10:00Z';

  it(
    'tells a phone’s regions, each string in one',
    () => {
      const { code, value } = json(['atlas', '--plan', plan, '--phone', '2104', '--at', at]);
      expect(code).toBe(0);
      const regions = value.regions as { map: string; example: string; outcome: string; rule: string; count: string }[];
      const sum = regions.reduce((all, r) => all + BigInt(r.count), 0n);
      expect(sum).toBe((13n * (12n ** 32n - 1n)) / 11n);
      expect(regions.find((r) => r.example === '2105')).toMatchObject({ outcome: 'routed', count: '1' });
      expect(json(['atlas', '--plan', plan, '--phone', '9999'])).toMatchObject({
        code: 2,
        value: { error: { path: '--phone' } },
      });
      expect(json(['atlas', '--plan', plan])).toMatchObject({ code: 2, value: { error: { path: '--phone' } } });
    },
    PREPARED_MS,
  );

  it(
    'names the calls that an edit changes, how many phones and numbers, and the edit; exit 0 where nothing changes',
    () => {
      expect(json(['impact', '--from', plan, '--to', plan, '--at', at])).toEqual({ code: 0, value: { groups: [] } });
      const text = readFileSync(plan, 'utf8');
      const document = parse(text) as {
        extensions: { id: string; digits: string; ringSeconds: number; name: string }[];
      };
      const one = document.extensions.find((e) => e.digits === '2105')!;
      one.ringSeconds = 33;
      document.extensions.find((e) => e.digits === '2106')!.name = 'Somebody Else';
      const other = join(folder, 'other-seconds.json');
      writeFileSync(other, JSON.stringify(document));
      const { code, value } = json(['impact', '--from', plan, '--to', other, '--at', at]);
      expect(code).toBe(1);
      const groups = value.groups as {
        count: number;
        phones: number;
        numbers: number;
        brought: number;
        aspects: string[];
        edits: { id: string }[];
      }[];
      // A new name changes no call; longer ringing changes what follows without an answer.
      expect(groups.flatMap((g) => g.edits.map((e) => e.id))).toEqual(groups.map(() => one.id));
      for (const g of groups) expect(g.aspects).toEqual(['afterwards']);
      // Colleagues who dial it, its own number, and its digits as a trunk that brings private ones has them.
      const of = { phones: 0, numbers: 0, brought: 0 };
      expect(groups).toContainEqual(expect.objectContaining({ ...of, count: 131, phones: 131 }));
      expect(groups).toContainEqual(expect.objectContaining({ ...of, count: 1, numbers: 1 }));
      expect(groups).toContainEqual(expect.objectContaining({ ...of, count: 1, brought: 1 }));
    },
    PREPARED_MS,
  );
});

describe('polydrome promises and drill', () => {
  const plan = 'demo/plan.yaml';
  const at = '2026-12-04T17:10:00Z';
  interface Verdict {
    id: string;
    holds: boolean;
    counterexample: { call: { from: string; dial: string } } | null;
  }

  it(
    'every promise of the demo holds; one that a class breaks names a call of a phone of that class',
    () => {
      const whole = json(['promises', '--plan', plan, '--at', at]);
      expect(whole.code).toBe(0);
      expect((whole.value.promises as Verdict[]).map((p) => p.holds)).toEqual([true, true, true, true, true]);
      const document = parse(readFileSync(plan, 'utf8')) as {
        classes: { id: string; rights: Record<string, { allow: boolean }> }[];
        extensions: { digits: string; class: string }[];
      };
      document.classes.find((c) => c.id === 'lobby')!.rights.national = { allow: true };
      const other = join(folder, 'lobby-outside.json');
      writeFileSync(other, JSON.stringify(document));
      const { code, value } = json(['promises', '--plan', other, '--at', at]);
      expect(code).toBe(1);
      const broken = (value.promises as Verdict[]).filter((p) => !p.holds);
      expect(broken.map((p) => p.id)).toEqual(['lobby-stays-inside']);
      const { from, dial } = broken[0]!.counterexample!.call;
      expect(document.extensions.find((e) => e.digits === from)!.class).toBe('lobby');
      const traced = json(['trace', '--plan', other, '--from', from, '--dial', dial, '--at', at]);
      expect(traced.value).toMatchObject({ outcome: 'routed', kind: 'national' });
    },
    PREPARED_MS,
  );

  it(
    'a drill of one trunk tells the emergency numbers that do not leave, and exits 1',
    () => {
      const { code, value } = json(['drill', '--plan', plan, '--of', 'elbkontor', '--at', at]);
      expect(code).toBe(1);
      const [drill] = value.drills as { out: string[]; emergency: { site: string; leaves: boolean }[] }[];
      expect(drill!.out).toEqual(['elbkontor']);
      const lost = drill!.emergency.filter((e) => !e.leaves).map((e) => e.site);
      expect([...new Set(lost)]).toEqual(['freight-hamburg']);
      expect(json(['drill', '--plan', plan, '--of', 'nobody'])).toMatchObject({
        code: 2,
        value: { error: { path: '--of' } },
      });
    },
    PREPARED_MS,
  );
});
