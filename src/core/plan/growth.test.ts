import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { smallPlan } from '../../../tests/support/small-plan';
import { integrityErrors, type Extension, type Plan, type PlanNumber, type Site } from '.';
import { rangeFaults } from './faults';

/* No check looks at everything for everything: with twice the objects it reads at most a little more than twice as much. */

const base = smallPlan();

/** Counts how often fields of objects are read; nothing of it depends on the clock. */
function counting() {
  const seen = { reads: 0 };
  const counted = <T extends object>(object: T): T =>
    new Proxy(object, {
      get(target, key) {
        seen.reads++;
        return Reflect.get(target, key) as unknown;
      },
    });
  return { seen, counted };
}

const times = <T>(n: number, make: (i: number) => T): T[] => Array.from({ length: n }, (_, i) => make(i));
const digits = (i: number) => String(10_000_000 + i * 10);

const GROWN: Record<string, (n: number, counted: <T extends object>(o: T) => T) => Plan> = {
  extensions: (n, counted) => ({
    ...base,
    extensions: [
      ...base.extensions,
      ...times(n, (i): Extension => counted({ ...base.extensions[0]!, id: `more-${i}`, digits: digits(i) })),
    ],
  }),
  numbers: (n, counted) => ({
    ...base,
    numbers: [
      ...base.numbers,
      ...times(n, (i): PlanNumber => counted({ ...base.numbers[0]!, id: `n-${i}`, e164: `+46${digits(i)}` })),
    ],
  }),
  'sites with ranges': (n, counted) => ({
    ...base,
    sites: [
      ...base.sites,
      ...times(n, (i): Site =>
        counted({
          ...base.sites[0]!,
          id: `s-${i}`,
          name: `S${i}`,
          ranges: [counted({ from: digits(i), to: digits(i).replace(/0$/, '9') })],
        }),
      ),
    ],
  }),
  'ranges of one site': (n, counted) => ({
    ...base,
    sites: base.sites.map((s, i) =>
      i === 0 ? { ...s, ranges: times(n, (k) => counted({ from: digits(k), to: digits(k).replace(/0$/, '9') })) } : s,
    ),
  }),
};

describe('checks of a whole plan', () => {
  it.each(Object.keys(GROWN))('read in proportion to its %s', (what) => {
    const readsOf = (n: number) => {
      const { seen, counted } = counting();
      const plan = GROWN[what]!(n, counted);
      seen.reads = 0;
      expect(integrityErrors(plan)).toEqual([]);
      return seen.reads;
    };
    const [one, two, four] = [readsOf(500), readsOf(1000), readsOf(2000)];
    expect(one).toBeGreaterThan(500);
    // Half as much again leaves room for sorting; a check of each against each would be fourfold.
    expect(two / one).toBeLessThan(2.5);
    expect(four / two).toBeLessThan(2.5);
  });
});

describe('ranges that overlap', () => {
  const range = fc
    .tuple(fc.nat(400), fc.nat(60), fc.constantFrom('', '1'))
    .map(([from, more, head]) => ({ from: `${head}${1000 + from}`, to: `${head}${1000 + from + more}` }));

  it('are found by a sweep exactly where comparing each with each finds them', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(range, { maxLength: 5 }), { minLength: 3, maxLength: 3 }),
        fc.boolean(),
        (lists, perSite) => {
          const plan: Plan = {
            ...base,
            organisation: { ...base.organisation, numberSpace: perSite ? 'site' : 'organisation' },
            sites: base.sites.map((s, i) => ({ ...s, ranges: lists[i] ?? [] })),
          };
          const all = plan.sites.flatMap((s) =>
            s.ranges.map((r, i) => ({ ...r, at: `${s.id} ranges.${i}`, site: s.id })),
          );
          const wrong = all.filter((a) =>
            all.some(
              (b) =>
                a !== b &&
                (!perSite || a.site === b.site) &&
                a.from.length === b.from.length &&
                a.from <= b.to &&
                b.from <= a.to,
            ),
          );
          const found = new Set(rangeFaults(plan).map((f) => `${f.id} ${f.field}`));
          // Each overlap is told at one of the two at least, and nothing is told that overlaps nothing.
          expect([...found].filter((f) => !wrong.some((w) => w.at === f))).toEqual([]);
          expect(found.size > 0).toBe(wrong.length > 0);
          for (const w of wrong)
            expect([w.at, wrong.some((o) => found.has(o.at) && o.from.length === w.from.length)]).toEqual([w.at, true]);
        },
      ),
      { numRuns: 400 },
    );
  });
});
