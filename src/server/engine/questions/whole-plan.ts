import type { Answer } from '@/contract';
import type { WholeEdit } from '@/contract/plan';
import { readCall } from '@/core/ask';
import { differences, type Difference } from '@/core/plan';
import {
  AHEAD_MS,
  DRILL_MS,
  drillOf,
  drillsOf,
  promiseFrom,
  promiseWords,
  type Drill,
  type DrillResult,
  concernsMany,
  type ImpactGroup,
} from '@/core/proof';
import { Refused } from '../../access/rights';
import { actsSince, editorsOf } from '../ground/pending';
import { goingOn } from '../ground/going-on';
import { keptFor, sightIn, type By, type Given } from '../ground/question';
import { groupsBetween } from '../ground/impact-between';
import { besides, hourOf, verdictsOf, type Moment } from '../ground/verdicts';
import { breakingOf, sinceOf } from '../ground/broken-since';
import { seesCall } from '../ground/sees-call';
import { heldOf } from './held-of';

/* What can be said of all calls of a plan: what an edit moves, what is promised, what breaks. Answers hold for an hour. */

type Now = By & Moment;

/** Phones above which edits that may concern every call are looked at only where somebody asks for their impact. */
const MANY_PHONES = 3000;

/** Every kind of call that ends otherwise in one plan than in another. */
export async function impact(given: Given, input: Now & { from: string; to: string }): Promise<Answer<'impact'>> {
  const [was, willBe] = [await heldOf(given, input.from), await heldOf(given, input.to)];
  const edits = differences(was.plan, willBe.plan);
  const groups = groupsBetween(was, willBe, edits, input);
  const sight = sightIn(willBe, input.reader);
  const acts = input.from === 'live' && input.to === 'draft' ? await actsSince(given.live, given.draft) : null;
  const editor = (e: ImpactGroup['edits'][number]) =>
    acts && (editorsOf(acts, e as Pick<Difference, 'kind' | 'id'>).names.at(-1) ?? null);
  return sight.cut({
    groups: groups
      .filter((g) => seesCall(sight, g.example.call))
      .map((g) => ({ ...g, edits: g.edits.map((e) => ({ ...e, by: editor(e) })) })),
    edits: edits.length,
    sites: Object.fromEntries(sight.list('site').map((s) => [s.id, s.name])),
  });
}

/** What the draft does to calls, in short: how many kinds of them end otherwise, and which promises it breaks. */
export function effect({ draft, live }: Given, input: Now): Answer<'effect'> {
  const sight = sightIn(draft, input.reader);
  const edits = differences(live.plan, draft.plan);
  const tooMany = draft.plan.extensions.length > MANY_PHONES && concernsMany([live.plan, draft.plan], edits);
  const groups = tooMany ? null : groupsBetween(live, draft, edits, input);
  const broken = verdictsOf(draft, input).filter(
    (v) =>
      !v.holds &&
      sight.sees(
        'promise',
        draft.plan.promises.find((p) => p.id === v.id)!,
      ),
  );
  return sight.cut({
    groups: groups && groups.filter((g) => seesCall(sight, g.example.call)).length,
    broken: broken.map(({ id, name, firm }) => ({ id, name, firm })),
  });
}

/** Whether each promise of a plan holds. */
export async function promises(given: Given, input: Now & { of: string }): Promise<Answer<'promises'>> {
  const held = await heldOf(given, input.of);
  const sight = sightIn(held, input.reader);
  const out: Answer<'promises'>['promises'] = [];
  for (const v of verdictsOf(held, input)) {
    const promise = held.plan.promises.find((p) => p.id === v.id)!;
    if (!sight.sees('promise', promise)) continue;
    const counterexample = v.counterexample && seesCall(sight, v.counterexample.call) ? v.counterexample : null;
    const { brokenBy, sinceRevision } = v.holds
      ? { brokenBy: [], sinceRevision: null }
      : input.of === 'draft'
        ? await breakingOf(given, promise, input)
        : { brokenBy: [], sinceRevision: input.of === 'live' ? await sinceOf(given, promise, input) : null };
    const seen = brokenBy.filter(({ edit: e }) => sight.sees(e.kind, (e.after ?? e.before)!));
    const edits = seen.map(({ edit, label, by }) => ({ kind: edit.kind, id: edit.id, label, by }));
    out.push({ ...v, counterexample, brokenBy: edits, sinceRevision });
  }
  return sight.cut({ promises: out });
}

/** The promise that a call of the draft stays as it goes now, as an edit of the draft. */
export function promiseFromCall(
  { draft }: Given,
  input: Now & { id: string; from: string; dial: string; at: string; map: string | null },
): { edits: WholeEdit[]; sentence: string } {
  const exchange = draft.exchange();
  const read = readCall({ from: input.from, dial: input.dial, when: input.at }, exchange, input.now);
  if (!read.ok) throw new Refused(422, `bad-${read.path}`, read.sentence, read.path);
  if (!seesCall(sightIn(draft, input.reader), { from: input.from, dial: input.dial }))
    throw new Refused(404, 'no-such-call', 'There is no such phone or number.', 'from');
  const from = hourOf(input.now);
  const checking = { exchange, situation: input.situation, span: { from, to: from + AHEAD_MS } };
  const promise = promiseFrom(checking, read.call, input.id, input.map);
  if (!promise)
    throw new Refused(
      409,
      'not-so',
      'It does not always go so, nor while hours that it meets say open or closed: make a promise by hand, and say when.',
      'dial',
    );
  return {
    edits: [{ kind: 'promise', id: promise.id, rowVersion: null, value: promise }],
    sentence: promiseWords(draft.plan, promise),
  };
}

/** What can be taken out of order. */
export async function drills(given: Given, { reader, of }: By & { of: string }): Promise<Answer<'drills'>> {
  const held = await heldOf(given, of);
  return sightIn(held, reader).cut({ drills: drillsOf(held.exchange()).map(plain) });
}

const plain = ({ kind, out, label }: Drill) => ({ kind, out: [...out], label });

/** What breaks while one thing is out of order. */
export async function drill(
  given: Given,
  input: Now & { of: string; kind: Drill['kind']; out: string },
): Promise<Answer<'drill'>> {
  const held = await heldOf(given, input.of);
  const found = drillsOf(held.exchange()).find((d) => d.kind === input.kind && d.out.join() === input.out);
  if (!found)
    throw new Refused(404, 'no-such-object', `The plan has no ${input.kind} ${input.out} to take out of order.`, 'out');
  const from = hourOf(input.now);
  const result = keptFor(held.plan, `drill ${found.kind} ${input.out}`, [besides(input)], (): DrillResult =>
    drillOf(
      {
        exchange: held.exchange(),
        situation: input.situation,
        span: { from, to: from + DRILL_MS },
        progress: goingOn,
      },
      found,
    ),
  );
  const sight = sightIn(held, input.reader);
  const { groups, emergency, channels, stranded } = result;
  const { sites } = held.exchange();
  const withSiteName = <T extends { site: string }>(of: T) => ({ ...of, siteName: sites.get(of.site)!.name });
  return sight.cut({
    ...plain(found),
    groups: groups.filter((g) => seesCall(sight, g.example.call)),
    emergency: emergency.map(withSiteName),
    channels: { ...channels, sites: channels.sites.map(withSiteName) },
    stranded,
  });
}
