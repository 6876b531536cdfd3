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

const kept = new WeakMap<Plan, Map<string, { beside: unknown; answer: unknown }>>();

/** An answer made once for a plan (and what stands beside it, such as the live plan), and kept as long as it holds. */
export function keptFor<A>(plan: Plan, name: string, beside: unknown, make: () => A): A {
  const answers = kept.get(plan) ?? new Map<string, { beside: unknown; answer: unknown }>();
  kept.set(plan, answers);
  const known = answers.get(name);
  if (known && known.beside === beside) return known.answer as A;
  const answer = make();
  answers.set(name, { beside, answer });
  // What went wrong is asked again, not kept.
  if (answer instanceof Promise) answer.catch(() => answers.delete(name));
  return answer;
}
