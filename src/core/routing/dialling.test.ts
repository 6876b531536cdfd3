import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { emergencyNumbersOf } from '../numbers';
import { compile, trace, type Exchange, type Trace } from '.';
import { smallPlan } from '../../../tests/support/small-plan';

/* Dialling against an oracle that knows no automata: it lists every string of up to five symbols that each rule takes. */

const SYMBOLS = ['0', '1', '2', '9', '*', '#'];
const LONGEST = 5;
const STRINGS: string[] = [];
for (let ring = ['']; ring[0]!.length < LONGEST;) {
  ring = ring.flatMap((s) => SYMBOLS.map((c) => s + c));
  STRINGS.push(...ring);
}

/** A rule's map of bounded length with its meaning as a regular expression. */
const boundedMap = fc
  .array(
    fc.oneof(
      fc.constantFrom(...['0', '1', '2', '9', '*'].map((c) => [c, c === '*' ? '\\*' : c] as const)),
      fc.constantFrom(
        ['x', '[0-9]'] as const,
        ['[12]', '[12]'] as const,
        ['[0-2]', '[0-2]'] as const,
        ['1{1,2}', '1{1,2}'] as const,
      ),
    ),
    { minLength: 1, maxLength: 3 },
  )
  .map((parts) => ({ map: parts.map((p) => p[0]).join(''), pattern: parts.map((p) => p[1]).join('') }));

const extensionDigits = fc.stringMatching(/^[0129]{1,4}$/);

interface Setup {
  maps: { map: string; pattern: string }[];
  digits: string[];
  prefix: string;
}

const setup: fc.Arbitrary<Setup> = fc.record({
  maps: fc.array(boundedMap, { minLength: 1, maxLength: 4 }),
  digits: fc.uniqueArray(extensionDigits, { minLength: 2, maxLength: 4 }),
  prefix: fc.constantFrom('9', '0', '12'),
});

function build({ maps, digits, prefix }: Setup): Exchange {
  return compile(
    smallPlan((d) => {
      d.sites[0]!.outsidePrefix = prefix;
      d.rungs = maps.map(({ map }, i) => ({
        id: `m${i}`,
        ladder: 'out',
        position: i,
        name: `M${i}`,
        map,
        reading: 'private',
        trunks: ['link'],
      }));
      d.extensions = digits.map((x, i) => ({
        id: `x${i}`,
        digits: x,
        name: `X${i}`,
        kind: 'place',
        site: 'quay',
        class: 'staff',
      }));
      d.numbers = d.numbers.map((n) => ({ ...n, belongsTo: null }));
      d.inboundRoutes = [];
    }),
  );
}

/** Which rule each string means, in the order of E4, as a table. */
function meanings({ maps, digits, prefix }: Setup): Map<string, string> {
  const out = new Map<string, string>();
  const patterns = maps.map((m) => new RegExp(`^(?:${m.pattern})$`));
  const emergency = new Set(emergencyNumbersOf('GB').flatMap((n) => [n, prefix + n]));
  for (const s of STRINGS) {
    const rung = patterns.findIndex((p) => p.test(s));
    const meaning = emergency.has(s)
      ? 'emergency'
      : digits.includes(s)
        ? `x${digits.indexOf(s)}`
        : rung >= 0
          ? `m${rung}`
          : null;
    if (meaning) out.set(s, meaning);
  }
  return out;
}

interface Expected {
  rule: string | null;
  outcome: 'dead' | 'incomplete' | 'taken';
  seconds: number;
}

/** E3 symbol by symbol, from the table alone. */
function oracle(table: Map<string, string>, dial: string): Expected {
  const grows = (s: string) => [...table.keys()].some((k) => k.length > s.length && k.startsWith(s));
  for (let i = 1; i <= dial.length; i++) {
    const s = dial.slice(0, i);
    const before = table.get(s.slice(0, -1));
    const meaning = table.get(s);
    if (meaning === undefined && !grows(s))
      return s.endsWith('#') && before
        ? { rule: before, outcome: 'taken', seconds: 0 }
        : { rule: null, outcome: 'dead', seconds: 0 };
    if (meaning === 'emergency' || (meaning !== undefined && !grows(s)))
      return { rule: meaning, outcome: 'taken', seconds: 0 };
  }
  const meaning = table.get(dial);
  if (dial === '') return { rule: null, outcome: 'incomplete', seconds: 12 };
  return meaning === undefined
    ? { rule: null, outcome: 'incomplete', seconds: 4 }
    : { rule: meaning, outcome: 'taken', seconds: 4 };
}

function got(t: Trace): Expected {
  if (t.steps[0]!.code === 'digits-dead') return { rule: null, outcome: 'dead', seconds: t.secondsWaited };
  if (t.outcome === 'incomplete') return { rule: null, outcome: 'incomplete', seconds: t.secondsWaited };
  return { rule: t.rule, outcome: 'taken', seconds: t.secondsWaited };
}

const dialled = fc.array(fc.constantFrom(...SYMBOLS), { maxLength: 4 }).map((s) => s.join(''));

describe('E3, E4: what a phone dials', () => {
  it('is taken, waited for or refused as a table of all strings says', () => {
    fc.assert(
      fc.property(setup, fc.array(dialled, { minLength: 12, maxLength: 12 }), (s, dials) => {
        const exchange = build(s);
        const table = meanings(s);
        for (const dial of dials) {
          const t = trace(exchange, { from: { type: 'extension', id: 'x0' }, dial, enBloc: false, at: 0 });
          expect({ dial, ...got(t) }).toEqual({ dial, ...oracle(table, dial) });
        }
      }),
      { numRuns: 150 },
    );
  });

  it('sent as one block counts only as an exact string, without a wait', () => {
    fc.assert(
      fc.property(setup, fc.array(dialled, { minLength: 12, maxLength: 12 }), (s, dials) => {
        const exchange = build(s);
        const table = meanings(s);
        for (const dial of dials) {
          const t = trace(exchange, { from: { type: 'extension', id: 'x0' }, dial, enBloc: true, at: 0 });
          expect([dial, t.secondsWaited]).toEqual([dial, 0]);
          expect([dial, t.steps[0]!.code === 'digits-en-bloc' ? t.rule : null]).toEqual([
            dial,
            table.get(dial) ?? null,
          ]);
        }
      }),
      { numRuns: 100 },
    );
  });

  it('the rail tells the state after each symbol, as the table does', () => {
    fc.assert(
      fc.property(setup, dialled, (s, dial) => {
        const exchange = build(s);
        const table = meanings(s);
        const { rail } = trace(exchange, { from: { type: 'extension', id: 'x0' }, dial, enBloc: false, at: 0 });
        rail.forEach((cell, i) => {
          const prefix = dial.slice(0, i + 1);
          const meaning = table.get(prefix);
          const grows = [...table.keys()].some((k) => k.length > prefix.length && k.startsWith(prefix));
          const ended = cell.symbol === '#' && meaning === undefined && !grows && table.has(prefix.slice(0, -1));
          const expected =
            ended || meaning === 'emergency'
              ? 'final'
              : meaning
                ? grows
                  ? 'final-may-grow'
                  : 'final'
                : grows
                  ? 'open'
                  : 'dead';
          expect([prefix, cell.state]).toEqual([prefix, expected]);
        });
      }),
      { numRuns: 150 },
    );
  });
});
