import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { endsPlan } from '../../../tests/support/ends-plan';
import { integrityErrors, objectsOf, planWith, type AnyObject, type Changed, type Plan } from '../plan';
import { compile, type Exchange } from '../routing';
import { problemsOf } from '.';
import { remembered } from './remembered';

/* What is remembered from edit to edit is what would be found with nothing remembered. */

describe('what is found of each object of a list', () => {
  interface Thing {
    weight: number;
  }
  const exchangeOf = (things: readonly Thing[], part: object) => ({ things, part }) as unknown as Exchange;
  const begin = () => {
    const asked: Thing[] = [];
    const find = remembered<Thing, string>(
      (x) => (x as unknown as { things: Thing[] }).things,
      (x) => [(x as unknown as { part: object }).part],
      (o, x) => (asked.push(o), `${o.weight} by ${(x as unknown as { part: { name: string } }).part.name}`),
    );
    return { asked, find };
  };
  const step = fc.record({
    act: fc.constantFrom('edit', 'add', 'take', 'swap', 'part'),
    at: fc.nat(20),
    to: fc.nat(20),
  });

  it('equals asking all of them, after any edits', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 12 }), fc.nat(6), (steps, size) => {
        const { find } = begin();
        let things: Thing[] = Array.from({ length: size }, (_, i) => ({ weight: i }));
        let part = { name: 'first' };
        for (const [nth, { act, at, to }] of steps.entries()) {
          const [i, j] = [at % (things.length || 1), to % (things.length || 1)];
          const next = [...things];
          if (act === 'edit' && next[i]) next[i] = { weight: 100 + nth };
          if (act === 'add') next.splice(at % (next.length + 1), 0, { weight: 200 + nth });
          if (act === 'take') next.splice(i, 1);
          if (act === 'swap' && next.length > 1) [next[i], next[j]] = [next[j]!, next[i]!];
          if (act === 'part') part = { name: `part ${nth}` };
          things = next;
          expect(find(exchangeOf(things, part))).toEqual(things.map((t) => `${t.weight} by ${part.name}`));
        }
      }),
    );
  });

  it('asks again just what was edited, and everything when a part is another', () => {
    const { asked, find } = begin();
    const part = { name: 'part' };
    const things = Array.from({ length: 50 }, (_, weight) => ({ weight }));
    find(exchangeOf(things, part));
    asked.length = 0;
    const edited = { weight: 7 };
    find(exchangeOf(things.with(20, edited), part));
    find(exchangeOf(things, part));
    expect(asked).toEqual([edited]);
    find(exchangeOf(things, { name: 'other' }));
    expect(asked.length).toBe(51);
  });
});

describe('problems', () => {
  const KINDS = [
    'extension',
    'mailbox',
    'number',
    'site',
    'hours',
    'prompt',
    'presenceChoice',
    'organisation',
  ] as const;
  const begin = endsPlan((d) => {
    (d as unknown as { presenceChoices: object[] }).presenceChoices = [
      { id: 'pc-bob', extension: 'e2', rule: 'p-meeting', internal: 'mailbox' },
    ];
  });
  const step = fc.record({ kind: fc.constantFrom(...KINDS), nth: fc.nat(30), field: fc.nat(9), to: fc.nat(30) });

  /** An edit of the plan that it may keep, or null. */
  function edited(
    plan: Plan,
    { kind, nth, field, to }: { kind: (typeof KINDS)[number]; nth: number; field: number; to: number },
  ) {
    const list = (kind === 'organisation' ? [{ id: '', ...plan.organisation }] : objectsOf(plan, kind)) as (AnyObject &
      Record<string, unknown>)[];
    const object = list[nth % (list.length || 1)];
    if (!object) return null;
    const ids = [...plan.extensions, ...plan.mailboxes, ...plan.ringGroups].map((o) => o.id);
    const place = ids[to % ids.length]!;
    const number = plan.numbers[to % plan.numbers.length]!.id;
    const changes: Record<(typeof KINDS)[number], Record<string, unknown>[]> = {
      extension: [
        { mailbox: plan.mailboxes[to % plan.mailboxes.length]!.id },
        { mailbox: null },
        { outgoingNumber: number },
        { kind: 'fax' },
      ],
      mailbox: [{ on: to % 2 === 0 }, { full: place }, { owners: [] }],
      number: [{ belongsTo: place }, { trunk: null }, { state: 'reserved' }],
      site: [{ mainNumber: number }, { emergencyCallback: null }],
      hours: [{ weekly: to % 2 ? 'mon-fri 9-12, mon-fri 13-17' : 'mon 9-3' }],
      prompt: [{ text: `For freight press ${to % 10}.` }, { text: '' }],
      presenceChoice: [
        { internal: 'forward', internalTo: place },
        { internal: 'mailbox', internalTo: null },
      ],
      organisation: [{ withheldLeadTo: place }, { withheldLeadTo: null }],
    };
    const change = changes[kind][field % changes[kind].length];
    const after = planWith(plan, [{ kind, id: object.id, value: { ...object, ...change } } as unknown as Changed]);
    return integrityErrors(after).length === 0 ? after : null;
  }

  it('found from edit to edit are those of a copy that nothing is remembered of', () => {
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 8 }), (steps) => {
        let plan = begin;
        let exchange = compile(plan);
        problemsOf(exchange);
        for (const s of steps) {
          const after = edited(plan, s);
          if (!after) continue;
          plan = after;
          exchange = compile(plan, exchange);
          expect(problemsOf(exchange)).toEqual(problemsOf(compile(structuredClone(plan))));
        }
      }),
      { numRuns: 60 },
    );
  });
});
