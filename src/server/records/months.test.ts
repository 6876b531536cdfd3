import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { DateTime } from 'luxon';
import { firstOf, monthOf, splitsFor, tooOld, type Partition } from './months';

/* Months of the call records, held against a calendar of another make. */

const LATER: Partition = { name: 'later', until: null };
const at = (text: string) => monthOf(new Date(`${text}-01T00:00:00Z`));

/** The partitions after splits were made. */
function after(known: readonly Partition[], from: number, to: number): Partition[] {
  const splits = new Map(splitsFor(known, from, to).map((s) => [s.name, s.into]));
  return known.flatMap((p) => splits.get(p.name) ?? [p]);
}

describe('months of call records', () => {
  it('are split off the last partition, across the end of a year', () => {
    expect(splitsFor([LATER], at('2026-11'), at('2027-01'))).toEqual([
      {
        name: 'later',
        into: [
          { name: 'm202610', until: '2026-11-01' },
          { name: 'm202611', until: '2026-12-01' },
          { name: 'm202612', until: '2027-01-01' },
          { name: 'm202701', until: '2027-02-01' },
          LATER,
        ],
      },
    ]);
  });

  it('that are there are left alone; older ones are split off the oldest', () => {
    const known = after([LATER], at('2026-11'), at('2027-01'));
    expect(splitsFor(known, at('2026-11'), at('2027-01'))).toEqual([]);
    expect(splitsFor(known, at('2025-12'), at('2026-01'))).toEqual([
      {
        name: 'm202610',
        into: [
          { name: 'm202511', until: '2025-12-01' },
          { name: 'm202512', until: '2026-01-01' },
          { name: 'm202601', until: '2026-02-01' },
          { name: 'm202610', until: '2026-11-01' },
        ],
      },
    ]);
  });

  it('are those of the calendar, whatever was asked for in whichever order, and every moment has one', () => {
    const month = fc.integer({ min: at('1999-12'), max: at('2031-02') });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(month, fc.integer({ min: 0, max: 30 })), { minLength: 1, maxLength: 6 }),
        (asked) => {
          const known = asked.reduce((p, [from, length]) => after(p, from, from + length), [LATER]);
          const borders = known.map((p) => p.until);
          expect(borders.at(-1)).toBeNull();
          const dated = borders.slice(0, -1) as string[];
          expect([...dated].sort()).toEqual(dated);
          expect(new Set(known.map((p) => p.name)).size).toBe(known.length);
          for (const [from, length] of asked)
            for (let m = from; m <= from + length; m++) {
              const begin = DateTime.utc(Math.floor(m / 12), (m % 12) + 1, 1);
              expect(firstOf(m)).toBe(begin.toISODate());
              // The partition of the month holds its first and its last millisecond, and nothing else.
              const own = known.find((p) => p.until === begin.plus({ months: 1 }).toISODate());
              expect(own?.name).toBe(`m${begin.toFormat('yyyyMM')}`);
              expect(dated).toContain(begin.toISODate());
            }
        },
      ),
      { numRuns: 25 },
    );
  });

  it('go when every record in them is older than what is kept, and the last never goes', () => {
    const known = after([LATER], at('2024-10'), at('2026-12'));
    const now = new Date('2026-11-27T12:00:00Z');
    expect(tooOld(known, now, 24)).toEqual(['m202409', 'm202410']);
    // Within the hour in which a clock on the wall was changed, and at the turn of the year, UTC decides.
    expect(tooOld(known, new Date('2026-10-25T01:30:00Z'), 24)).toEqual(['m202409']);
    expect(tooOld(known, new Date('2026-12-31T23:59:59.999Z'), 24)).toEqual(['m202409', 'm202410', 'm202411']);
    expect(tooOld(known, new Date('2127-01-01T00:00:00Z'), 0)).not.toContain('later');
  });
});
