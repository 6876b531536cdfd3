import { readFileSync } from 'node:fs';
import { describe, expect, it } from '@jest/globals';
import { parse } from 'yaml';
import { editedPlan } from '../../../tests/support/evaluator/edited';
import { Chance, besideIn, MOMENTS, randomPlan } from '../../../tests/support/evaluator/random';
import { differences, readPlan, type Difference, type Plan } from '../plan';
import { compile } from '../routing';
import { affectedBy } from './affected';
import { concernOf } from './affected-sites';
import type { ChangedCell, Comparing } from './changed';
import { changedCells } from './impact';

/*
 * An edit changes the same calls, whether only what it can make a difference to is asked or everything that there is.
 */

const PLANS = 2 * Number(process.env.POLYDROME_SOAK ?? 1);
const SEED = Number(process.env.POLYDROME_TEST_SEED ?? 20261129);

/** Seeds that once found something: what follows where a trunk that nobody edited is down. */
const FOUND = [77019];

type Fields = Record<string, unknown>;

/** Who calls, and what they dial: each string that stands in the plan, and one for each region. */
const callsOf = (cells: readonly ChangedCell[]): string[] => {
  const out = new Set<string>();
  for (const { call, callers, number, dials } of cells) {
    if (call.from.type !== 'extension') out.add(`${JSON.stringify(call.from)} ${number ?? call.dial}`);
    for (const phone of callers.flat()) for (const dial of dials ?? [call.dial]) out.add(`${phone} ${dial}`);
  }
  return [...out].sort();
};

/** An edit that makes everything be asked, and changes nothing. */
const ANYTHING = {
  kind: 'sitePair',
  id: 'none',
  before: { id: 'none' },
  after: { id: 'none', name: '' },
} as unknown as Difference;

function compared(was: Plan, willBe: Plan, chance: Chance): { narrow: string[]; wide: string[] } {
  const from = chance.one(MOMENTS);
  const span = { from, to: from + 2 * 86_400_000 };
  const situation = chance.is(0.5) ? {} : besideIn(chance, was, from);
  const comparing: Comparing = { was: compile(was), willBe: compile(willBe), situation, span };
  const edits = differences(was, willBe);
  const [narrow, wide] = [edits, [...edits, ANYTHING]].map((of) => callsOf(changedCells(comparing, of)));
  return { narrow: narrow!, wide: wide! };
}

describe('edits change the calls that they would if everything were asked', () => {
  it(`of objects of any kind, on ${PLANS} random plans`, () => {
    let changed = 0;
    for (const seed of [...Array.from({ length: 3 * PLANS }, (_, i) => SEED + i), ...FOUND]) {
      const chance = new Chance(seed);
      const plan = randomPlan(chance);
      const after = editedPlan(chance, plan);
      if (!after || affectedBy([plan, after], differences(plan, after)).all) continue;
      const { narrow, wide } = compared(plan, after, chance);
      const edits = differences(plan, after).map((e) => `${e.kind} ${e.id}`);
      expect({ seed, edits, calls: narrow }).toEqual({ seed, edits, calls: wide });
      changed += wide.length > 0 ? 1 : 0;
    }
    expect(changed).toBeGreaterThan(0);
  });

  it.each(['as a phrase of the exchange', 'as the music of a site'])('of a prompt that is heard %s', (how) => {
    const text = parse(readFileSync('demo/plan.yaml', 'utf8')) as Record<'prompts' | 'sites' | 'queues', Fields[]>;
    const phrase = how === 'as a phrase of the exchange' ? 'wrong key' : null;
    const planOf = (seconds: number): Plan => {
      const own = { ...text.prompts[0], id: 'own', name: 'Own', phrase, seconds, text: `Own ${seconds}`, versions: [] };
      const sites = text.sites.map((s) => ({ ...s, music: phrase === null ? 'own' : s.music }));
      const queues = text.queues.map((q) => ({ ...q, music: null }));
      const read = readPlan({ ...text, prompts: [...text.prompts, own], sites, queues });
      if (!read.ok) throw new Error(read.errors[0]!.sentence);
      return read.plan;
    };
    const { narrow, wide } = compared(planOf(4), planOf(5), new Chance(SEED));
    expect(wide.length).toBeGreaterThan(0);
    expect(narrow).toEqual(wide);
  });

  it(`of how wide the link of a site is, on ${PLANS} random plans`, () => {
    const WIDTHS = [null, 20, 40, 70, 90, 110, 150, 1000];
    const seen = { narrowly: 0, changed: 0 };
    for (let i = 0; i < 4 * PLANS; i++) {
      const chance = new Chance(SEED + i);
      const text = JSON.parse(JSON.stringify(randomPlan(chance))) as { sites: Fields[] };
      const site = chance.one(text.sites);
      const [was, willBe] = [0, 1].map(() => {
        site.linkKbitPerSecond = chance.one(WIDTHS);
        site.linkIp = chance.one(['4', '6']);
        return readPlan(JSON.parse(JSON.stringify(text)));
      });
      if (!was!.ok || !willBe!.ok) continue;
      const links = chance.is(0.5) ? [{ id: site.id as string, kbitPerSecond: chance.one([0, 40, 100]) }] : [];
      const from = chance.one(MOMENTS);
      const comparing: Comparing = {
        was: compile(was!.plan),
        willBe: compile(willBe!.plan),
        situation: { links },
        span: { from, to: from + 2 * 86_400_000 },
      };
      const edits = differences(was!.plan, willBe!.plan);
      const [narrow, wide] = [edits, [...edits, ANYTHING]].map((of) => callsOf(changedCells(comparing, of)));
      expect({ seed: SEED + i, edits, links, calls: narrow }).toEqual({ seed: SEED + i, edits, links, calls: wide });
      if (edits.length > 0 && !affectedBy([was!.plan, willBe!.plan], edits, { links }).all) seen.narrowly += 1;
      if (wide!.length > 0) seen.changed += 1;
    }
    expect(Math.min(seen.narrowly, seen.changed)).toBeGreaterThan(0);
  });

  it(`of single fields of sites and of the organisation, on ${PLANS} random plans`, () => {
    const changed = new Map<string, number>();
    let tried = 0;
    for (let i = 0; i < PLANS; i++) {
      const chance = new Chance(SEED + i);
      const plan = randomPlan(chance);
      const other = randomPlan(chance);
      const text = JSON.parse(JSON.stringify(plan)) as { sites: Fields[]; organisation: Fields };
      const site = chance.below(text.sites.length);
      const edited = (
        [
          ['site', text.sites[site]!, other.sites[site]],
          ['organisation', text.organisation, other.organisation],
        ] as [string, Fields, Fields][]
      ).flatMap(([name, fields, theirs]) =>
        Object.keys(fields)
          .filter((f) => f !== 'id' && theirs && JSON.stringify(fields[f]) !== JSON.stringify(theirs[f]))
          .map((field) => ({ name, fields, field, theirs: theirs[field] })),
      );
      for (let n = 0; n < 4 && edited.length > 0; n++) {
        const { name, fields, field, theirs } = chance.one(edited);
        const before = fields[field];
        fields[field] = theirs;
        const read = readPlan(JSON.parse(JSON.stringify(text)));
        fields[field] = before;
        // Of what concerns everything nothing is left out.
        if (!read.ok || concernOf([plan, read.plan], differences(plan, read.plan), {}).all) continue;
        const { narrow, wide } = compared(plan, read.plan, chance);
        expect({ seed: SEED + i, name, field, calls: narrow }).toEqual({ seed: SEED + i, name, field, calls: wide });
        tried += 1;
        if (wide.length > 0) changed.set(`${name} ${field}`, (changed.get(`${name} ${field}`) ?? 0) + 1);
      }
    }
    expect(tried).toBeGreaterThan(PLANS);
    expect(changed.size).toBeGreaterThan(0);
    if (process.env.POLYDROME_SOAK) process.stderr.write(`${JSON.stringify([...changed])}\n`);
  });
});
