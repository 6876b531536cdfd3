import type { Plan, PlanIndex } from '@/core/plan';
import { Sight, sightOf } from '../../access/sight';
import type { Actor } from '../../access/rights';
import type { Versions } from '../../db/versions';
import { Ground, type HeldPlan } from './held';

/** What a question is answered from: draft and live of one moment. */
export interface Given {
  draft: HeldPlan;
  live: HeldPlan;
  index(): PlanIndex;
  revision(number: number): Promise<HeldPlan>;
}

/** Something asked of the held plans. Inputs and answers are plain data: they cross between processes. */
export type Question<I, A> = (given: Given, input: I) => A | Promise<A>;

/** What every question says: who asks. */
export interface By {
  reader: Actor;
}

/** Asks in this process: the threads of the engine do, and so does work that has a process of its own. */
export async function answerHere<I, A>(ground: Ground, question: Question<I, A>, input: I, at?: Versions): Promise<A> {
  const { draft, live } = await ground.now(at);
  return question(
    { draft, live, index: () => ground.indexOf(draft), revision: (number) => ground.revision(number) },
    input,
  );
}

/** The draft or the live plan as a reader sees it. */
export const sightIn = (held: HeldPlan, reader: Actor): Sight => sightOf(reader, held.plan);

interface Kept {
  beside: readonly unknown[];
  answer: unknown;
}

const kept = new WeakMap<Plan, Map<string, Kept[]>>();
/** Answers of one name that are kept side by side, such as those as things are now and those as they are as a rule. */
const MOST_KEPT = 3;

/** An answer made once for a plan and what stands beside it (such as the live plan, or what holds now), and kept as long as both hold. */
export function keptFor<A>(plan: Plan, name: string, beside: readonly unknown[], make: () => A): A {
  const answers = kept.get(plan) ?? new Map<string, Kept[]>();
  kept.set(plan, answers);
  const known = answers.get(name) ?? [];
  const found = known.find((k) => k.beside.length === beside.length && k.beside.every((b, i) => b === beside[i]));
  const one = found ?? { beside, answer: make() };
  answers.set(name, [one, ...known.filter((k) => k !== one)].slice(0, MOST_KEPT));
  // What went wrong is asked again, not kept.
  if (!found && one.answer instanceof Promise)
    one.answer.catch(() =>
      answers.set(
        name,
        answers.get(name)!.filter((k) => k !== one),
      ),
    );
  return one.answer as A;
}
