import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeAll, describe, expect, it, jest } from '@jest/globals';
import fc from 'fast-check';
import type { Plan } from '@/core/plan';
import { Client, admin } from '../support/api';

jest.setTimeout(60_000);

/* The API gives the same values as the command line: the live plan saved as a file answers the same questions with the same bytes. */

let boss: Client;
let plan: Plan;
let file: string;
beforeAll(async () => {
  boss = await admin();
  plan = (await boss.get('/plan?of=live')).body as unknown as Plan;
  file = join(mkdtempSync(join(tmpdir(), 'polydrome-same-')), 'live.json');
  writeFileSync(file, JSON.stringify(plan));
});

const AT = '2026-12-04T17:10:00Z';

function questions(): { from: string; dial: string; calling: string | null }[] {
  const phones = plan.extensions.map((e) => e.digits);
  const numbers = plan.numbers.map((n) => n.e164);
  const dials = fc.oneof(
    fc.constantFrom(
      '112',
      '999',
      '9112',
      '2000',
      '7042',
      '90046313900610',
      '901632960150',
      '909098790000',
      '00046313900610',
      '0',
      '9',
    ),
    fc.constantFrom(...phones),
    fc.stringMatching(/^[0-9*#]{1,12}$/),
  );
  const asked = fc.oneof(
    fc.record({ from: fc.constantFrom(...phones), dial: dials, calling: fc.constant(null) }),
    fc.record({
      from: fc.constantFrom('outside:+46846500417', 'withheld', 'outside:+441632960998'),
      dial: fc.constantFrom(...numbers),
      calling: fc.constant(null),
    }),
    fc.record({
      from: fc.constantFrom(...plan.trunks.map((t) => `trunk:${t.id}`)),
      dial: fc.stringMatching(/^[0-9]{1,11}$/),
      calling: fc.constantFrom(null, '+46846500417'),
    }),
  );
  return fc.sample(asked, { numRuns: 150, seed: 11 });
}

describe('API and command line', () => {
  it('answer 150 questions with the same values', async () => {
    const asked = questions();
    const lines = asked.map((q) =>
      JSON.stringify([
        'trace',
        '--plan',
        file,
        '--from',
        q.from,
        '--dial',
        q.dial,
        '--at',
        AT,
        ...(q.calling ? ['--calling', q.calling] : []),
      ]),
    );
    const ran = spawnSync('./bin/polydrome', ['batch'], { input: lines.join('\n'), encoding: 'utf8', maxBuffer: 1e8 });
    expect(ran.status).toBe(0);
    const said = ran.stdout.trim().split('\n');
    expect(said).toHaveLength(asked.length);
    const outcomes = new Set<string>();
    for (const [i, q] of asked.entries()) {
      const { body } = await boss.post('/trace', { ...q, at: AT, of: 'live', situation: {} });
      const { at, ...answer } = body;
      expect(at).toBe('2026-12-04T17:10:00.000Z');
      expect(answer).toEqual(JSON.parse(said[i]!));
      outcomes.add(String(answer.outcome));
    }
    expect([...outcomes].sort()).toEqual(expect.arrayContaining(['incomplete', 'routed', 'unroutable']));
  });

  it('ask the same in draft, live and a revision by number', async () => {
    const { revision } = (await boss.get<{ revision: number }>('/health')).body;
    const ask = async (of: string) => (await boss.get(`/trace?from=2101&dial=999&at=${AT}&of=${of}`)).body;
    expect(await ask(String(revision))).toEqual(await ask('live'));
    expect((await ask('draft')).outcome).toBe('routed');
  });
});
