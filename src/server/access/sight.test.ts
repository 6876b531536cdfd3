import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { lanternfold } from '../../../demo/lanternfold';
import { consequencesOf, problemsOf } from '@/core/analysis';
import { OBJECT_KINDS, objectsOf, readPlan, type AnyObject } from '@/core/plan';
import { compile, trace } from '@/core/routing';
import type { Grant } from '@/contract/rights';
import { siteOf } from './areas';
import type { Actor } from './rights';
import { HIDDEN, Sight, sightOf } from './sight';

const read = readPlan(lanternfold());
if (!read.ok) throw new Error('demo');
const plan = read.plan;
const x = compile(plan);
const AT = Date.UTC(2026, 10, 23, 9);

const reader = (areas: Grant['areas'], sites: Grant['sites']) =>
  ({ role: { id: 'r', name: 'R', grants: [{ right: 'look', areas, sites }] } }) as unknown as Actor;

/** Names of people and extensions at sites that a reader of North Quay may not look at, and that nobody there has too. */
function foreign(): string[] {
  const own = new Set(plan.people.filter((p) => p.site === 'north-quay').map((p) => p.name));
  return plan.people.filter((p) => p.site !== 'north-quay' && !own.has(p.name)).map((p) => p.name);
}

describe('what a reader sees', () => {
  it('is everything where they may look at everything', () => {
    const sight = new Sight(reader('all', 'all'), plan);
    const answer = { text: foreign().join() };
    expect(sight.cut(answer)).toBe(answer);
    for (const kind of OBJECT_KINDS) expect(sight.list(kind)).toBe(objectsOf(plan, kind));
  });

  it('holds no name of another site, in whatever text and however deep', () => {
    const sight = new Sight(reader('all', ['north-quay']), plan);
    const names = fc.constantFrom(...foreign());
    const anywhere = fc.letrec((tie) => ({
      value: fc.oneof(
        { maxDepth: 4 },
        fc.tuple(fc.string({ maxLength: 8 }), names, fc.string({ maxLength: 8 })).map((p) => p.join('')),
        fc.integer(),
        fc.constant(null),
        fc.array(tie('value'), { maxLength: 3 }),
        fc.dictionary(fc.constantFrom('a', 'b', 'label', 'why'), tie('value'), { maxKeys: 3 }),
      ),
    })).value;
    fc.assert(
      fc.property(anywhere, (value) => {
        const text = JSON.stringify(sight.cut(value)) ?? '';
        for (const name of foreign()) expect(text.includes(JSON.stringify(name).slice(1, -1))).toBe(false);
      }),
      { numRuns: 150 },
    );
  });

  it('holds no name of another site in traces, consequences and problems', () => {
    const sight = new Sight(reader('all', ['north-quay']), plan);
    const other = plan.extensions.find(
      (e) => e.site !== 'north-quay' && e.person !== null && foreign().includes(e.name),
    )!;
    const t = trace(x, { from: { type: 'extension', id: 'e-2101' }, dial: other.digits, enBloc: true, at: AT }, {});
    expect(JSON.stringify(t)).toContain(other.name);
    const cut = JSON.stringify(sight.cut(t));
    expect(cut).not.toContain(other.name);
    expect(cut).toContain(HIDDEN);
    const all = JSON.stringify([
      sight.cut(problemsOf(x)),
      ...plan.classes.map((c) => sight.cut(consequencesOf(x, x, 'class', c.id, AT, {}))),
    ]);
    for (const name of foreign()) expect(all).not.toContain(name);
  });

  it('are the objects of their sites and those of none, by areas', () => {
    const sight = new Sight(reader(['people'], ['north-quay']), plan);
    for (const kind of OBJECT_KINDS)
      for (const o of sight.list(kind) as AnyObject[]) expect(['north-quay', null]).toContain(siteOf(plan, kind, o));
    expect(sight.list('number')).toEqual([]);
    expect(sight.list('person').length).toBe(plan.people.filter((p) => p.site === 'north-quay').length);
  });

  it('is found once for a plan and a role', () => {
    const who = reader('all', ['north-quay']);
    expect(sightOf(who, plan)).toBe(sightOf(who, plan));
    expect(sightOf(who, plan)).not.toBe(sightOf(reader('all', ['larkspur']), plan));
  });
});
