import { readFileSync } from 'node:fs';
import { measure } from 'mitata';
import { parse } from 'yaml';
import { compileDigitMap, determinise, positionsOf, run } from '@/core/digits';
import { queueSpec, simulateQueue } from '@/core/load';
import { readPlan, type Plan } from '@/core/plan';
import { callOf, callRecordSchema, replay, type CallRecord } from '@/core/records';
import { compile, contextOf, outcomeOf, trace, type Call } from '@/core/routing';
import { consequencesOf, problemsOf } from '@/core/analysis';

/* Speed of the core on the demo company. Figures are medians; where there is a peer it runs in the same process. */

async function median(work: () => unknown): Promise<number> {
  const stats = await measure(work, { min_cpu_time: 300e6 });
  return stats.p50 / 1000;
}

function line(what: string, microseconds: number, beside = ''): void {
  const value =
    microseconds < 1
      ? `${(microseconds * 1000).toFixed(0)} ns`
      : microseconds < 1000
        ? `${microseconds.toFixed(1)} µs`
        : `${(microseconds / 1000).toFixed(1)} ms`;
  console.log(`${what.padEnd(54)}${value.padStart(10)}  ${beside}`);
}

/** A digit map as a regular expression, for the peer that tries them in order. */
function asRegExp(map: string): RegExp {
  return new RegExp(
    `^(?:${map.replaceAll('x', '[0-9]').replaceAll('+', '\\+').replaceAll('*', '\\*').replace(/\s/g, '')})$`,
  );
}

/** 2000 different maps of the kind that ladders hold, from a fixed sequence. */
function manyMaps(): string[] {
  return Array.from(
    { length: 2000 },
    (_, i) => `9${String(i).padStart(4, '0')}[${i % 5}-${5 + (i % 5)}]x{${5 + (i % 3)},${8 + (i % 3)}}`,
  );
}

async function matching(): Promise<void> {
  const maps = manyMaps();
  const automaton = determinise(
    maps.map((m) =>
      positionsOf((compileDigitMap(m) as { compiled: { map: Parameters<typeof positionsOf>[0] } }).compiled.map),
    ),
  );
  const peers = maps.map(asRegExp);
  const dialled = Array.from({ length: 64 }, (_, i) =>
    `9${String((i * 31) % 2000).padStart(4, '0')}51234567`.slice(0, 12),
  );
  let at = 0;
  const ours = await median(() => run(automaton, dialled[at++ & 63]!));
  const theirs = await median(() => peers.findIndex((p) => p.test(dialled[at++ & 63]!)));
  line(
    'match 12 digits among 2,000 maps',
    ours,
    `${Math.round(theirs / ours)}× faster than 2,000 RegExps in order (${theirs.toFixed(0)} µs); target 600×, 0.12 µs`,
  );
}

async function plan(read: Plan): Promise<void> {
  const text = readFileSync('demo/plan.yaml', 'utf8');
  const document = parse(text) as unknown;
  const at = Date.UTC(2026, 10, 23, 9);
  line(
    'read and check the demo plan from its document',
    await median(() => readPlan(document)),
    'from YAML text: see next',
  );
  line('the same from YAML text', await median(() => readPlan(parse(text))));
  line('compile the demo plan', await median(() => compile(read)), 'automata are made when first asked for');
  line(
    'compile it and make every site’s automaton',
    await median(() => compileAll(read)),
    'target for the reference plan 500 ms',
  );
  const exchange = compileAll(read);
  const calls: [string, Call][] = [
    ['internal call', call('e-2101', '3001', at)],
    ['emergency call', call('e-2101', '999', at)],
    ['national call', call('e-2101', '901632960150', at)],
    ['international call, digit by digit', call('e-2104', '90046313900610', at)],
    [
      'call from outside',
      { from: { type: 'outside', calling: '+46846500417' }, dial: '+441632960101', enBloc: true, at },
    ],
  ];
  for (const [name, c] of calls)
    line(`trace with sentences: ${name}`, await median(() => trace(exchange, c)), 'target 60 µs');
  line('problems of the demo plan', await median(() => problemsOf(exchange)));
  line(
    'consequences of one extension',
    await median(() => consequencesOf(exchange, exchange, 'extension', 'e-2101', at, {})),
  );
}

/** Calls of a working day at phones and from outside, as records, from a fixed sequence. */
function manyRecords(read: Plan, count: number): CallRecord[] {
  const begin = Date.UTC(2026, 10, 23, 7);
  const phones = read.extensions.filter((e) => e.kind === 'person');
  const ours = read.numbers.filter((n) => n.state === 'active');
  return Array.from({ length: count }, (_, i): CallRecord => {
    const started = new Date(begin + i * 400).toISOString();
    const inside = i % 3 === 0;
    const phone = phones[(i * 7) % phones.length]!;
    const number = ours[(i * 13) % ours.length]!.e164;
    const called = inside ? phones[(i * 11) % phones.length]!.digits! : number;
    return callRecordSchema.parse({
      id: `r-${i}`,
      started,
      ended: started,
      entry: inside ? { type: 'phone', extension: phone.id } : { type: 'number', number },
      calling: inside ? { delivered: phone.digits } : { delivered: '+46846500417', read: '+46846500417' },
      called: { delivered: called },
      outcome: 'routed',
    });
  });
}

const REPLAYED = 100_000;

function replayed(read: Plan): void {
  const live = compileAll(read);
  const draft = compileAll({
    ...read,
    inboundRoutes: read.inboundRoutes.map((r, i) => (i % 2 === 0 ? { ...r, leadsTo: 'e-2105' } : r)),
  });
  const records = manyRecords(read, REPLAYED);
  replay(records.slice(0, 2000), { plan: draft, against: live });
  const began = performance.now();
  const { calls, changed, groups } = replay(records, { plan: draft, against: live });
  const took = performance.now() - began;
  const single = performance.now();
  for (const r of records) {
    const asked = callOf(r, draft);
    if (asked.ok) outcomeOf(draft, asked.call, {});
  }
  const alone = performance.now() - single;
  line(
    `replay of ${calls.toLocaleString('en')} records, draft against live`,
    took * 1000,
    `${changed} end elsewhere, ${groups.length} groups; ${(took / alone).toFixed(1)}× one bare answer each; target 3 s`,
  );
}

/** A week of a queue of 50 agents: 20,000 calls, most of them by day, played twenty times. */
function simulated(): void {
  const day = Array.from({ length: 24 }, (_, h) => (h < 7 || h > 19 ? 12 : 210));
  const spec = queueSpec.parse({
    seed: 1,
    replications: 20,
    hours: 168,
    arrivalsPerHour: day,
    handleSeconds: { mean: 300, cv: 0.8, law: 'lognormal' },
    patienceSeconds: { mean: 180 },
    wrapUpSeconds: 20,
    agents: 50,
    withinSeconds: 20,
  });
  const began = performance.now();
  const { offeredCalls, serviceLevel } = simulateQueue(spec);
  line(
    `a week of 50 agents, ${Math.round(offeredCalls / 20).toLocaleString('en')} calls, 20 times`,
    (performance.now() - began) * 1000,
    `${(serviceLevel.mean * 100).toFixed(1)} % in time; target 10 s`,
  );
}

function compileAll(read: Plan) {
  const exchange = compile(read);
  for (const site of read.sites) contextOf(exchange, { person: null, site: site.id });
  return exchange;
}

const call = (id: string, dial: string, at: number): Call => ({
  from: { type: 'extension', id },
  dial,
  enBloc: false,
  at,
});

async function main(): Promise<void> {
  const read = readPlan(parse(readFileSync('demo/plan.yaml', 'utf8')));
  if (!read.ok) throw new Error('the demo plan does not read');
  console.log(
    `Node ${process.version}, demo plan: ${read.plan.extensions.length} extensions, ${read.plan.numbers.length} numbers, ${read.plan.rungs.length} outbound rules\n`,
  );
  await matching();
  await plan(read.plan);
  replayed(read.plan);
  simulated();
}

main().catch((e: unknown) => {
  console.error(e);
  process.exitCode = 1;
});
