import { problemsOf } from '@/core/analysis';
import { wholeCourse } from '@/core/course';
import { clockOf, parseWeek, partition } from '@/core/hours';
import { queueSpec, simulateQueue } from '@/core/load';
import { readDocumentText, readPlan } from '@/core/plan';
import { compile, trace } from '@/core/routing';

const AT = Date.parse('2026-12-04T17:10:00Z');

/** Many questions to the engine about a plan in text, as one text of answers. Uses nothing but core. */
export function answers(planText: string): string {
  const document = readDocumentText(planText);
  const read = readPlan(document.ok ? document.document : null);
  if (!read.ok) throw new Error(read.errors[0]!.sentence);
  const exchange = compile(read.plan);
  const dials = ['2104', '3001', '999', '112', '901632960150', '90046313900610', '0', '7001', '9'];
  const phones = read.plan.extensions.filter((_, i) => i % 10 === 0);
  const week = parseWeek('mon-fri 7-19, sat 22-3');
  const hours = {
    clock: clockOf('Australia/Lord_Howe'),
    week: week.ok ? week.week : [],
    holidays: new Map(),
    yearly: new Map(),
    exceptions: new Map(),
  };
  return JSON.stringify({
    traces: phones.flatMap((e) =>
      dials.map((dial) => trace(exchange, { from: { type: 'extension', id: e.id }, dial, enBloc: false, at: AT })),
    ),
    incoming: read.plan.numbers.map((n) =>
      trace(exchange, { from: { type: 'outside', calling: '+46846500417' }, dial: n.e164, enBloc: true, at: AT }),
    ),
    courses: read.plan.numbers.slice(0, 20).map((n) => wholeCourse(exchange, { type: 'number', e164: n.e164 }, null)),
    problems: problemsOf(exchange),
    partition: partition(hours, [], AT, AT + 300 * 86_400_000),
    queue: simulateQueue(
      queueSpec.parse({
        seed: 3,
        replications: 4,
        hours: 2,
        arrivalsPerHour: [50],
        handleSeconds: { mean: 200, cv: 1.4, law: 'lognormal' },
        agents: 4,
        withinSeconds: 20,
      }),
    ),
  });
}
