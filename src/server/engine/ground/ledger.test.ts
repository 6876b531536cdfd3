import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { endsPlan } from '../../../../tests/support/ends-plan';
import { LEDGER_KINDS, RowVersions, planWith, type AnyObject, type Changed, type Plan } from '@/core/plan';
import { compile } from '@/core/routing';
import { READY_ROLES, type Actor } from '../../access/rights';
import type { HeldPlan } from './held';
import { fitting } from './ledger';

const owner = { role: READY_ROLES[0]! } as Actor;
const start = endsPlan();

function held(plan: Plan, before: HeldPlan | null): HeldPlan {
  const exchange = compile(plan, before?.exchange() ?? null);
  return { plan, rowVersions: new RowVersions(), version: 1, exchange: () => exchange, compiled: () => exchange };
}

const change = (kind: Changed['kind'], id: string, list: readonly AnyObject[], more: object): Changed => {
  const object = list.find((o) => o.id === id);
  return { kind, id, value: object ? ({ ...object, ...more } as unknown as AnyObject) : null };
};

/** Edits of what rows show, by themselves or through what they refer to. */
const anyEdit = fc.oneof(
  fc.tuple(fc.constantFrom('e1', 'e2', 'e3', 'x-joan'), fc.string({ minLength: 1, maxLength: 4 })).map(
    ([id, name]) =>
      (p: Plan) =>
        change('extension', id, p.extensions, { name }),
  ),
  fc.tuple(fc.constantFrom('ann', 'bob', 'joan'), fc.constantFrom<string[]>([], ['sales'])).map(
    ([id, teams]) =>
      (p: Plan) =>
        change('person', id, p.people, { teams }),
  ),
  fc.constantFrom('Quay', 'Harbour', 'Ånäs').map((name) => (p: Plan) => change('site', 'quay', p.sites, { name })),
  fc.constantFrom('Sales', 'Trade').map((name) => (p: Plan) => change('team', 'sales', p.teams, { name })),
  fc
    .constantFrom('e1', 'menu', null)
    .map((belongsTo) => (p: Plan) => change('number', 'n111', p.numbers, { belongsTo })),
  fc.constantFrom('Main', 'Carrier').map((name) => (p: Plan) => change('trunk', 'main', p.trunks, { name })),
  fc
    .constantFrom('+4416329601xx', '+44163296010x')
    .map((calledMap) => (p: Plan) => change('inboundRoute', 'r-calling', p.inboundRoutes, { calledMap })),
  fc.nat(3).map((i) => (p: Plan): Changed => {
    const id = `new-${i}`;
    const there = p.people.some((x) => x.id === id);
    return { kind: 'person', id, value: there ? null : { ...p.people[0]!, id, name: `New ${i}` } };
  }),
);

describe('the index of a ledger', () => {
  it('carried along from edit to edit has the rows that one made anew has, in their order', () => {
    fc.assert(
      fc.property(fc.array(anyEdit, { minLength: 1, maxLength: 6 }), fc.constantFrom('', '-name'), (edits, sort) => {
        let carried = held(start, null);
        for (const kind of LEDGER_KINDS)
          fitting(owner, { draft: carried, live: carried }, kind, { sort: '', filter: '', facets: {} });
        for (const edit of edits) {
          carried = held(planWith(carried.plan, [edit(carried.plan)]), carried);
          const anew = held(structuredClone(carried.plan), null);
          for (const kind of LEDGER_KINDS) {
            const ask = { sort: kind === 'number' ? '' : sort, filter: '', facets: {} };
            const rows = (of: HeldPlan) =>
              fitting(owner, { draft: of, live: of }, kind, ask).map((e) => [e.id, e.cells]);
            expect(rows(carried)).toEqual(rows(anew));
          }
        }
      }),
      { numRuns: 60 },
    );
  });
});
