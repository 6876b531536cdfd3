import { same } from '@/core/analysis';
import { fold, splitAsk } from '@/core/ask';
import { OBJECTS, labelOf, objectsOf, type AnyObject, type ObjectKind, type Plan } from '@/core/plan';
import type { Landing, Outcome, Trace } from '@/core/routing';
import { maySee } from '../access/areas';
import { Refused, demand, mayEverywhere, type Actor } from '../access/rights';
import { draftPlan, livePlan, type HeldPlan } from '../draft/store';
import { answerIn } from './answer';

/** An answer in one line. */
export interface ShortAnswer {
  outcome: Outcome;
  lands: Landing | null;
  /** such as `after 4 s`, `sends +46…`, or why it can't be asked */
  detail: string;
}

export interface Found {
  kind: ObjectKind;
  id: string;
  label: string;
  word: string;
}

export type AskAnswer =
  | { type: 'found'; found: Found[] }
  | {
      type: 'answer';
      draft: ShortAnswer;
      live: ShortAnswer;
      same: boolean;
      from: string;
      dial: string;
      when: string;
      at: string;
      zone: string;
    }
  | { type: 'unclear'; sentence: string; found: Found[] };

const MOST_FOUND = 8;

/** What the Ask line answers while somebody types. */
export async function ask(actor: Actor, text: string): Promise<AskAnswer> {
  demand(actor, 'ask');
  const parts = splitAsk(text);
  const draft = await draftPlan();
  if (!parts) return { type: 'found', found: findObjects(visible(actor, draft.plan), text) };
  try {
    const [inDraft, inLive] = [
      await short(actor, draft, parts),
      await livePlan().then((live) => short(actor, live, parts)),
    ];
    if (inDraft.refused && inLive.refused) return { type: 'unclear', sentence: inDraft.refused, found: [] };
    const agree = inDraft.trace !== undefined && same(inLive.trace ?? null, inDraft.trace);
    return {
      type: 'answer',
      draft: inDraft.answer,
      live: inLive.answer,
      same: agree,
      ...parts,
      at: inDraft.at ?? inLive.at!,
      zone: inDraft.zone ?? inLive.zone!,
    };
  } catch (e) {
    if (!(e instanceof Refused)) throw e;
    return { type: 'unclear', sentence: e.message, found: [] };
  }
}

/** The plan with only what the actor may look at, for finding things in. */
function visible(actor: Actor, plan: Plan): Plan {
  if (mayEverywhere(actor, 'look')) return plan;
  const out = { ...plan } as unknown as Record<string, AnyObject[]>;
  for (const kind of FINDABLE) {
    const { list } = OBJECTS[kind];
    out[list] = out[list]!.filter((o) => maySee(actor, plan, kind, o));
  }
  return out as unknown as Plan;
}

interface Short {
  answer: ShortAnswer;
  trace?: Trace;
  refused?: string;
  at?: string;
  zone?: string;
}

async function short(
  actor: Actor,
  held: HeldPlan,
  parts: { from: string; dial: string; when: string },
): Promise<Short> {
  try {
    const { trace, at, zone } = await answerIn(actor, held, parts);
    return { answer: { outcome: trace.outcome, lands: trace.lands, detail: detailOf(trace) }, trace, at, zone };
  } catch (e) {
    if (!(e instanceof Refused)) throw e;
    return { answer: { outcome: 'unroutable', lands: null, detail: e.message }, refused: e.message };
  }
}

function detailOf(t: Trace): string {
  if (t.outcome !== 'routed') return `cause ${t.cause?.q850}`;
  const parts = [
    t.secondsWaited > 0 ? `after ${t.secondsWaited} s` : '',
    t.digitsSent ? `sends ${t.digitsSent}` : '',
    t.digitsSent ? `shows ${t.shownNumber ?? 'no number'}` : '',
  ];
  const then = t.then[0];
  if (then) parts.push(`then ${then.lands.label} after ${then.afterSeconds} s`);
  return parts.filter((p) => p !== '').join(', ');
}

const FINDABLE: readonly ObjectKind[] = [
  'extension',
  'person',
  'number',
  'trunk',
  'site',
  'class',
  'inboundRoute',
  'rung',
  'mailbox',
];

/** Objects whose name, digits or number holds the text; those that begin with it first. */
export function findObjects(plan: Plan, text: string): Found[] {
  const wanted = fold(text);
  const digits = text.replace(/[\s\-()./]/g, '').replace(/^0/, '');
  if (wanted === '') return [];
  const found: (Found & { rank: number })[] = [];
  for (const kind of FINDABLE) {
    for (const object of objectsOf(plan, kind)) {
      const label = labelOf(kind, object as AnyObject);
      const folded = fold(label);
      const starts = folded.startsWith(wanted) || folded.split(' ').some((w) => w.startsWith(wanted));
      const holds =
        starts ||
        folded.includes(wanted) ||
        (kind === 'number' && digits.length > 2 && label.replace(/\s/g, '').includes(digits));
      if (holds) found.push({ kind, id: object.id, label, word: OBJECTS[kind].word, rank: starts ? 0 : 1 });
    }
    if (found.length > 200) break;
  }
  return found
    .sort((a, b) => a.rank - b.rank)
    .slice(0, MOST_FOUND)
    .map(({ kind, id, label, word }) => ({ kind, id, label, word }));
}
