import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { endsPlan } from '../../../../tests/support/ends-plan';
import { labelOf, objectsOf, planWith, type AnyObject } from '@/core/plan';
import { READY_ROLES, type Actor } from '../../access/rights';
import { Sight } from '../../access/sight';
import { FOUND_KINDS, findObjects } from './find';

const owner = { role: READY_ROLES[0]! } as Actor;
const plan = endsPlan();

/** Names as people write them, in signs that are marked, large, small, or of another script. */
const name = fc
  .array(fc.constantFrom('Ann', 'ann', 'Åsa', 'Änn', 'Öst', 'van', 'O’Neil', '21', 'Иван', 'ﬁn', ' '), {
    minLength: 1,
    maxLength: 3,
  })
  .map((parts) => parts.join(' ').trim() || 'Ann');

/** The same text without marks and in small letters, sign by sign; what stands for a compatible sign becomes that. */
const plain = (text: string) =>
  [...text.normalize('NFKD')]
    .filter((c) => !/\p{M}/u.test(c))
    .join('')
    .toLowerCase()
    .trim();

/** Everything that may be found whose label holds the text, by looking at each label. */
function holding(objects: { label: string; id: string }[], text: string): string[] {
  const wanted = plain(text);
  return objects.filter(({ label }) => plain(label).includes(wanted)).map(({ id }) => id);
}

describe('finding objects by what people type', () => {
  it('finds what holds the text, in any case and without marks, first what begins with it, and at most eight', () => {
    fc.assert(
      fc.property(fc.array(name, { minLength: 1, maxLength: 14 }), name, fc.nat(3), (names, typed, cut) => {
        const text = typed.slice(0, Math.max(1, typed.length - cut));
        fc.pre(plain(text) !== '');
        const people = names.map((n, i) => ({ ...plan.people[0]!, id: `found-${i}`, name: n }));
        const next = planWith(
          plan,
          people.map((value) => ({ kind: 'person' as const, id: value.id, value })),
        );
        const all = FOUND_KINDS.flatMap((kind) =>
          (objectsOf(next, kind) as AnyObject[]).map((o) => ({ id: o.id, label: labelOf(kind, o) })),
        );
        const found = findObjects(new Sight(owner, next), text);
        // Digits of a number are also found without the blanks that it is shown with.
        const wanted = new Set(holding(all, text));
        const extra = found.filter((f) => !wanted.has(f.id));
        expect(extra.filter((f) => f.kind !== 'number')).toEqual([]);
        expect(found.length).toBeGreaterThanOrEqual(Math.min(8, wanted.size));
        expect(found.length).toBeLessThanOrEqual(8);
        const begins = found.map(
          (f) => plain(f.label).startsWith(plain(text)) || plain(f.label).includes(` ${plain(text)}`),
        );
        expect(begins).toEqual([...begins].sort((a, b) => Number(b) - Number(a)));
      }),
    );
  });

  it.each(['+44 1632 960111', '01632 960111', '1632960111', '(01632) 960-111', '960111'])(
    'finds a number however its digits are set apart: %s',
    (text) => {
      const number = { ...plan.numbers[0]!, id: 'found', e164: '+441632960111' };
      const others = plan.numbers.filter((n) => n.e164 === number.e164);
      const next = planWith(plan, [
        ...others.map((n) => ({ kind: 'number' as const, id: n.id, value: { ...n, e164: '+441632960999' } })),
        { kind: 'number' as const, id: number.id, value: number },
      ]);
      expect(findObjects(new Sight(owner, next), text).map((f) => f.id)).toContain('found');
    },
  );

  it('finds everything that has a name, and says which of equal names is which and where it is looked at', () => {
    const named = new Sight(owner, plan);
    for (const [kind, name] of [
      ['team', plan.teams[0]!.name],
      ['hours', plan.hours[0]!.name],
      ['queue', plan.queues[0]!.name],
      ['attendant', plan.attendants[0]!.name],
    ] as const)
      expect(findObjects(named, name)).toContainEqual(
        expect.objectContaining({ kind, path: expect.stringMatching(/^\/[a-z]/) }),
      );
    const twin = { ...plan.people[0]!, name: 'Ann Twin' };
    const twins = [0, 1, 2, 3, 4].map((i) => ({ ...twin, id: `twin-${i}` }));
    const phones = twins.map((t, i) => ({
      ...plan.extensions[0]!,
      id: `of-${i}`,
      digits: `709${i}`,
      name: 'Desk',
      person: t.id,
    }));
    const next = planWith(plan, [
      ...twins.map((value) => ({ kind: 'person' as const, id: value.id, value })),
      ...phones.map((value) => ({ kind: 'extension' as const, id: value.id, value })),
    ]);
    const details = findObjects(new Sight(owner, next), 'ann twin').map((f) => f.detail);
    expect(details).toHaveLength(5);
    for (const [i, d] of details.entries()) expect(d).toMatch(new RegExp(`^709${i}, `));
  });

  it('finds nothing for nothing, and nothing that its reader may not look at', () => {
    expect(findObjects(new Sight(owner, plan), '   ')).toEqual([]);
    const nobody = { role: { ...READY_ROLES[0]!, grants: [] } } as unknown as Actor;
    const label = labelOf('person', plan.people[0]!);
    expect(findObjects(new Sight(owner, plan), label).length).toBeGreaterThan(0);
    expect(findObjects(new Sight(nobody, plan), label)).toEqual([]);
  });
});
