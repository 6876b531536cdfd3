import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { CallKind } from '../numbers';
import { compile, trace, type Situation } from '.';
import { smallPlan } from '../../../tests/support/small-plan';

/* E6: what a class allows, for each kind of call, dialled and forwarded. */

/** Digits that reach each kind from the British site, by rules that take everything. */
const DIALLED: Partial<Record<CallKind, string>> = {
  service: '9101',
  local: '901632960150',
  national: '902079460000',
  mobile: '907400123456',
  freephone: '908081570100',
  'shared-cost': '903069990000',
  premium: '909098790000',
  international: '90046313900610',
  satellite: '900882161234567',
  unknown: '90100000000',
  private: '7042',
};
const KINDS = Object.keys(DIALLED) as (CallKind & keyof typeof DIALLED)[];

interface Right {
  allow: boolean;
  pin: boolean;
  forward: boolean;
}
const rights = fc.record(
  Object.fromEntries(
    KINDS.map((k) => [k, fc.record({ allow: fc.boolean(), pin: fc.boolean(), forward: fc.boolean() })]),
  ),
) as fc.Arbitrary<Record<string, Right>>;

function exchangeFor(of: Record<string, Right>) {
  return compile(
    smallPlan((d) => {
      d.classes[0]!.rights = {
        internal: { allow: true, pin: false, forward: false },
        ...of,
      } as (typeof d.classes)[0]['rights'];
      d.rungs = [
        {
          id: 'abroad',
          ladder: 'out',
          position: 1,
          name: 'Abroad',
          map: '900x{6,13}',
          strip: 3,
          reading: 'international',
          trunks: ['main'],
        },
        {
          id: 'home',
          ladder: 'out',
          position: 2,
          name: 'Home',
          map: '9(101|0x{9,10})',
          strip: 1,
          asDialled: true,
          trunks: ['main'],
        },
        {
          id: 'private',
          ladder: 'out',
          position: 3,
          name: 'Private',
          map: '70x{2}',
          reading: 'private',
          trunks: ['main'],
        },
      ];
    }),
  );
}

describe('E6: class of service', () => {
  it('allows, asks for a PIN or refuses each kind, and decides forwarding apart from calling', () => {
    fc.assert(
      fc.property(rights, fc.constantFrom(...KINDS), fc.boolean(), (of, kind, pin) => {
        const exchange = exchangeFor(of);
        const right = of[kind]!;
        const situation: Situation = pin ? { pin: '4711' } : {};
        const called = trace(
          exchange,
          { from: { type: 'extension', id: 'e1' }, dial: DIALLED[kind]!, enBloc: true, at: 0 },
          situation,
        );
        const allowed = right.allow && (!right.pin || pin);
        expect([called.kind, called.outcome]).toEqual([kind, allowed ? 'routed' : 'refused']);
        if (!allowed) expect(called.cause).toEqual({ q850: 21, sip: 403 });

        const forwarded = trace(
          exchange,
          { from: { type: 'extension', id: 'e2' }, dial: '2101', enBloc: true, at: 0 },
          { forwarding: [{ extension: 'e1', when: 'always', to: DIALLED[kind]! }] },
        );
        // For a colleague the owner's own right is asked, without its PIN.
        expect([forwarded.kind, forwarded.outcome]).toEqual([kind, right.allow ? 'routed' : 'refused']);
      }),
      { numRuns: 300 },
    );
  });

  it('has no say in emergency calls', () => {
    const nothing = Object.fromEntries(KINDS.map((k) => [k, { allow: false, pin: false, forward: false }]));
    const exchange = compile(
      smallPlan((d) => {
        d.classes[0]!.rights = nothing as unknown as (typeof d.classes)[0]['rights'];
      }),
    );
    for (const dial of ['999', '112', '9112'])
      expect(trace(exchange, { from: { type: 'extension', id: 'e1' }, dial, enBloc: false, at: 0 })).toMatchObject({
        outcome: 'routed',
        kind: 'emergency',
      });
  });

  it('nobody forwards to an emergency number', () => {
    const exchange = compile(smallPlan());
    const t = trace(
      exchange,
      { from: { type: 'extension', id: 'e2' }, dial: '2101', enBloc: true, at: 0 },
      { forwarding: [{ extension: 'e1', when: 'always', to: '999' }] },
    );
    expect(t).toMatchObject({ outcome: 'refused', trunk: null, cause: { q850: 21, sip: 403 } });
  });

  it('transit needs the right on both trunks: the one it came in by and the one it leaves by', () => {
    const ask = (came: boolean, leaves: boolean) => {
      const exchange = compile(
        smallPlan((d) => {
          d.trunks[3]!.transit = came;
          d.trunks[0]!.transit = leaves;
          d.rungs = [
            { id: 'home', ladder: 'out', position: 2, name: 'Home', map: '90x{10}', strip: 1, trunks: ['main'] },
          ];
        }),
      );
      return trace(exchange, {
        from: { type: 'trunk', id: 'link', calling: '+46313900610' },
        dial: '902079460000',
        enBloc: true,
        at: 0,
      }).outcome;
    };
    expect([ask(true, true), ask(true, false), ask(false, true), ask(false, false)]).toEqual([
      'routed',
      'failed',
      'failed',
      'failed',
    ]);
  });
});
