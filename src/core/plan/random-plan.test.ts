import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { lanternfold } from '../../../demo/lanternfold';
import {
  OBJECT_KINDS,
  KINDS,
  changedFields,
  differences,
  integrityErrors,
  objectsOf,
  planText,
  readPlan,
  referrersTo,
  referenceFieldsOf,
  type ObjectKind,
  type Plan,
} from '.';

const read = readPlan(lanternfold());
if (!read.ok) throw new Error('demo');
const demo = read.plan;

const anyObject = fc
  .constantFrom(...OBJECT_KINDS.filter((k) => objectsOf(demo, k).length > 0))
  .chain((kind) => fc.record({ kind: fc.constant(kind), index: fc.nat(objectsOf(demo, kind).length - 1) }));

function without(plan: Plan, kind: ObjectKind, id: string): Plan {
  return { ...plan, [KINDS[kind].list]: objectsOf(plan, kind).filter((o) => o.id !== id) };
}

describe('plans', () => {
  it('losing one object are broken exactly where something referred to it', () => {
    fc.assert(
      fc.property(anyObject, ({ kind, index }) => {
        const { id } = objectsOf(demo, kind)[index]!;
        const errors = integrityErrors(without(demo, kind, id));
        const referrers = referrersTo(demo, id);
        expect(errors.filter((e) => e.code === 'no-such-object').length).toBe(referrers.length);
        expect(errors.every((e) => e.code === 'no-such-object' && e.sentence.includes(id))).toBe(true);
      }),
      { numRuns: 200 },
    );
  });

  it('differ in exactly the objects and fields that were changed', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(anyObject, { minLength: 1, maxLength: 5, selector: (o) => `${o.kind} ${o.index}` }),
        (changed) => {
          const plan = structuredClone(demo);
          for (const { kind, index } of changed) (objectsOf(plan, kind)[index] as { note: string }).note = 'changed';
          const found = differences(demo, plan);
          expect(found.map((d) => `${d.kind} ${d.id}`).sort()).toEqual(
            changed.map(({ kind, index }) => `${kind} ${objectsOf(demo, kind)[index]!.id}`).sort(),
          );
          for (const d of found) expect(changedFields(d.before, d.after)).toEqual(['note']);
          expect(differences(plan, demo).length).toBe(found.length);
        },
      ),
      { numRuns: 100 },
    );
  });

  it('have the same text whatever order their lists and keys are in, and another when anything differs', () => {
    const text = planText(demo);
    fc.assert(
      fc.property(fc.integer(), anyObject, (seed, { kind, index }) => {
        const shuffled = structuredClone(demo) as unknown as Record<string, unknown>;
        for (const k of OBJECT_KINDS) {
          const list = shuffled[KINDS[k].list] as object[];
          list.sort((a, b) => hash(seed, a) - hash(seed, b));
          shuffled[KINDS[k].list] = list.map((o) => Object.fromEntries(Object.entries(o).reverse()));
        }
        expect(planText(shuffled as unknown as Plan)).toBe(text);
        const other = structuredClone(demo);
        (objectsOf(other, kind)[index] as { note: string }).note += '!';
        expect(planText(other)).not.toBe(text);
      }),
      { numRuns: 8 },
    );
  });

  it('are read back from their own text', () => {
    const again = readPlan(JSON.parse(planText(demo)));
    expect(again.ok && planText(again.plan)).toBe(planText(demo));
  });

  it('survive any one value turned into nonsense: read whole, or refused with a path to it', () => {
    fc.assert(
      fc.property(
        anyObject,
        fc.nat(40),
        fc.constantFrom<unknown>(null, -1, '', 'x'.repeat(5000), {}, [], true, '\u0000', 1e308),
        ({ kind, index }, field, nonsense) => {
          const plan = structuredClone(demo) as unknown as Record<string, Record<string, unknown>[]>;
          const object = plan[KINDS[kind].list]![index]!;
          const key = Object.keys(object)[field % Object.keys(object).length]!;
          object[key] = nonsense;
          const result = readPlan(plan);
          if (result.ok) return;
          expect(result.errors.length).toBeGreaterThan(0);
          for (const e of result.errors) {
            expect(e.sentence).toMatch(/\S.*\.$/);
            // Wherever the damage shows, the path leads to a place that exists.
            const [list, at] = e.path.split('.');
            expect(plan).toHaveProperty(list!);
            if (at !== undefined && list !== 'organisation') expect(plan[list!]![Number(at)]).toBeDefined();
          }
        },
      ),
      { numRuns: 200 },
    );
  });

  it('every reference field names a kind that exists', () => {
    for (const kind of OBJECT_KINDS)
      for (const f of referenceFieldsOf(kind))
        expect(f.ref === 'destination' || (OBJECT_KINDS as readonly string[]).includes(f.ref)).toBe(true);
  });
});

function hash(seed: number, object: object): number {
  let h = seed | 0;
  for (const c of (object as { id: string }).id) h = Math.imul(h ^ c.charCodeAt(0), 0x5bd1e995);
  return h;
}
