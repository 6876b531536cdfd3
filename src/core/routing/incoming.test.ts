import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { compile, trace, type Caller } from '.';
import { smallPlan } from '../../../tests/support/small-plan';

/* E9: random lists of inbound routes against plain regular expressions read top to bottom. */

interface RouteCase {
  called: readonly [string, RegExp];
  calling: readonly [object, RegExp] | null;
  withheld: boolean;
  trunk: 'main' | 'link' | null;
}

const CALLED = [
  ['+441632960100', /^\+441632960100$/],
  ['+44163296010x', /^\+44163296010[0-9]$/],
  ['+4416329601[0-2]x', /^\+4416329601[0-2][0-9]$/],
  ['+441632960103|+441632960101', /^\+44163296010[13]$/],
  ['x{4}', /^[0-9]{4}$/],
  ['2x.', /^2[0-9]*$/],
] as const;
const CALLING = [
  [{ callingMap: '+46x{6,12}' }, /^\+46[0-9]{6,12}$/],
  [{ callingMap: '+44x.' }, /^\+44[0-9]*$/],
  [{ callingCountries: ['SE', 'FR'] }, /^\+(46|33)/],
  // One calling code, several countries: +44 1481 is Guernsey.
  [{ callingCountries: ['GB'] }, /^\+44(?!1481)/],
  [{ callingNumbers: ['+33123456789', '+441632960998'] }, /^\+(33123456789|441632960998)$/],
  [{ callingCountries: ['GG'], callingNumbers: ['+33123456789'] }, /^\+(33123456789|441481\d+)$/],
  [{ callingMap: '+46x.', callingNumbers: ['+441632960998'] }, /^\+(46\d*|441632960998)$/],
] as const;

const routeCase: fc.Arbitrary<RouteCase> = fc.record({
  called: fc.constantFrom(...CALLED),
  calling: fc.option(fc.constantFrom(...CALLING), { nil: null }),
  withheld: fc.boolean(),
  trunk: fc.constantFrom('main', 'link', null, null),
});

const callers = fc.constantFrom(null, '+46313900610', '+441632960998', '+33123456789', '+441481256789');
const calls = fc.oneof(
  fc.record({
    trunk: fc.constant('main'),
    delivered: fc.constantFrom('01632960100', '01632960101', '01632960103'),
    e164: fc.constant(true),
    calling: callers,
  }),
  fc.record({
    trunk: fc.constant('link'),
    delivered: fc.constantFrom('2101', '3999', '21'),
    e164: fc.constant(false),
    calling: callers,
  }),
);

function fits(r: RouteCase, trunk: string, called: string, calling: string | null): boolean {
  if (r.trunk !== null && r.trunk !== trunk) return false;
  if (!r.called[1].test(called)) return false;
  if (calling === null) return r.withheld || r.calling === null;
  if (r.calling) return r.calling[1].test(calling);
  return !r.withheld;
}

describe('E9: inbound routes, read top to bottom', () => {
  it('the first that fits called number, caller and trunk decides; then the direct number; then the otherwise', () => {
    fc.assert(
      fc.property(fc.array(routeCase, { maxLength: 5 }), calls, (routes, call) => {
        const exchange = compile(
          smallPlan((d) => {
            d.inboundRoutes = routes.map((r, i) => ({
              id: `r${i}`,
              position: i,
              name: `R${i}`,
              calledMap: r.called[0],
              ...(r.calling?.[0] as object),
              callingWithheld: r.withheld,
              trunk: r.trunk,
              leadsTo: 'box',
            }));
          }),
        );
        const from: Caller = { type: 'trunk', id: call.trunk, calling: call.calling };
        const t = trace(exchange, { from, dial: call.delivered, enBloc: true, at: 0 }, {}, true);
        const called = call.e164 ? `+44${call.delivered.slice(1)}` : call.delivered;
        const winner = routes.findIndex((r) => fits(r, call.trunk, called, call.calling));
        const expected = winner >= 0 ? `r${winner}` : called === '+441632960101' ? 'n101' : 'otherwise';
        expect(t.rule).toBe(expected);
        expect(t.outcome).toBe(expected === 'otherwise' ? 'unroutable' : 'routed');
        // Every route above the winner says why it did not fit.
        const said = t.steps.flatMap((s) => s.notTaken).filter((n) => n.code !== 'stands-lower');
        expect(said.map((n) => n.rule)).toEqual(
          routes.slice(0, winner >= 0 ? winner : undefined).map((_, i) => `r${i}`),
        );
        // And what would have taken it stands below it.
        const lower = t.steps.flatMap((s) => s.notTaken).filter((n) => n.code === 'stands-lower');
        const others = routes.flatMap((r, i) =>
          winner >= 0 && i > winner && fits(r, call.trunk, called, call.calling) ? [`r${i}`] : [],
        );
        expect(lower.map((n) => n.rule)).toEqual(others);
      }),
      { numRuns: 400 },
    );
  });

  it.each([
    ['plus', null, '', '+441632960101'],
    ['digits', null, '', '441632960101'],
    ['national', 11, '', '01632960101'],
    ['significant', null, '', '1632960101'],
    ['subscriber', 6, '', '960101'],
    ['significant', 3, '1632960', '101'],
    ['plus', 4, '+44163296', '0101'],
  ])('reads what a trunk delivers as %s, %s digits after %j', (form, length, head, delivered) => {
    const exchange = compile(
      smallPlan((d) => {
        Object.assign(d.trunks[0]!, { deliveredForm: form, deliveredLength: length, deliveredHead: head });
        d.inboundRoutes = [];
      }),
    );
    const direct = trace(exchange, {
      from: { type: 'trunk', id: 'main', calling: null },
      dial: delivered,
      enBloc: true,
      at: 0,
    });
    expect([direct.e164, direct.rule, direct.doubts]).toEqual(['+441632960101', 'n101', []]);
    // From outside the exchange works out what the trunk would deliver: the same call.
    const outside = trace(exchange, {
      from: { type: 'outside', calling: null },
      dial: '+44 1632 960101',
      enBloc: true,
      at: 0,
    });
    expect(outside.steps[0]!.in).toBe(delivered);
    expect(outside.rule).toBe('n101');
  });

  it('blocked callers go first: of the organisation, then of the site, where the plan says', () => {
    const exchange = compile(
      smallPlan((d) => {
        d.organisation.blockedCallers = '+461x{6,12}';
        Object.assign(d.sites[0]!, { blockedCallers: '+46x{6,12}', blockedLeadTo: 'box' });
      }),
    );
    const ask = (calling: string) =>
      trace(exchange, { from: { type: 'trunk', id: 'main', calling }, dial: '01632960101', enBloc: true, at: 0 });
    expect(ask('+46131234567')).toMatchObject({ outcome: 'refused', rule: 'blocked' });
    expect(ask('+46313900610')).toMatchObject({ outcome: 'routed', rule: 'blocked', lands: { id: 'box' } });
    expect(ask('+441632960998')).toMatchObject({ outcome: 'routed', rule: 'n101' });
  });

  it('an emergency callback reaches the phone that called, for sixty minutes', () => {
    const exchange = compile(smallPlan((d) => Object.assign(d.sites[0]!, { emergencyCallback: 'n101' })));
    const at = Date.UTC(2026, 10, 23, 12);
    const ask = (minutes: number) =>
      trace(
        exchange,
        {
          from: { type: 'trunk', id: 'main', calling: null },
          dial: '01632960101',
          enBloc: true,
          at: at + minutes * 60_000,
        },
        { emergencyCalls: [{ extension: 'e3', shownNumber: '+441632960101', at: new Date(at).toISOString() }] },
      );
    expect([0, 59, 60, 61].map((m) => ask(m).lands?.id)).toEqual(['e3', 'e3', 'e3', 'box']);
  });
});
