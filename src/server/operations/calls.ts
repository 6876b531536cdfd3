import type { callFacts } from '@/contract/calls';
import type { Question } from '@/core/ask';
import type { Situation } from '@/core/routing';
import type { Actor } from '../access/rights';
import { ask } from '../engine';
import { setForwarding } from '../state/forwarding';
import { situationAt } from '../state/situation';
import { setPin } from '../state/pin';
import type { Handlers } from './handler';

/** One trace; state beside the plan is taken as it is at its moment unless a situation is given. */
export async function traceOf(
  actor: Actor,
  of: string,
  question: Question,
  { situation, everyRule }: { situation?: Situation | undefined; everyRule?: boolean | undefined },
  signal: AbortSignal,
) {
  const now = Date.now();
  const holds = situation ?? (await situationAt(await momentOf(question, now, of)));
  const input = { reader: actor, of, question, now, situation: holds, isGiven: situation !== undefined, everyRule };
  return ask('traceOf', input, { signal });
}

/** The moment a question is about; what is asked of now needs no look-up. */
export async function momentOf(question: Question, now: number, of = 'draft'): Promise<number> {
  return ['', 'now'].includes(question.when.trim().toLowerCase()) ? now : ask('momentOf', { question, now, of });
}

export const callHandlers: Handlers<keyof typeof callFacts> = {
  traceGet: ({ actor, query: q, request }) =>
    traceOf(actor, q.of, { from: q.from, dial: q.dial, when: q.at, calling: q.calling }, q, request.signal),
  tracePost: ({ actor, body: b, request }) =>
    traceOf(
      actor,
      b.of,
      { from: b.from, dial: b.dial, when: b.at, calling: b.calling, enBloc: b.enBloc, withhold: b.withhold },
      b,
      request.signal,
    ),
  rehearse: async ({ actor, body: { from, dial, at, of, calling, does }, request }) => {
    const now = Date.now();
    const question = { from, dial, when: at, calling };
    const situation = await situationAt(await momentOf(question, now, of));
    return ask('rehearsal', { reader: actor, of, question, now, situation, does }, { signal: request.signal });
  },
  ask: async ({ actor, query, request }) => {
    const now = Date.now();
    const input = { reader: actor, text: query.text, now, situation: await situationAt(now) };
    // Whoever types on asks something else and takes this back: what still waits then is forgotten.
    return ask('askLine', input, { signal: request.signal });
  },
  forwarding: ({ actor, body, params }) => setForwarding(actor, params.id, body),
  pin: ({ actor, body, params }) => setPin(actor, params.id, body.pin),
};
