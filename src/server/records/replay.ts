import type { CallFilter, ReplayAnswer } from '@/contract/records';
import { clockOf } from '@/core/hours';
import { labelOf, planWith, type Changed } from '@/core/plan';
import { endsAs, extensionNamed, replayOf, type Replay, type ReplayEnd, type ReplayResult } from '@/core/records';
import { compile, type Exchange, type Situation } from '@/core/routing';
import { Refused, demand, may, type Actor } from '../access/rights';
import { reading, rows } from '../db/pool';
import type { Ground, HeldPlan } from '../engine/ground/held';
import { actsSince, differing, pendingActs } from '../engine/ground/pending';
import { sightIn } from '../engine/ground/question';
import { addJob } from '../jobs/jobs';
import type { Handler, Work } from '../jobs/worker';
import { situationOver } from '../state/situation';
import { boundedStretch } from './counts';
import { meantBy, whereOf } from './filter';
import { findRows, keyOf } from './find';
import { recordOf } from './rows';
import { masked, readable } from './sight';

/* Real calls run through the draft: which would end elsewhere than in what is live, or than they did. */

const AT_ONCE = 2000;
const MOST_GROUPS = 200;

type Asked = CallFilter & { against: 'live' | 'record' };

export async function startReplay(actor: Actor, asked: Asked): Promise<{ job: string }> {
  demand(actor, 'ask');
  // What can't be read is said at once.
  boundedStretch(await meantBy(actor, asked));
  return addJob(actor, 'replay', { ...asked });
}

/** Runs the calls that are meant through the draft, the newest first. */
export const replayCalls =
  (ground: Ground): Handler =>
  async (input, { actor, onProgress }) => {
    const { against, ...filter } = input as unknown as Asked;
    if (!may(actor, 'ask')) throw new Refused(403, 'not-allowed', 'Your role may not ask about calls.');
    const meant = boundedStretch(await meantBy(actor, filter));
    const { sql, values } = whereOf(meant);
    const [counted] = await reading((c) =>
      rows<{ calls: number }>(c, `SELECT COUNT(*) AS calls FROM call_record WHERE ${sql}`, values),
    );
    const total = Number(counted!.calls);
    await onProgress(0, total, 'preparing the plans');
    const { draft, live } = await ground.now();
    const beside = await situationOver({ from: meant.from!, to: meant.to! });
    const run = replayOf({ plan: draft.exchange(), against: against === 'live' ? live.exchange() : null, beside });
    const days = new Map<string, { calls: number; changed: number }>();
    const clock = clockOf(meant.zone);
    let [done, before] = [0, ''];
    for (;;) {
      const { rows: found, next } = await findRows(meant, { columns: '*', before, count: AT_ONCE, patient: true });
      // In the order of time: what hours say is looked up once for each stretch of them.
      for (const row of found.reverse()) {
        if (row.erased === 1) continue;
        const changed = run.take({ ...recordOf(row), id: keyOf(row) });
        const at = (row.started as Date).getTime();
        const day = new Date(at + clock.offsetAt(at) * MINUTE).toISOString().slice(0, 10);
        const known = days.get(day) ?? { calls: 0, changed: 0 };
        days.set(day, { calls: known.calls + 1, changed: known.changed + (changed ? 1 : 0) });
      }
      done += found.length;
      await onProgress(done, total, `${done.toLocaleString('en')} calls`);
      if (next === null) break;
      before = next;
    }
    const result = run.result();
    const behind = against === 'live' ? await actsBehind({ draft, live }, run, { actor, beside, onProgress }) : [];
    const exchange = draft.exchange();
    const answer = answerOf(result, behind, (from) => callerIn(exchange, from), {
      days: [...days].map(([day, d]) => ({ day, ...d })).sort((a, b) => (a.day < b.day ? -1 : 1)),
      from: new Date(meant.from!).toISOString(),
      to: new Date(meant.to!).toISOString(),
      against,
      draft: draft.version,
      revision: live.version,
    });
    const cut = sightIn(draft, actor).cut(answer);
    return (meant.sight.numbers === 'all' ? cut : withoutOutside(cut, exchange)) as unknown as Record<string, unknown>;
  };

const isInward = (from: string) => from === 'withheld' || from.startsWith('outside:');

/** Who called, in words: a phone by its digits and name, a number as people write it. */
function callerIn(exchange: Exchange, from: string): string {
  const phone = extensionNamed(exchange, from);
  if (phone) return labelOf('extension', phone);
  return from === 'withheld' ? 'a withheld number' : readable(from.replace(/^outside:/, ''));
}

/** Acts that are tried one by one; more would take longer than anybody waits. */
const MOST_ACTS = 25;

/** For each group the acts of the draft without any of which its example would end as it does live. */
async function actsBehind(
  { draft, live }: { draft: HeldPlan; live: HeldPlan },
  run: Replay,
  { actor, beside, onProgress }: { actor: Actor; beside: (at: number) => Situation; onProgress: Work['onProgress'] },
): Promise<string[][]> {
  const { groups } = run.result();
  const examples = run.examples().slice(0, MOST_GROUPS);
  const names = examples.map((): string[] => []);
  if (groups.length === 0) return names;
  const acts = pendingActs(differing(live.plan, draft.plan), await actsSince(live, draft), sightIn(draft, actor));
  if (acts.length > MOST_ACTS) return names;
  for (const [done, act] of acts.entries()) {
    await onProgress(done, acts.length, `finding the edits behind ${groups.length} groups`);
    const without = act.differences.map((d): Changed => ({
      kind: d.kind,
      id: d.id,
      value: d.before as Changed['value'],
    }));
    const plan = compile(planWith(draft.plan, without), draft.exchange());
    for (const [i, record] of examples.entries())
      if (endsAs(groups[i]!.was, record, { plan, against: null, beside }))
        names[i]!.push(`${act.name} (${act.account === actor.account ? 'you' : act.by})`);
  }
  return names.map((list) => [...new Set(list)]);
}

const MINUTE = 60_000;

const endOf = ({ outcome, lands, trunk, shownNumber, afterSeconds }: ReplayEnd) => ({
  outcome,
  lands,
  trunk,
  shownNumber,
  afterSeconds,
});

function answerOf(
  { calls, changed, lost, groups, unexplained }: ReplayResult,
  behind: readonly (readonly string[])[],
  named: (from: string) => string,
  about: Pick<ReplayAnswer, 'from' | 'to' | 'against' | 'draft' | 'revision' | 'days'>,
): ReplayAnswer {
  return {
    ...about,
    calls,
    changed,
    lost,
    groups: groups.slice(0, MOST_GROUPS).map((g, i) => ({
      count: g.count,
      key: g.example.id,
      inward: isInward(g.example.call.from),
      from: named(g.example.call.from),
      dial: readable(g.example.call.dial),
      at: g.example.call.at,
      was: endOf(g.was),
      willBe: endOf(g.willBe),
      acts: [...(behind[i] ?? [])],
    })),
    moreGroups: Math.max(0, groups.length - MOST_GROUPS),
    unexplained: unexplained.slice(0, MOST_GROUPS).map((u) => ({
      code: u.code,
      count: u.count,
      why: u.why,
      key: u.example,
    })),
    moreUnexplained: Math.max(0, unexplained.length - MOST_GROUPS),
  };
}

/** The same without the numbers of other parties. */
function withoutOutside(answer: ReplayAnswer, exchange: Exchange): ReplayAnswer {
  const hidden = (end: ReplayEnd): ReplayEnd => ({
    ...end,
    // A forwarded call may show its caller.
    shownNumber: end.shownNumber !== null && exchange.numberByE164.has(end.shownNumber) ? end.shownNumber : null,
    lands:
      end.lands?.kind === 'outside'
        ? { ...end.lands, digits: null, label: end.lands.label.replace(NUMBER, masked) }
        : end.lands,
  });
  return {
    ...answer,
    groups: answer.groups.map((g) => ({
      ...g,
      from: g.inward && g.from !== 'a withheld number' ? masked(g.from.replace(/ /g, '')) : g.from,
      // What a phone of ours dialled is perhaps a number outside.
      dial: g.inward ? g.dial : '…',
      was: hidden(g.was),
      willBe: hidden(g.willBe),
    })),
    unexplained: answer.unexplained.map((u) =>
      u.code === 'no-such-digits' ? { ...u, why: 'What was dialled can’t be dialled.' } : u,
    ),
  };
}

/** A number with its country in a text. */
const NUMBER = /\+[0-9][0-9 ]{5,}[0-9]/g;
