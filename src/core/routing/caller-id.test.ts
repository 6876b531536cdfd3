import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { compile, trace, type Situation } from '.';
import { smallPlan } from '../../../tests/support/small-plan';

/* E8 over every combination of what may be set. */

interface Settings {
  withhold: boolean;
  show: 'usual' | 'hidden' | 'fixed' | 'extension';
  outgoing: boolean;
  assigned: boolean;
  site: boolean;
  trunk: boolean;
}

const settings: fc.Arbitrary<Settings> = fc.record({
  withhold: fc.boolean(),
  show: fc.constantFrom('usual', 'usual', 'hidden', 'fixed', 'extension'),
  outgoing: fc.boolean(),
  assigned: fc.boolean(),
  site: fc.boolean(),
  trunk: fc.boolean(),
});

function exchangeFor(s: Settings, more: (d: ReturnType<typeof documentOf>) => void = () => {}) {
  return compile(
    smallPlan((d) => {
      d.rungs = [
        {
          id: 'r',
          ladder: 'out',
          position: 1,
          name: 'R',
          map: '90x{10}',
          strip: 1,
          trunks: ['main'],
          show: s.show,
          fixedNumber: s.show === 'fixed' ? 'n300' : null,
        },
      ];
      for (const n of d.numbers) n.state = 'active';
      Object.assign(d.extensions[0]!, { outgoingNumber: s.outgoing ? 'n102' : null });
      d.numbers.find((n) => n.id === 'n101')!.belongsTo = s.assigned ? 'e1' : null;
      d.sites[0]!.mainNumber = s.site ? 'n100' : null;
      d.trunks[0]!.ownNumber = s.trunk ? 'n103' : null;
      more(d);
    }),
  );
}
const documentOf = (d: Parameters<NonNullable<Parameters<typeof smallPlan>[0]>>[0]) => d;

const dial = (exchange: ReturnType<typeof compile>, withhold: boolean) =>
  trace(exchange, { from: { type: 'extension', id: 'e1' }, dial: '902079460000', enBloc: true, at: 0, withhold });

describe('E8: the number shown is the first that is set', () => {
  it('in the order of the rule, for every combination', () => {
    fc.assert(
      fc.property(settings, (s) => {
        const order: [boolean, string | null][] = [
          [s.withhold, null],
          [s.show === 'extension', '2101'],
          [s.show === 'hidden', null],
          [s.show === 'fixed', '+441632960300'],
          [s.outgoing, '+441632960102'],
          [s.assigned, '+441632960101'],
          [s.site, '+441632960100'],
          [s.trunk, '+441632960103'],
        ];
        const expected = order.find(([set]) => set)?.[1] ?? null;
        const t = dial(exchangeFor(s), s.withhold);
        expect(t.shownNumber).toBe(expected);
        // n300 is the only one of these that belongs to another trunk.
        expect(t.doubts.length).toBe(expected === '+441632960300' ? 1 : 0);
      }),
      { numRuns: 500 },
    );
  });

  it.each([
    ['plus', '+441632960101'],
    ['digits', '441632960101'],
    ['national', '01632960101'],
    ['significant', '1632960101'],
    ['subscriber', '960101'],
  ])('is written as the trunk wants it: %s', (writes, shown) => {
    const plain: Settings = {
      withhold: false,
      show: 'usual',
      outgoing: false,
      assigned: true,
      site: true,
      trunk: true,
    };
    expect(
      dial(
        exchangeFor(plain, (d) => (d.trunks[0]!.writes = writes)),
        false,
      ).shownNumber,
    ).toBe(shown);
  });

  it('a reserved number is nobody’s own number yet', () => {
    const plain: Settings = {
      withhold: false,
      show: 'usual',
      outgoing: false,
      assigned: true,
      site: true,
      trunk: true,
    };
    const t = dial(
      exchangeFor(plain, (d) => (d.numbers.find((n) => n.id === 'n101')!.state = 'reserved')),
      false,
    );
    expect(t.shownNumber).toBe('+441632960100');
  });

  it('of a forwarded call is the original caller’s only where the trunk permits it', () => {
    const forwarding: Situation = { forwarding: [{ extension: 'e1', when: 'always', to: '902079460000' }] };
    const plain: Settings = { withhold: true, show: 'usual', outgoing: false, assigned: true, site: true, trunk: true };
    const ask = (original: boolean, calling: string | null) => {
      const exchange = exchangeFor(plain, (d) => {
        d.trunks[0]!.showsOriginalCaller = original;
        d.inboundRoutes = [];
      });
      return trace(
        exchange,
        { from: { type: 'trunk', id: 'main', calling }, dial: '01632960101', enBloc: true, at: 0 },
        forwarding,
      );
    };
    expect(ask(true, '+46313900610').shownNumber).toBe('+46313900610');
    expect(ask(true, null).shownNumber).toBeNull();
    expect(ask(false, '+46313900610').shownNumber).toBe('+441632960101');
    expect(ask(false, '+46313900610').steps.map((s) => s.code)).toContain('shown-diverted');
  });
});
