import { measure } from 'mitata';
import { partition } from '@/core/hours';
import { PlanIndex, planWith, readPlan, readDocumentText, type Changed, type Plan } from '@/core/plan';
import { rangeFaults } from '@/core/plan/faults';
import { compile, contextOf, outcomeOf, trace, type Call, type Exchange } from '@/core/routing';
import { REFERENCE, generate } from '../demo/generate';
import { line, median as middle, ms } from './lines';

/* Speed on the reference plan of the benches and beyond: medians, memory, growth. Targets are printed beside the figures. */

const AT = Date.UTC(2026, 10, 23, 10);
const DAY = 86_400_000;

async function median(work: () => unknown): Promise<number> {
  return (await measure(work, { min_cpu_time: 300e6 })).p50 / 1000;
}

/** Milliseconds that each of a few runs of something took. */
function timesOf(work: (run: number) => unknown, runs: number): number[] {
  return Array.from({ length: runs }, (_, run) => {
    const begun = performance.now();
    work(run);
    return performance.now() - begun;
  });
}

/** Milliseconds of the middle one of a few runs of something that takes long. */
const slow = (work: (run: number) => unknown, runs = 5): number => middle(timesOf(work, runs));

const micro = (n: number) => `${n.toFixed(2)} µs`;

function read(document: unknown): Plan {
  const result = readPlan(document);
  if (!result.ok) throw new Error(result.errors[0]!.sentence);
  return result.plan;
}

/** Everything made that is otherwise made when first asked for: the context of every group of phones. */
function whole(plan: Plan): Exchange {
  const exchange = compile(plan);
  for (const site of plan.sites) contextOf(exchange, { person: null, site: site.id });
  return exchange;
}

function calls(exchange: Exchange): [string, Call][] {
  const [a, b] = [exchange.plan.extensions[7]!, exchange.plan.extensions[exchange.plan.extensions.length - 3]!];
  const phone = (dial: string): Call => ({ from: { type: 'extension', id: a.id }, dial, enBloc: false, at: AT });
  const number = exchange.plan.numbers.find((n) => n.belongsTo?.startsWith('a-'))!;
  return [
    ['internal', phone(b.digits)],
    ['national', phone('901632960150')],
    ['international', phone('90046313900610')],
    [
      'from outside to an attendant',
      {
        from: { type: 'trunk', id: number.trunk!, calling: '+46846500417' },
        dial: number.e164.slice(0),
        enBloc: true,
        at: AT,
      },
    ],
  ];
}

async function reference(): Promise<Exchange> {
  const document = generate();
  const text = JSON.stringify(document);
  const plan = read(document);
  line(
    'plan: extensions, numbers, maps, bytes of JSON',
    `${plan.extensions.length}, ${plan.numbers.length}, ${plan.rungs.length + plan.inboundRoutes.length}, ${(text.length / 1e6).toFixed(1)} MB`,
  );
  line('compile a parsed plan, every context made', ms(slow(() => whole(plan))), '500 ms');
  line(
    'from its bytes: parse, check, compile',
    ms(
      slow(() => {
        const parsed = readDocumentText(text);
        if (parsed.ok) whole(read(parsed.document));
      }, 3),
    ),
    '1.5 s',
  );
  const exchange = whole(plan);
  edits(plan, exchange);
  for (const [name, call] of calls(exchange)) {
    const lean = await median(() => outcomeOf(exchange, call));
    const told = await median(() => trace(exchange, call));
    line(`trace ${name}: without / with sentences`, `${micro(lean)} / ${micro(told)}`, '10 / 60 µs');
  }
  line('week strips of all numbers, 53 weeks', ms(slow(() => strips(exchange), 3)), '1 s');
  return exchange;
}

/** Compiling and checking after one edit, as the engine's threads do with each that comes: the plan before is kept. */
function edits(plan: Plan, before: Exchange): void {
  let [now, exchange] = [plan, before];
  const rename = (run: number) => {
    const extension = now.extensions[run * 77]!;
    now = planWith(now, [{ kind: 'extension', id: extension.id, value: { ...extension, name: `Renamed ${run}` } }]);
    exchange = compile(now, exchange);
  };
  line('compile after one edit of an extension', ms(slow(rename, 15)), '20 ms');
  const index = new PlanIndex(plan);
  const [extension, rung, site, mailbox] = [plan.extensions[7]!, plan.rungs[3]!, plan.sites[2]!, plan.mailboxes[9]!];
  const tried: [string, Changed][] = [
    ['digits of an extension', { kind: 'extension', id: extension.id, value: { ...extension, digits: '7777777' } }],
    ['map of a rule', { kind: 'rung', id: rung.id, value: { ...rung, map: '977x' } }],
    [
      'ranges of a site',
      { kind: 'site', id: site.id, value: { ...site, ranges: [{ from: '7000000', to: '7000009' }] } },
    ],
    ['a mailbox deleted', { kind: 'mailbox', id: mailbox.id, value: null }],
  ];
  for (const [what, edit] of tried) {
    const after = planWith(plan, [edit]);
    const took = timesOf(() => index.errorsOf(after, [edit]), 20);
    line(
      `checks of one edit: ${what}, median / slowest of 20`,
      `${ms(middle(took))} / ${ms(Math.max(...took))}`,
      '10 ms',
    );
  }
  const ranges = Array.from({ length: 8000 }, (_, i) => ({
    from: String(20_000_000 + i * 10),
    to: String(20_000_009 + i * 10),
  }));
  const many = { ...plan, sites: plan.sites.map((s, i) => ({ ...s, ranges: i === 0 ? ranges : [] })) };
  line('overlaps among 8,000 ranges', ms(slow(() => rangeFaults(many))), '50 ms');
}

/** For every number the stretches of the hours it depends on; numbers with the same hours share them. */
function strips(exchange: Exchange): number {
  const parts = new Map<string, ReturnType<typeof partition>>();
  let cells = 0;
  for (const n of exchange.plan.numbers) {
    const attendant = exchange.plan.attendants.find((a) => a.id === n.belongsTo);
    if (!attendant?.hours) continue;
    let part = parts.get(attendant.hours);
    if (!part) {
      const { hours } = exchange.hours.get(attendant.hours)!;
      parts.set(attendant.hours, (part = partition(hours, [], AT, AT + 53 * 7 * DAY)));
    }
    cells += part.length;
  }
  return cells;
}

function heap(): number {
  globalThis.gc?.();
  return process.memoryUsage().heapUsed / 1e6 + process.memoryUsage().arrayBuffers / 1e6;
}

async function growth(): Promise<void> {
  console.log('\ngrowth with the number of extensions');
  for (const extensions of [1_000, 20_000, 100_000]) {
    const plan = read(generate({ ...REFERENCE, extensions }));
    const before = heap();
    let exchange: Exchange | null = whole(plan);
    const memory = heap() - before;
    const time = slow(() => whole(plan), 3);
    const at = calls(exchange)[0]![1];
    const one = await median(() => trace(exchange!, at));
    line(
      `${extensions} extensions: compile / trace / memory`,
      `${ms(time)} / ${micro(one)} / ${memory.toFixed(0)} MB`,
      extensions === 20_000 ? '150 MB' : '',
    );
    exchange = null;
  }
}

reference()
  .then(growth)
  .catch((e: unknown) => {
    console.error(e);
    process.exitCode = 1;
  });
