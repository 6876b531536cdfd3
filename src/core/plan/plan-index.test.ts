import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { endsPlan } from '../../../tests/support/ends-plan';
import {
  KINDS,
  OBJECT_KINDS,
  PlanIndex,
  integrityErrors,
  objectsOf,
  planWith,
  referenceFieldsOf,
  type AnyObject,
  type Changed,
  type ObjectKind,
  type Plan,
} from '.';

const whole = endsPlan();
const present = OBJECT_KINDS.filter((k) => objectsOf(whole, k).length > 0);
const ids = present.flatMap((k) => (objectsOf(whole, k) as AnyObject[]).map((o) => o.id));
const digits = present.flatMap((k) =>
  (objectsOf(whole, k) as { digits?: string | null }[]).flatMap((o) => (o.digits ? [o.digits] : [])),
);
const e164s = whole.numbers.map((n) => n.e164);

type Loose = Record<string, unknown>;

/** An edit that may break the plan: a reference elsewhere, digits or a number that another has, a range, a map, an end. */
const anyEdit: fc.Arbitrary<Changed> = fc
  .record({
    kind: fc.constantFrom(...present),
    at: fc.nat(),
    field: fc.nat(),
    what: fc.constantFrom('refer', 'digits', 'delete', 'copy', 'range', 'map', 'rename', 'organisation', 'space'),
    id: fc.constantFrom(...ids, 'nothing'),
    digits: fc.constantFrom(...digits, '7777', '2102', null),
    e164: fc.constantFrom(...e164s, '+441632960777'),
    from: fc.integer({ min: 2000, max: 5200 }),
    map: fc.constantFrom('9x.', '2101', '(1|2)x{3,9}', '90[1-8]x{8,9}'),
  })
  .map((r): Changed => {
    if (r.what === 'organisation' || r.what === 'space') {
      const organisation = {
        ...whole.organisation,
        ...(r.what === 'space'
          ? { numberSpace: 'site' as const }
          : { [r.at % 2 ? 'blockedLeadTo' : 'withheldLeadTo']: r.id }),
      };
      return { kind: 'organisation', id: 'organisation', value: organisation };
    }
    const list = objectsOf(whole, r.kind) as AnyObject[];
    const object = list[r.at % list.length]!;
    const change = (value: Loose): Changed => ({
      kind: r.kind,
      id: object.id,
      value: { ...object, ...value } as unknown as AnyObject,
    });
    switch (r.what) {
      case 'delete':
        return { kind: r.kind, id: object.id, value: null };
      case 'copy':
        return {
          kind: r.kind,
          id: r.id === 'nothing' ? 'copied' : r.id,
          value: { ...object, id: r.id === 'nothing' ? 'copied' : r.id },
        };
      case 'refer': {
        const fields = referenceFieldsOf(r.kind);
        if (fields.length === 0) return change({});
        const { field } = fields[r.field % fields.length]!;
        return change({ [field]: Array.isArray((object as unknown as Loose)[field]) ? [r.id] : r.id });
      }
      case 'digits':
        if ('e164' in object) return change({ e164: r.e164 });
        return change('digits' in object ? { digits: r.digits ?? object.digits } : {});
      case 'range':
        return change('ranges' in object ? { ranges: [{ from: String(r.from), to: String(r.from + 99) }] } : {});
      case 'map':
        return change('map' in object ? { map: r.map } : {});
      default:
        return change('name' in object ? { name: 'Renamed' } : {});
    }
  });

const edits = fc.uniqueArray(anyEdit, { maxLength: 4, minLength: 1, selector: (e) => e.id });

/** What is wrong, by object and code, whichever way it was found and wherever it is said. */
function byObject(after: Plan, path: string, made: readonly Changed[]): string {
  const [list, at] = path.split('.');
  if (list === 'edits') return made[Number(at)]!.id;
  if (list === 'organisation' || !list) return 'organisation';
  const kind = OBJECT_KINDS.find((k) => KINDS[k].list === list)!;
  return (objectsOf(after, kind) as AnyObject[])[Number(at)]?.id ?? at!;
}

/** Whoever still refers to what is gone says so in one way, what is gone in the other: either names both. */
const STILL = new Set(['still-referred-to', 'no-such-object', 'wrong-kind']);

describe('the index of a plan', () => {
  it('finds an edit wrong exactly where a reading of the whole plan does', () => {
    let broken = 0;
    fc.assert(
      fc.property(edits, (made) => {
        const after = planWith(whole, made);
        const slow = integrityErrors(after);
        const quick = new PlanIndex(whole).errorsOf(after, made);
        expect(quick.length > 0).toBe(slow.length > 0);
        if (slow.length > 0) broken++;
        const own = (list: typeof slow) =>
          [
            ...new Set(
              list
                .filter((e) => !STILL.has(e.code) && !e.code.includes('twice') && e.code !== 'maps-entangled')
                .map((e) => `${e.code} ${byObject(after, e.path, made)}`),
            ),
          ].sort();
        if (new Set(made.map((e) => e.id)).size === made.length) expect(own(quick)).toEqual(own(slow));
      }),
      { numRuns: 1500 },
    );
    // A test in which hardly anything breaks would show nothing.
    expect(broken).toBeGreaterThan(300);
  });

  it('carried along from edit to edit says what one made anew would', () => {
    fc.assert(
      fc.property(fc.array(edits, { minLength: 2, maxLength: 5 }), edits, (steps, last) => {
        let plan = whole;
        const carried = new PlanIndex(whole);
        for (const made of steps) {
          const after = planWith(plan, made);
          if (integrityErrors(after).length > 0) continue;
          carried.advance(after, made);
          plan = after;
        }
        const after = planWith(plan, last);
        const said = (i: PlanIndex) => i.errorsOf(after, last).map((e) => `${e.code} ${e.path} ${e.sentence}`);
        expect(said(carried).sort()).toEqual(said(new PlanIndex(plan)).sort());
        for (const kind of present)
          for (const o of objectsOf(plan, kind) as AnyObject[])
            expect(carried.object(kind as ObjectKind, o.id)).toBe(o);
      }),
      { numRuns: 300 },
    );
  });

  it('reads no more of a large plan for one edit than of a small one', () => {
    const grown = (times: number): Plan => ({
      ...whole,
      extensions: [
        ...whole.extensions,
        ...Array.from({ length: times }, (_, i) => ({
          ...whole.extensions[0]!,
          id: `more-${i}`,
          digits: String(60_000 + i),
        })),
      ].sort((a, b) => (a.id < b.id ? -1 : 1)),
    });
    const stepsOf = (times: number, edit: (plan: Plan) => Changed) => {
      const plan = grown(times);
      const index = new PlanIndex(plan);
      const made = [edit(plan)];
      const after = planWith(plan, made);
      let reads = 0;
      const counted = new Proxy(after, {
        get(target, key) {
          const value = target[key as keyof Plan];
          if (!Array.isArray(value)) return value;
          return new Proxy(value, {
            get(list, at) {
              if (typeof at === 'string' && /^\d+$/.test(at)) reads++;
              const found = Reflect.get(list, at) as unknown;
              return typeof found === 'function'
                ? (found as () => unknown).bind(
                    counted ? new Proxy(list, { get: (l, k) => (reads++, Reflect.get(l, k)) }) : list,
                  )
                : found;
            },
          });
        },
      });
      expect(index.errorsOf(counted, made)).toEqual([]);
      return reads;
    };
    const rename = (plan: Plan): Changed => {
      const e = plan.extensions.find((x) => x.id === 'e1')!;
      return { kind: 'extension', id: e.id, value: { ...e, digits: '59999' } };
    };
    const widen = (plan: Plan): Changed => {
      const s = plan.sites.find((x) => x.id === 'quay')!;
      return { kind: 'site', id: s.id, value: { ...s, ranges: [{ from: '2000', to: '2999' }] } };
    };
    for (const edit of [rename, widen]) expect(stepsOf(4000, edit)).toBe(stepsOf(10, edit));
  });
});

describe('an index that was away for several edits', () => {
  it('holds nothing of what was changed and then deleted', () => {
    const [code] = whole.serviceCodes;
    const noted = { ...code!, note: 'changed' } as unknown as AnyObject;
    const gone: Changed[] = [
      { kind: 'serviceCode', id: code!.id, value: noted },
      { kind: 'serviceCode', id: code!.id, value: null },
    ];
    const index = new PlanIndex(whole);
    const after = planWith(planWith(whole, [gone[0]!]), [gone[1]!]);
    index.advance(after, gone);
    expect(index.get(code!.id)).toBeUndefined();
    const another = { ...code!, id: 'another' } as unknown as AnyObject;
    const again: Changed[] = [{ kind: 'serviceCode', id: 'another', value: another }];
    expect(index.errorsOf(planWith(after, again), again)).toEqual([]);
  });
});
