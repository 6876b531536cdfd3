import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { compile, trace, type ForwardWhen, type Situation, type Trace } from '.';
import { smallPlan } from '../../../tests/support/small-plan';

/* E11, E13: who gets the call and what follows, against a plain simulation of phones that forward to each other. */

interface Phone {
  mailbox: boolean;
  rings: number;
  state: 'free' | 'busy' | 'off' | 'dnd' | 'virtual';
  forwards: Partial<Record<ForwardWhen, number>>;
}

const COUNT = 4;
const target = fc.option(fc.integer({ min: 0, max: COUNT - 1 }), { nil: undefined, freq: 3 });
const phone: fc.Arbitrary<Phone> = fc.record({
  mailbox: fc.boolean(),
  rings: fc.integer({ min: 5, max: 30 }),
  state: fc.constantFrom('free', 'free', 'free', 'busy', 'off', 'dnd', 'virtual'),
  forwards: fc.record({
    always: fc.option(fc.integer({ min: 0, max: COUNT - 1 }), { nil: undefined, freq: 8 }),
    busy: target,
    'no answer': target,
    unreachable: target,
  }),
});

interface Expected {
  outcome: string;
  lands: string | null;
  then: [string, number][];
}

/** The same rules said once more, without the engine: follow the call until it rests, note who would take it. */
function simulate(phones: Phone[]): Expected {
  let at = 0;
  let here = 0;
  let lands: string | null = null;
  const then: [string, number][] = [];
  const met = new Set<number>();
  const offer = (end: string) => {
    if (lands === null) lands = end;
    else then.push([end, at]);
  };
  const ends = (outcome: string, tone: string): Expected =>
    lands === null ? { outcome, lands: null, then } : { outcome: 'routed', lands, then: [...then, [tone, at]] };
  for (let hops = 0; ; hops++) {
    if (hops > 20) return ends('loop', 'released, cause 25');
    if (met.has(here)) return ends('loop', 'released, cause 25');
    met.add(here);
    const p = phones[here]!;
    let when: ForwardWhen;
    let cause: number;
    if (p.forwards.always !== undefined) [when, cause] = ['always', 17];
    else if (p.state === 'dnd') [when, cause] = ['busy', 17];
    else if (p.state === 'virtual' || p.state === 'off') [when, cause] = ['unreachable', 20];
    else if (p.state === 'busy') [when, cause] = ['busy', 17];
    else {
      offer(`phone ${here}`);
      at += p.rings;
      met.clear();
      [when, cause] = ['no answer', 19];
    }
    const next = p.forwards[when];
    if (next !== undefined) {
      here = next;
      continue;
    }
    if (!p.mailbox) return ends('failed', `released, cause ${cause}`);
    offer(`box ${here}`);
    return { outcome: 'routed', lands, then };
  }
}

function build(phones: Phone[]) {
  const exchange = compile(
    smallPlan((d) => {
      d.mailboxes = phones.map((_, i) => ({ id: `box-${i}`, name: `box ${i}`, site: 'quay' }));
      d.extensions = [
        { id: 'caller', digits: '2900', name: 'Caller', kind: 'place', site: 'quay', class: 'staff' },
        ...phones.map((p, i) => ({
          id: `p${i}`,
          digits: `210${i}`,
          name: `phone ${i}`,
          kind: p.state === 'virtual' ? 'virtual' : 'place',
          site: 'quay',
          class: 'staff',
          ringSeconds: p.rings,
          mailbox: p.mailbox ? `box-${i}` : null,
        })),
      ];
      d.numbers = d.numbers.map((n) => ({ ...n, belongsTo: null }));
      d.inboundRoutes = [];
    }),
  );
  const ids = (state: Phone['state']) => phones.flatMap((p, i) => (p.state === state ? [`p${i}`] : []));
  const forwarding = phones.flatMap((p, i) =>
    (Object.entries(p.forwards) as [ForwardWhen, number | undefined][]).flatMap(([when, to]) =>
      to === undefined ? [] : [{ extension: `p${i}`, when, to: `210${to}` }],
    ),
  );
  const situation: Situation = { busy: ids('busy'), off: ids('off'), doNotDisturb: ids('dnd'), forwarding };
  return { exchange, situation };
}

const nameOf = (l: Trace['lands']) => l && (l.kind === 'extension' ? l.label.replace(/^\d+ /, '') : l.label);

describe('E11, E13: where a call lands and what follows', () => {
  it('as a plain simulation of forwarding, states and mailboxes says', () => {
    fc.assert(
      fc.property(fc.array(phone, { minLength: COUNT, maxLength: COUNT }), (phones) => {
        const { exchange, situation } = build(phones);
        const t = trace(
          exchange,
          { from: { type: 'extension', id: 'caller' }, dial: '2100', enBloc: true, at: 0 },
          situation,
        );
        const e = simulate(phones);
        expect({
          outcome: t.outcome,
          lands: nameOf(t.lands),
          then: t.then.map((x) => [nameOf(x.lands), x.afterSeconds]),
        }).toEqual(e);
      }),
      { numRuns: 1500 },
    );
  });

  it('times in the steps never run backwards, and every step is a sentence', () => {
    fc.assert(
      fc.property(fc.array(phone, { minLength: COUNT, maxLength: COUNT }), (phones) => {
        const { exchange, situation } = build(phones);
        const { steps } = trace(
          exchange,
          { from: { type: 'extension', id: 'caller' }, dial: '2100', enBloc: false, at: 0 },
          situation,
        );
        steps.forEach((s, i) => {
          if (i > 0) expect(s.atSeconds).toBeGreaterThanOrEqual(steps[i - 1]!.atSeconds);
          expect(s.sentence).toMatch(/^\S.*\.$/);
        });
      }),
      { numRuns: 200 },
    );
  });
});
