import { same } from '@/core/analysis';
import { readCall, splitAsk, type Question as CallQuestion } from '@/core/ask';
import { courseOf, type Course } from '@/core/course';
import type { AskAnswer, ShortAnswer } from '@/contract/calls';
import { causeInWords } from '@/core/exchange';
import { situationErrors, trace, type Exchange, type Situation, type Trace } from '@/core/routing';
import { demandFor } from '../../access/areas';
import { Refused } from '../../access/rights';
import { findObjects } from '../ground/find';
import type { HeldPlan } from '../ground/held';
import { sightIn, type By, type Given } from '../ground/question';
import { heldOf } from './held-of';

/* What happens to calls: asked in the draft, in live, or in a revision. */

/** A question about a call with what holds at its moment; `situations` are by the moment that was read from it. */
export interface AskedCall extends By {
  question: CallQuestion;
  now: number;
  /** what holds now, taken for any moment that is not in the past */
  situation: Situation;
  /** whoever asks made the situation up: an id in it that the plan doesn't have is refused */
  isGiven?: boolean;
  /** every rule that did not fit is told one by one (ENGINE E13) */
  everyRule?: boolean;
}

interface Answered {
  exchange: Exchange;
  call: Parameters<typeof trace>[1];
  trace: Trace;
  /** the moment asked about, ISO 8601 in UTC */
  at: string;
  /** zone in which the time was read */
  zone: string;
}

/** Answers one question in one plan; 422 with the part that can't be read. */
function answerIn(held: HeldPlan, { question, now, situation, isGiven, everyRule, reader }: AskedCall): Answered {
  const exchange = held.exchange();
  const read = readCall(question, exchange, now);
  if (!read.ok)
    throw new Refused(
      422,
      `bad-${read.path}`,
      read.sentence,
      read.path,
      read.offset === undefined ? undefined : { offset: read.offset },
    );
  if (read.call.from.type === 'extension')
    demandFor(reader, 'ask', held.plan, 'extension', exchange.extensions.get(read.call.from.id)!);
  const [wrong] = isGiven ? situationErrors(exchange, situation) : [];
  if (wrong) throw new Refused(422, wrong.code, wrong.sentence, `situation.${wrong.path}`);
  const t = trace(exchange, read.call, situation, everyRule);
  return { exchange, call: read.call, trace: t, at: new Date(read.call.at).toISOString(), zone: read.zone };
}

/** The moment that a question is about, in milliseconds since 1970 UTC; what holds then is looked up by it. */
export function momentOf(
  { draft, live }: Given,
  { question, now, of }: { question: CallQuestion; now: number; of: string },
) {
  const read = readCall(question, (of === 'live' ? live : draft).exchange(), now);
  return read.ok ? read.call.at : now;
}

/** One trace in the draft, in live or in a revision. */
export async function traceOf(given: Given, input: AskedCall & { of: string }): Promise<Trace & { at: string }> {
  const held = await heldOf(given, input.of);
  const answered = answerIn(held, input);
  return sightIn(held, input.reader).cut({ ...answered.trace, at: answered.at });
}

/** One call with its course, as its caller and those who are called act; what holds at its moment counts beside. */
export async function rehearsal(given: Given, { does, of, ...input }: AskedCall & { of: string; does: Situation }) {
  const held = await heldOf(given, of);
  const [wrong] = situationErrors(held.exchange(), does);
  if (wrong) throw new Refused(422, wrong.code, wrong.sentence, `does.${wrong.path}`);
  const {
    exchange,
    call,
    trace: t,
    at,
    zone,
  } = answerIn(held, { ...input, situation: { ...input.situation, ...does } });
  return sightIn(held, input.reader).cut({ trace: t, course: courseOf(exchange, call, t), at, zone });
}

export interface OneAnswer {
  trace: Trace;
  course: Course;
}

type Asked = { refused: string } | (OneAnswer & { at: string; zone: string });

/** The same call in two plans, each with its course: `of` is asked about, `beside` is what it is held against. */
export async function traceBoth(given: Given, input: AskedCall & { of: string; beside: string }) {
  const ask = async (of: string): Promise<Asked> => {
    try {
      const held = await heldOf(given, of);
      const { exchange, call, trace: t, at, zone } = answerIn(held, input);
      return sightIn(held, input.reader).cut({ trace: t, course: courseOf(exchange, call, t), at, zone });
    } catch (e) {
      if (!(e instanceof Refused)) throw e;
      return { refused: e.message };
    }
  };
  const [shown, other] = [await ask(input.of), await ask(input.beside)];
  if ('refused' in shown && 'refused' in other) return { answer: null, refused: shown.refused };
  const answerOf = (a: Asked): OneAnswer | null => ('refused' in a ? null : { trace: a.trace, course: a.course });
  const [s, o] = [answerOf(shown), answerOf(other)];
  const known = ('refused' in shown ? other : shown) as Exclude<Asked, { refused: string }>;
  return {
    refused: null,
    answer: {
      shown: s,
      other: o,
      same: s !== null && same(o?.trace ?? null, s.trace),
      at: known.at,
      zone: known.zone,
      why: 'refused' in other ? other.refused : 'refused' in shown ? shown.refused : null,
    },
  };
}

interface Short {
  answer: ShortAnswer;
  trace?: Trace;
  refused?: string;
  at?: string;
  zone?: string;
}

/** What the Ask line answers while somebody types. */
export function askLine(given: Given, input: Omit<AskedCall, 'question'> & { text: string }): AskAnswer {
  const { draft, live } = given;
  const sight = sightIn(draft, input.reader);
  const parts = splitAsk(input.text);
  if (!parts) return { type: 'found', found: findObjects(sight, input.text) };
  const short = (held: HeldPlan): Short => {
    try {
      const { trace: t, at, zone } = answerIn(held, { ...input, question: parts });
      return { answer: { outcome: t.outcome, lands: t.lands, detail: detailOf(t) }, trace: t, at, zone };
    } catch (e) {
      if (!(e instanceof Refused)) throw e;
      return { answer: { outcome: 'unroutable', lands: null, detail: e.message }, refused: e.message };
    }
  };
  const [inDraft, inLive] = [short(draft), short(live)];
  if (inDraft.refused && inLive.refused) return { type: 'unclear', sentence: inDraft.refused, found: [] };
  return sight.cut({
    type: 'answer',
    draft: inDraft.answer,
    live: inLive.answer,
    same: inDraft.trace !== undefined && same(inLive.trace ?? null, inDraft.trace),
    ...parts,
    at: inDraft.at ?? inLive.at!,
    zone: inDraft.zone ?? inLive.zone!,
  });
}

function detailOf(t: Trace): string {
  // The last step says why: a class that does not let it out, a number that takes no calls.
  if (t.outcome !== 'routed')
    return [t.steps.at(-1)?.sentence ?? '', t.cause ? causeInWords(t.cause) : ''].filter(Boolean).join(' ');
  const parts = [
    t.secondsWaited > 0 ? `after ${t.secondsWaited} s` : '',
    t.digitsSent ? `sends ${t.digitsSent}` : '',
    t.digitsSent ? `shows ${t.shownNumber ?? 'no number'}` : '',
  ];
  const then = t.then[0];
  if (then) parts.push(`then ${then.lands.label} after ${then.afterSeconds} s`);
  return parts.filter((p) => p !== '').join(', ');
}
