import { readFileSync } from 'node:fs';
import { parse } from 'yaml';
import { problemsOf } from '@/core/analysis';
import { CALL_KINDS } from '@/core/numbers/kinds';
import {
  differences,
  planWith,
  type Promised,
  readPlan,
  type AnyObject,
  type Changed,
  type ObjectKind,
  type Plan,
  objectsOf,
} from '@/core/plan';
import {
  AHEAD_MS,
  DRILL_MS,
  atlasOf,
  atlasesAhead,
  checkPromise,
  cutAhead,
  drillOf,
  drillsOf,
  impactOf,
} from '@/core/proof';
import { compile, type Exchange } from '@/core/routing';
import { editsAhead } from '@/server/engine/ahead';
import { REFERENCE, generate } from '../demo/generate';
import { line, ms } from './lines';

/* Speed of what is said of all calls there can be: on the demo company, on the reference plan, and beyond. */

const AT = Date.UTC(2026, 10, 23, 10);
const SPAN = { from: AT, to: AT + AHEAD_MS };

function timed<T>(work: () => T): [took: number, T] {
  const begun = performance.now();
  const made = work();
  return [performance.now() - begun, made];
}

function read(document: unknown): Plan {
  const result = readPlan(document);
  if (!result.ok) throw new Error(result.errors[0]!.sentence);
  return result.plan;
}

const NOT_ALLOWED = { allow: false, pin: false, forward: false, transfer: false };

/** One object of a kind, edited as an administrator might. */
function edited(plan: Plan, kind: ObjectKind, nth: number): Changed {
  const list = (objectsOf(plan, kind) as (AnyObject & Record<string, unknown>)[]).filter(
    (o) => kind !== 'number' || (typeof o.belongsTo === 'string' && o.state === 'active'),
  );
  const before = list[nth % list.length]!;
  const change: Partial<Record<ObjectKind, Record<string, unknown>>> = {
    extension: { ringSeconds: 40 + (nth % 7), class: plan.classes.at(-1)!.id },
    attendant: { noKeySeconds: 9 },
    hours: { weekly: 'mon-fri 10:00-16:00' },
    number: { belongsTo: plan.extensions[nth]!.id },
    rung: { map: '9777x{4}' },
    trunk: { enabled: false },
    site: { emergencyTrunks: [plan.trunks[0]!.id] },
    class: { rights: { ...plan.classes[nth % plan.classes.length]!.rights, international: NOT_ALLOWED } },
  };
  return { kind, id: before.id, value: { ...before, ...change[kind] } } as Changed;
}

function impacts(plan: Plan, live: Exchange, name: string): void {
  for (const kind of ['extension', 'number', 'attendant', 'hours', 'trunk', 'rung', 'site', 'class'] as const) {
    const took: number[] = [];
    let groups = 0;
    for (const nth of [3, 4, 5]) {
      if (objectsOf(plan, kind).length === 0) continue;
      const willBe = compile(planWith(plan, [edited(plan, kind, nth)]), live);
      const edits = differences(plan, willBe.plan);
      const [time, found] = timed(() => impactOf({ was: live, willBe, situation: {}, span: SPAN }, edits));
      took.push(time);
      groups = found.length;
    }
    line(
      `${name}: impact of one edit, ${kind}: first, next two`,
      took.map(ms).join(' / '),
      `300 ms   ${groups} groups`,
    );
  }
}

/** Edits of all kinds at once, as a long draft has them. */
function draftOf(plan: Plan): Changed[] {
  const every: [ObjectKind, number][] = [
    ['extension', 500],
    ['number', 300],
    ['attendant', 5],
    ['rung', 30],
    ['trunk', 10],
    ['class', 3],
  ];
  return every.flatMap(([kind, n]) =>
    objectsOf(plan, kind).flatMap((_, i) => (i % n === 3 % n ? [edited(plan, kind, i)] : [])),
  );
}

function wholeDraft(plan: Plan, live: Exchange, name: string): void {
  const willBe = compile(planWith(plan, draftOf(plan)), live);
  const edits = differences(plan, willBe.plan);
  const [took, found] = timed(() => impactOf({ was: live, willBe, situation: {}, span: SPAN }, edits));
  line(`${name}: impact of a draft of ${edits.length} edits of all kinds`, ms(took), `5 s   ${found.length} groups`);
}

function atlases(plan: Plan, live: Exchange, name: string): void {
  const phone = (nth: number) => plan.extensions[nth % plan.extensions.length]!.id;
  const took = [7, 8, 5000, 5001].map((nth) => timed(() => atlasOf(live, phone(nth), AT, {}, true).under(''))[0]);
  const after = compile(planWith(plan, [edited(plan, 'extension', 40)]), live);
  took.push(timed(() => atlasOf(after, phone(8), AT, {}, true).under(''))[0]);
  line(`${name}: atlas: first, next, other site, next, after an edit`, took.map(ms).join(' / '), '50 ms');
}

/** The plan with promises of every make, to a hundred. */
function withPromises(document: ReturnType<typeof generate>): Plan {
  const plan = read(document);
  const outside = CALL_KINDS.filter((k) => !['emergency', 'internal', 'service'].includes(k));
  const promises = Array.from({ length: 100 }, (_, i) => {
    const base = { id: `promise-${i}`, name: `Promise ${i}` };
    const site = plan.sites[i % plan.sites.length]!.id;
    const number = plan.numbers[(i * 97) % plan.numbers.length]!.id;
    const makes = [
      { dialKinds: ['emergency'], must: 'leaves at its own site', fromSites: [site] },
      {
        fromClasses: [plan.classes[i % plan.classes.length]!.id],
        dialKinds: outside,
        must: 'never reaches',
        ends: ['a fax'],
      },
      {
        from: 'outside callers',
        fromNumbers: [number],
        must: 'can reach',
        ends: ['a phone', 'a mailbox', 'a queue or group'],
      },
      { from: 'outside callers', must: 'never reaches', ends: ['the outside by own choice'], fromSites: [site] },
      { fromSites: [site], dialKinds: outside, must: 'shows a number of the trunk' },
    ];
    return { ...base, ...makes[i % makes.length] };
  });
  return read({ ...document, promises });
}

function promises(live: Exchange, name: string, list: readonly Promised[], target: string): void {
  const checking = { exchange: live, situation: {}, span: SPAN };
  const [took, verdicts] = timed(() => list.map((p) => checkPromise(checking, p)));
  const asked = verdicts.reduce((n, v) => n + v.asked, 0);
  line(
    `${name}: ${list.length} promises`,
    ms(took),
    `${target}   ${asked} calls asked, ${verdicts.filter((v) => !v.holds).length} broken`,
  );
}

/** Edits after each of which all promises are checked, as the application does. */
const PROMISED_AFTER = 12;

function promisesAfterEdits(plan: Plan, live: Exchange, name: string, target: string): void {
  const kinds = ['extension', 'number', 'attendant', 'trunk', 'rung', 'class'] as const;
  const took = Array.from({ length: PROMISED_AFTER }, (_, i) => {
    const after = compile(planWith(plan, [edited(plan, kinds[i % kinds.length]!, i)]), live);
    const checking = { exchange: after, situation: {}, span: SPAN };
    return timed(() => plan.promises.map((p) => checkPromise(checking, p)))[0];
  });
  const sorted = [...took].sort((a, b) => a - b);
  const said = `${ms(sorted[sorted.length >> 1]!)} / ${ms(sorted.at(-1)!)}`;
  line(`${name}: promises after an edit: median / slowest of ${PROMISED_AFTER}`, said, target);
}

function drills(live: Exchange, name: string): void {
  const all = drillsOf(live);
  const span = { from: AT, to: AT + DRILL_MS };
  const took = all.map((drill) => timed(() => drillOf({ exchange: live, situation: {}, span }, drill))[0]);
  const sum = took.reduce((a, b) => a + b, 0);
  line(`${name}: all ${all.length} drills, slowest of them`, `${ms(sum)} / ${ms(Math.max(...took))}`, '30 s');
}

function problems(plan: Plan, live: Exchange, name: string): void {
  problemsOf(live);
  const took = Array.from({ length: 23 }, (_, i) => {
    const after = compile(planWith(plan, [edited(plan, 'extension', 11 + i)]), live);
    return timed(() => problemsOf(after))[0];
  });
  // An engine's thread that has just begun is not yet compiled for speed.
  const later = took.slice(3).sort((a, b) => a - b);
  const said = [...took.slice(0, 3), later[later.length >> 1]!].map(ms).join(' / ');
  line(`${name}: problems after one edit: first three, median of 20 more`, said, '50 ms');
}

/** What each thread of the engine does in the first quiet moments of its life. */
function ahead(live: Exchange, name: string): void {
  const steps = [cutAhead(live, SPAN), atlasesAhead(live, SPAN), editsAhead(live, SPAN)].map((work) => {
    const took: number[] = [];
    for (let isDone = false; !isDone;) {
      const [time, step] = timed(() => work.next());
      isDone = step.done === true;
      took.push(time);
    }
    return `${ms(took.reduce((a, b) => a + b, 0))} (${ms(Math.max(...took))})`;
  });
  line(`${name}: done ahead in quiet moments (longest step): cut, atlases, edits`, steps.join(' / '), '');
}

/** What is held by now, garbage left out. */
function memory(name: string, after: string): void {
  globalThis.gc?.();
  const { heapUsed, arrayBuffers, rss } = process.memoryUsage();
  const [held, resident] = [heapUsed + arrayBuffers, rss].map((n) => (n / 1e6).toFixed(0));
  line(`${name}: memory after ${after}: held / of the process`, `${held} / ${resident} MB`, '600 MB');
}

/** The figures of one plan; those that grow by the product of things only where they are `wanted`. */
function all(plan: Plan, name: string, wanted: boolean): void {
  const live = compile(plan);
  ahead(live, name);
  atlases(plan, live, name);
  problems(plan, live, name);
  memory(name, 'atlases and problems');
  impacts(plan, live, name);
  if (wanted) wholeDraft(plan, live, name);
  memory(name, 'impacts');
  if (!wanted) return;
  const target = plan.promises.length < 100 ? '100 ms' : '5 s';
  promises(live, name, plan.promises, target);
  promisesAfterEdits(plan, live, name, target);
  memory(name, 'promises');
  drills(live, name);
  memory(name, 'drills');
}

all(read(parse(readFileSync('demo/plan.yaml', 'utf8'))), 'demo', true);
for (const extensions of [20_000, 100_000])
  all(withPromises(generate({ ...REFERENCE, extensions })), `${extensions} phones`, extensions === 20_000);
