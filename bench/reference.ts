import { measure } from 'mitata';
import { partition } from '@/core/hours';
import { readPlan, readDocumentText, type Plan } from '@/core/plan';
import { compile, contextOf, noticesFor, outcomeOf, trace, type Call, type Exchange } from '@/core/routing';
import { REFERENCE, generate } from '../demo/generate';

/* Speed on the reference plan of the benches and beyond: medians, memory, growth. Targets are printed beside the figures. */

const AT = Date.UTC(2026, 10, 23, 10);
const DAY = 86_400_000;

async function median(work: () => unknown): Promise<number> {
  return (await measure(work, { min_cpu_time: 300e6 })).p50 / 1000;
}

/** Milliseconds of the middle one of a few runs of something that takes long. */
function slow(work: () => unknown, runs = 5): number {
  const times = Array.from({ length: runs }, () => {
    const begun = performance.now();
    work();
    return performance.now() - begun;
  });
  return times.sort((a, b) => a - b)[Math.floor(runs / 2)]!;
}

const line = (what: string, value: string, target = '') =>
  console.log(`${what.padEnd(58)}${value.padStart(12)}  ${target}`);
const ms = (n: number) => `${n.toFixed(n < 10 ? 2 : 0)} ms`;
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
  line('compile a parsed plan, every context made', ms(slow(() => whole(plan))), 'target 500 ms');
  line(
    'from its bytes: parse, check, compile',
    ms(
      slow(() => {
        const parsed = readDocumentText(text);
        if (parsed.ok) whole(read(parsed.document));
      }, 3),
    ),
    'target 1.5 s',
  );
  const exchange = whole(plan);
  const edited = { ...plan, extensions: plan.extensions.map((e, i) => (i === 5 ? { ...e, name: 'Renamed' } : e)) };
  line('compile after one edit of an extension', ms(slow(() => compile(edited, exchange))), 'target 20 ms');
  for (const [name, call] of calls(exchange)) {
    const lean = await median(() => outcomeOf(exchange, call));
    const told = await median(() => trace(exchange, call));
    line(`trace ${name}: without / with sentences`, `${micro(lean)} / ${micro(told)}`, 'target 10 / 60 µs');
  }
  line('week strips of all numbers, 53 weeks', ms(slow(() => strips(exchange), 3)), 'target 1 s');
  return exchange;
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
      parts.set(attendant.hours, (part = partition(hours, noticesFor({}, attendant.hours), AT, AT + 53 * 7 * DAY)));
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
      extensions === 20_000 ? 'target 150 MB' : '',
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
