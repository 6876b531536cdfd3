import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeAll, describe, expect, it, jest } from '@jest/globals';

jest.setTimeout(30_000);

function polydrome(args: string[], input?: string): { code: number | null; out: string; err: string } {
  const ran = spawnSync('./bin/polydrome', args, { encoding: 'utf8', input });
  return { code: ran.status, out: ran.stdout, err: ran.stderr };
}
const json = (args: string[]) => {
  const { code, out } = polydrome([...args, '--json']);
  expect(out.trim().split('\n')).toHaveLength(1);
  return { code, value: JSON.parse(out) as Record<string, unknown> & { error: Record<string, unknown> } };
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

  it('prints for people without --json, errors on the error stream', () => {
    expect(polydrome([...plan, '--from', '2101', '--dial', '112']).out).toMatch(
      /^routed: Emergency 112 through Kestrel Voice\n/,
    );
    const bad = polydrome([...plan, '--from', '9999', '--dial', '112']);
    expect([bad.code, bad.out]).toEqual([2, '']);
    expect(bad.err).toContain('No extension has the digits 9999');
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
