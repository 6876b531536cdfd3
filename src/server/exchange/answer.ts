import { readCall, type Question } from '@/core/ask';
import { trace, type Situation, type Trace } from '@/core/routing';
import { demandFor } from '../access/areas';
import { Refused, type Actor } from '../access/rights';
import { draftPlan, livePlan, revisionPlan, type HeldPlan } from '../draft/store';
import { situationAt } from '../state/forwarding';

/** The draft, what is live, or a revision by number. */
export async function planOf(which: string): Promise<HeldPlan> {
  if (which === 'draft') return draftPlan();
  return which === 'live' ? livePlan() : revisionPlan(Number(which));
}

export interface Answered {
  trace: Trace;
  /** the moment asked about, ISO 8601 in UTC */
  at: string;
  /** zone in which the time was read */
  zone: string;
}

/** Answers one question in one plan; state beside the plan is taken as it is at that moment unless a situation is given. */
export async function answerIn(
  actor: Actor,
  held: HeldPlan,
  question: Question,
  situation?: Situation,
): Promise<Answered> {
  const read = readCall(question, held.exchange(), Date.now());
  if (!read.ok)
    throw new Refused(
      422,
      `bad-${read.path}`,
      read.sentence,
      read.path,
      read.offset === undefined ? undefined : { offset: read.offset },
    );
  if (read.call.from.type === 'extension') {
    const caller = held.exchange().extensions.get(read.call.from.id)!;
    demandFor(actor, 'ask', held.plan, 'extension', caller);
  }
  const known = situation ?? (await situationAt(read.call.at));
  return { trace: trace(held.exchange(), read.call, known), at: new Date(read.call.at).toISOString(), zone: read.zone };
}
