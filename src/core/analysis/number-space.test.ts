import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { endsPlan } from '../../../tests/support/ends-plan';
import { planWith, type Plan } from '../plan';
import { numberBlock, numberSpace } from '.';

const plan = endsPlan();
const site = plan.sites[0]!;

/** The plan with conferences of given digits at its first site, and nothing else that has digits. */
function withDigits(digits: readonly string[]): Plan {
  const bare: Plan = { ...plan, ...Object.fromEntries(LISTS.map((l) => [l, []])) };
  return planWith(
    bare,
    digits.map((d, i) => ({
      kind: 'conference' as const,
      id: `c-${i}`,
      value: { id: `c-${i}`, name: `Room ${d}`, site: site.id, digits: d, note: '', mostMembers: 20 },
    })),
  );
}
const LISTS = [
  'extensions',
  'ringGroups',
  'pageGroups',
  'queues',
  'attendants',
  'timeSwitches',
  'announcements',
  'directories',
  'outsideNumbers',
  'conferences',
  'faxes',
  'parkPlaces',
  'tones',
  'serviceCodes',
  'numbers',
  'routeRules',
  'attendantKeys',
  'reachSteps',
  'presenceChoices',
  'inboundRoutes',
  'mailboxes',
  'reachPlans',
] as const;

const digits = fc.array(fc.stringMatching(/^[0-9]{1,5}$/), { minLength: 1, maxLength: 30 }).map((d) => [...new Set(d)]);

describe('the number space', () => {
  it('counts in each block just what begins with its two digits, and tells the rest apart', () => {
    fc.assert(
      fc.property(digits, (all) => {
        const space = numberSpace(withDigits(all), site.id);
        expect(space.blocks).toHaveLength(100);
        for (const b of space.blocks) {
          const wanted = all.filter((d) => d.length > 1 && d.startsWith(b.digits)).length;
          expect(b.kinds.reduce((n, k) => n + k.count, 0)).toBe(wanted);
        }
        expect(space.short.map((s) => s.digits).sort()).toEqual(all.filter((d) => d.length === 1).sort());
      }),
    );
  });

  it('names every digits that are the beginning of others, as comparing each with each does', () => {
    fc.assert(
      fc.property(digits, (all) => {
        const { begins } = numberSpace(withDigits(all), site.id);
        const wanted = all.filter((a) => all.some((b) => b !== a && b.startsWith(a))).sort();
        expect(begins.map((b) => b.shorter.digits).sort()).toEqual(wanted.slice(0, 20));
        for (const b of begins)
          expect(b.more + 1).toBe(all.filter((d) => d !== b.shorter.digits && d.startsWith(b.shorter.digits)).length);
      }),
    );
  });

  it('finds the free ones of a block by trying each of them', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 99 }), { minLength: 1, maxLength: 99 }), (taken) => {
        const all = taken.map((n) => `21${String(n).padStart(2, '0')}`);
        const { free, taken: told, more } = numberBlock(withDigits(all), site.id, '21');
        expect(told.length + more).toBe(all.length);
        const within = free.flatMap(({ from, to }) =>
          Array.from({ length: Number(to) - Number(from) + 1 }, (_, i) => String(Number(from) + i)),
        );
        const wanted = Array.from({ length: 100 }, (_, n) => `21${String(n).padStart(2, '0')}`).filter(
          (d) => !all.includes(d),
        );
        expect(within).toEqual(wanted);
        expect(free.reduce((n, f) => n + f.count, 0)).toBe(wanted.length);
      }),
    );
  });

  it('says where phones dial outside and for help, and what a site keeps', () => {
    const space = numberSpace(plan, site.id);
    const of = (d: string) => space.blocks.find((b) => b.digits === d)!;
    expect(of('11').outside).toMatch(/^emergency 11/);
    if (site.outsidePrefix) expect(of(`${site.outsidePrefix}5`).outside).toContain(site.name);
    for (const r of site.ranges) expect(of(r.from.slice(0, 2)).kept).toBe(true);
  });
});
