import {
  readPlan,
  planJsonSchema,
  planText,
  upgradeDocument,
  PLAN_VERSION,
  type InputError,
  type Plan,
} from '@/core/plan';
import { compile, type Exchange } from '@/core/routing';
import { Refusal, flagsOf, noCommand, readDocument, type Answer } from './answer';

const exchanges = new Map<string, Exchange>();

/** The first error of a plan file as a refusal, with how many more there are. */
function refusal(flag: string, errors: readonly InputError[]): Refusal {
  const [first] = errors;
  const more = errors.length > 1 ? ` (and ${errors.length - 1} more)` : '';
  return new Refusal(first!.code, `${flag} ${first!.path}`.trim(), first!.sentence + more, first!.offset);
}

/** A plan file read and checked. */
export function planOf(path: string, flag: string): Plan {
  const read = readPlan(readDocument(path, flag));
  if (!read.ok) throw refusal(flag, read.errors);
  return read.plan;
}

/** A plan file compiled; kept, since batch asks the same one again and again. */
export function exchangeOf(path: string, flag = '--plan'): Exchange {
  let exchange = exchanges.get(path);
  if (!exchange) {
    exchange = compile(planOf(path, flag));
    exchanges.set(path, exchange);
  }
  return exchange;
}

function answered(value: unknown, text: string): Answer {
  return { exit: 0, value, text };
}

export function plan(args: string[]): Answer {
  const verb = args[0];
  if (verb !== 'schema' && verb !== 'format' && verb !== 'upgrade')
    throw noCommand(verb, ['schema', 'format', 'upgrade'], 'plan ');
  const [file] = flagsOf(args.slice(1), { flags: [], words: verb === 'schema' ? 0 : 1 }).rest;
  if (verb === 'schema') {
    const schema = planJsonSchema();
    return answered(schema, JSON.stringify(schema, null, 2));
  }
  if (file === undefined) throw new Refusal('argument-missing', 'FILE', `A plan file is needed: plan ${verb} FILE.`);
  if (verb === 'upgrade') {
    const upgraded = upgradeDocument(readDocument(file, 'FILE'));
    if (!upgraded.ok) throw refusal('FILE', upgraded.errors);
    if (upgraded.from < PLAN_VERSION)
      process.stderr.write([`from version ${upgraded.from} to ${PLAN_VERSION}`, ...upgraded.notes, ''].join('\n'));
  }
  const text = planText(planOf(file, 'FILE'), 2);
  return answered(JSON.parse(text), text);
}
