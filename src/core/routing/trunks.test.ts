import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { causeOf, compile, movesOn, trace, type Situation } from '.';
import { smallPlan } from '../../../tests/support/small-plan';

interface TrunkCase {
  enabled: boolean;
  channels: number;
  kept: number;
  up: boolean;
  inUse: number;
  fails: 'no' | 'busy' | 'congested' | 'silent' | 'ringing then congested' | 'refuses us';
}

const trunkCase: fc.Arbitrary<TrunkCase> = fc.record({
  enabled: fc.boolean(),
  channels: fc.integer({ min: 1, max: 4 }),
  kept: fc.integer({ min: 0, max: 3 }),
  up: fc.boolean(),
  inUse: fc.integer({ min: 0, max: 5 }),
  fails: fc.constantFrom('no', 'no', 'no', 'busy', 'congested', 'silent', 'ringing then congested', 'refuses us'),
});

const FAILS = {
  no: undefined,
  busy: { sip: 486 },
  congested: { sip: 503 },
  silent: { noResponse: true },
  'ringing then congested': { sip: 503, afterRinging: true },
  'refuses us': { authentication: true },
} as const;

/** E7 in plain words: which trunk carries the call, and the seconds spent on silent ones. */
function expected(cases: TrunkCase[], emergency: boolean): { trunk: string | null; waited: number; ended: boolean } {
  let waited = 0;
  for (const [i, c] of cases.entries()) {
    if (!c.enabled || !c.up || c.inUse >= c.channels) continue;
    if (!emergency && c.channels - c.kept - c.inUse <= 0) continue;
    if (c.fails === 'no') return { trunk: `t${i}`, waited, ended: false };
    if (c.fails === 'silent') waited += emergency ? 4 : 5;
    const final = c.fails === 'busy' || c.fails === 'ringing then congested';
    if (final && !emergency) return { trunk: null, waited, ended: true };
  }
  return { trunk: null, waited, ended: false };
}

function ask(cases: TrunkCase[], dial: string) {
  const exchange = compile(
    smallPlan((d) => {
      d.trunks = [
        ...cases.map((c, i) => ({
          id: `t${i}`,
          name: `T${i}`,
          kind: 'sip-peer',
          site: 'quay',
          enabled: c.enabled,
          channels: c.channels,
          keptForIncoming: c.kept,
        })),
        ...d.trunks.slice(0, 4),
      ];
      d.sites[0]!.emergencyTrunks = cases.map((_, i) => `t${i}`);
      d.rungs = [
        {
          id: 'r',
          ladder: 'out',
          position: 1,
          name: 'R',
          map: '90x{10}',
          strip: 1,
          trunks: cases.map((_, i) => `t${i}`),
        },
      ];
    }),
  );
  const situation: Situation = {
    trunks: cases.map((c, i) => ({ id: `t${i}`, up: c.up, inUse: c.inUse, fails: FAILS[c.fails] })),
  };
  return trace(exchange, { from: { type: 'extension', id: 'e1' }, dial, enBloc: true, at: 0 }, situation);
}

describe('E7: trunks are tried in order', () => {
  it('the first that can carries an ordinary call; a failure moves on or ends it', () => {
    fc.assert(
      fc.property(fc.array(trunkCase, { minLength: 1, maxLength: 4 }), (cases) => {
        const t = ask(cases, '902079460000');
        const e = expected(cases, false);
        expect({ trunk: t.trunk, waited: t.secondsWaited }).toEqual({ trunk: e.trunk, waited: e.waited });
        expect(t.outcome).toBe(e.trunk ? 'routed' : 'failed');
        if (!e.trunk && !e.ended) expect(t.cause).toEqual({ q850: 34, sip: 503 });
        // Every trunk before the one that took it says why it did not.
        const step = t.steps.find((s) => s.type === 'trunk')!;
        const before = e.trunk ? Number(e.trunk.slice(1)) : step.notTaken.length;
        expect(step.notTaken.map((n) => n.rule)).toEqual(cases.slice(0, before).map((_, i) => `t${i}`));
      }),
      { numRuns: 400 },
    );
  });

  it('E4: an emergency call takes kept channels too, and any failure moves on after 4 s of silence at most', () => {
    fc.assert(
      fc.property(fc.array(trunkCase, { minLength: 1, maxLength: 4 }), (cases) => {
        const t = ask(cases, '999');
        const e = expected(cases, true);
        expect({ trunk: t.trunk, waited: t.secondsWaited, sent: t.digitsSent }).toEqual({
          trunk: e.trunk,
          waited: e.waited,
          sent: e.trunk ? '999' : null,
        });
      }),
      { numRuns: 400 },
    );
  });
});

describe('causes', () => {
  /** RFC 3398 section 8.2.6.1, as published; 408 as ENGINE E7 has it. */
  const TABLE: [number, number][] = [
    [400, 41],
    [401, 21],
    [402, 21],
    [403, 21],
    [404, 1],
    [405, 63],
    [406, 79],
    [407, 21],
    [408, 18],
    [410, 22],
    [413, 127],
    [414, 127],
    [415, 79],
    [416, 127],
    [420, 127],
    [421, 127],
    [423, 127],
    [480, 18],
    [481, 41],
    [482, 25],
    [483, 25],
    [484, 28],
    [485, 1],
    [486, 17],
    [500, 41],
    [501, 79],
    [502, 38],
    [503, 41],
    [504, 102],
    [505, 127],
    [513, 127],
    [600, 17],
    [603, 21],
    [604, 1],
  ];
  it.each(TABLE)('SIP %i is Q.850 %i', (sip, q850) => expect(causeOf({ sip })).toEqual({ q850, sip }));

  it('a Reason header wins over the status; our own timer is 102', () => {
    expect(causeOf({ sip: 503, q850: 17 })).toEqual({ q850: 17, sip: 503 });
    expect(causeOf({ noResponse: true })).toEqual({ q850: 102, sip: 504 });
    expect(causeOf({ q850: 19 })).toEqual({ q850: 19, sip: 480 });
  });

  it('moves on for exactly the causes of E7', () => {
    expect(Array.from({ length: 128 }, (_, i) => i).filter(movesOn)).toEqual([3, 34, 38, 41, 42, 44, 47, 58, 102]);
  });
});
