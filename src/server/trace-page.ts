import { courseOf, type Course } from '@/core/course';
import { readCall } from '@/core/ask';
import { same } from '@/core/analysis';
import { trace, type Trace } from '@/core/routing';
import { whereIs } from './access/areas';
import { demand, may, type Actor } from './access/rights';
import { draftPlan, livePlan, type HeldPlan } from './draft';
import { pageActor } from './page';
import { situationAt } from './state/forwarding';

interface OneAnswer {
  trace: Trace;
  course: Course;
}

/** A question as asked in the address, answered in live and draft. */
export async function traceData(asked: { from?: string; dial?: string; at?: string }) {
  const actor = await pageActor();
  demand(actor, 'ask');
  const question = { from: asked.from ?? '', dial: asked.dial ?? '', at: asked.at ?? 'now' };
  const [draft, live] = await Promise.all([draftPlan(), livePlan()]);
  const phones = draft.plan.extensions.map((e) => ({ digits: e.digits, label: `${e.digits} ${e.name}` }));
  if (question.from === '' && question.dial === '') return { question, phones, answer: null, refused: null };
  const inDraft = await answer(actor, draft, question);
  const inLive = await answer(actor, live, question);
  if ('refused' in inDraft && 'refused' in inLive) return { question, phones, answer: null, refused: inDraft.refused };
  const of = (a: Asked): OneAnswer | null => ('refused' in a ? null : { trace: a.trace, course: a.course });
  const [d, l] = [of(inDraft), of(inLive)];
  const known = ('refused' in inDraft ? inLive : inDraft) as Exclude<Asked, { refused: string }>;
  return {
    question,
    phones,
    refused: null,
    answer: {
      draft: d,
      live: l,
      same: d !== null && same(l?.trace ?? null, d.trace),
      at: known.at,
      zone: known.zone,
      why: 'refused' in inLive ? inLive.refused : 'refused' in inDraft ? inDraft.refused : null,
    },
  };
}

type Asked = { refused: string } | (OneAnswer & { at: string; zone: string });

async function answer(
  actor: Actor,
  held: HeldPlan,
  question: { from: string; dial: string; at: string },
): Promise<Asked> {
  const x = held.exchange();
  const read = readCall({ from: question.from, dial: question.dial, when: question.at }, x, Date.now());
  if (!read.ok) return { refused: read.sentence };
  if (read.call.from.type === 'extension') {
    const caller = x.extensions.get(read.call.from.id)!;
    if (!may(actor, 'ask', whereIs(held.plan, 'extension', caller)))
      return { refused: 'You may not ask as a phone of this site.' };
  }
  const t = trace(x, read.call, await situationAt(read.call.at));
  return { trace: t, course: courseOf(x, read.call, t), at: new Date(read.call.at).toISOString(), zone: read.zone };
}
