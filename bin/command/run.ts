import { Refusal, noCommand, ofName, type Answer } from './answer';
import { atlasCommand } from './atlas';
import { check } from './check';
import { course } from './course';
import { digits } from './digits';
import { hours } from './hours';
import { drillCommand } from './drill';
import { impactCommand } from './impact';
import { promisesCommand } from './promises';
import { load } from './load';
import { number } from './number';
import { plan } from './plan';
import { replayCommand } from './replay';
import { traceCommand } from './trace';
import { trafficCommand } from './traffic';

const GROUPS: Record<string, (args: string[]) => Answer> = {
  digits,
  number,
  hours,
  load,
  trace: traceCommand,
  course,
  check,
  atlas: atlasCommand,
  drill: drillCommand,
  impact: impactCommand,
  promises: promisesCommand,
  replay: replayCommand,
  traffic: trafficCommand,
  plan,
};

/** One command by its arguments: never throws on bad input, which becomes an error answer with exit 2. */
export function answer(args: string[]): Answer {
  const run = ofName(GROUPS, args[0]);
  try {
    if (!run) throw noCommand(args[0], [...Object.keys(GROUPS), 'batch']);
    return run(args.slice(1).filter((a) => a !== '--json'));
  } catch (e) {
    if (!(e instanceof Refusal)) throw e;
    return { exit: 2, value: { error: e.error }, text: e.error.sentence };
  }
}
