import { describe, expect, it } from '@jest/globals';
import { compile, isFor, mayWatch, trace } from '.';
import { endsPlan } from '../../../tests/support/ends-plan';

/* E6: whom one may watch, and rules for and against teams. */

const withWatch = (watch: string, more: object = {}) =>
  compile(endsPlan((d) => Object.assign(d.classes[0]!, { watch, ...more })));
const AT = Date.parse('2026-12-04T10:00:00Z');

describe('E6: watching rights are rights of their own', () => {
  it.each([
    ['nobody', {}, 'x-joan', 'x-yuki', false],
    ['everyone', {}, 'x-joan', 'e6', true],
    ['own site', {}, 'x-joan', 'x-yuki', true],
    ['own site', {}, 'x-joan', 'x-john', false],
    ['own team', {}, 'x-joan', 'x-yuki', false],
    ['list', { watchPeople: ['yuki'] }, 'x-joan', 'x-yuki', true],
    ['list', { watchTeams: ['sales'] }, 'x-yuki', 'x-joan', true],
    ['list', { watchTeams: ['sales'] }, 'x-yuki', 'x-john', false],
  ] as const)('%s %j: %s watches %s: %s', (watch, more, a, b, may) => {
    const exchange = withWatch(watch, more);
    const found = mayWatch(exchange, exchange.extensions.get(a)!, exchange.extensions.get(b)!);
    expect(found.may).toBe(may);
    expect(found.why).toMatch(/^Class Staff lets .* watch .*\.$/);
  });

  it('a team watches its own', () => {
    const exchange = compile(
      endsPlan((d) => {
        Object.assign(d.classes[0]!, { watch: 'own team' });
        Object.assign(
          d.people.find((p) => p.id === 'yuki')!,
          { teams: ['sales'] },
        );
      }),
    );
    expect(mayWatch(exchange, exchange.extensions.get('x-joan')!, exchange.extensions.get('x-yuki')!).may).toBe(true);
    expect(mayWatch(exchange, exchange.extensions.get('x-joan')!, exchange.extensions.get('e3')!).may).toBe(false);
  });
});

describe('E6: rules for and not for teams', () => {
  const ask = (exchange: ReturnType<typeof compile>, id: string) =>
    trace(exchange, { from: { type: 'extension', id }, dial: '901632960150', enBloc: false, at: AT });
  it('a rule for a team fits its people only', () => {
    const exchange = compile(
      endsPlan((d) =>
        Object.assign(
          d.rungs.find((r) => r.id === 'covered')!,
          { position: 0, forTeams: ['sales'] },
        ),
      ),
    );
    expect(ask(exchange, 'x-joan').rule).toBe('covered');
    expect(ask(exchange, 'x-yuki').rule).toBe('national');
    const rung = exchange.plan.rungs.find((r) => r.id === 'covered')!;
    expect(isFor(exchange, rung, { person: 'joan', site: 'pier' })).toBe(true);
    expect(isFor(exchange, rung, { person: null, site: 'quay' })).toBe(false);
  });
  it('a rule not for a team refuses its people and ends the search', () => {
    const exchange = compile(
      endsPlan((d) =>
        Object.assign(
          d.rungs.find((r) => r.id === 'national')!,
          { notForTeams: ['sales'] },
        ),
      ),
    );
    expect(ask(exchange, 'x-joan')).toMatchObject({
      outcome: 'refused',
      rule: 'national',
      cause: { q850: 21, sip: 403 },
    });
    expect(ask(exchange, 'x-yuki').outcome).toBe('routed');
  });
});
