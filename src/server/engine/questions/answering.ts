import { agentsOfQueue, fieldsOf, levelOf, mainSite } from '@/core/plan';
import { choiceWords } from '@/core/plan/facts/choice-words';
import { nameOf } from '@/core/routing';
import { sightIn, type By, type Given } from '../ground/question';
import { optionsFor } from '../ground/options';
import { objectPage } from './objects';
import { markOf, shortLedger } from './short-ledger';

/* Who answers: queues, ring groups and reach plans, the lists of them and what their pages need. */

const people = (n: number, word: string) => `${n} ${word}${n === 1 ? '' : 's'}`;

/** All queues: who takes their calls, how calls are offered, and how long callers wait at most. */
export function queues(given: Given, { reader }: By) {
  const x = given.draft.exchange();
  const lead = (id: string | null) => (id ? nameOf(x, id) : '');
  return sightIn(given.draft, reader).cut(
    shortLedger(
      given,
      reader,
      'queue',
      (o) => ({
        name: o.name,
        digits: o.digits ?? '',
        site: x.sites.get(o.site)!.name,
        agents: people(agentsOfQueue(o).length, 'agent'),
        offers: `${choiceWords(o.strategy)}, ${o.ringSeconds} s each`,
        waits:
          o.longestWaitSeconds === null
            ? 'until answered'
            : `${o.longestWaitSeconds} s, then ${lead(o.waitedTooLong) || 'released'}`,
        nobody: lead(o.nobodySignedIn) || 'released',
      }),
      ['name', 'site', 'digits', 'strategy'],
      { site: mainSite(given.draft.plan)?.id, strategy: 'longest idle' },
    ),
  );
}

/** One queue, with how long its introduction lasts. */
export function queuePage(given: Given, { reader, id }: By & { id: string }) {
  const data = objectPage(given, { kind: 'queue', id, reader });
  if (!data) return null;
  const intro = data.object.intro as string | null;
  return { data, introSeconds: intro === null ? null : (given.draft.exchange().prompts.get(intro)?.seconds ?? null) };
}

/** What a queue says of its own load: how calls are offered, how long callers wait at most, how many agents it has. */
export function staffingPage({ draft }: Given, { reader, id }: By & { id: string }) {
  const queue = sightIn(draft, reader)
    .list('queue')
    .find((q) => q.id === id);
  if (!queue) return null;
  const { name, strategy, wrapUpSeconds, longestWaitSeconds, mostWaiting } = queue;
  const all = agentsOfQueue(queue);
  const at = (level: number) => all.filter((a) => levelOf(queue, a) === level).length;
  const levels = [
    { agents: at(2), afterSeconds: queue.secondAfterSeconds },
    { agents: at(3), afterSeconds: queue.thirdAfterSeconds },
  ].filter((l) => l.agents > 0);
  return { id, name, queue: { strategy, wrapUpSeconds, longestWaitSeconds, mostWaiting, levels, agents: at(1) } };
}

/** All ring groups: whose phones ring and how, and where the caller goes when nobody answers. */
export function ringGroups(given: Given, { reader }: By) {
  const x = given.draft.exchange();
  return sightIn(given.draft, reader).cut(
    shortLedger(
      given,
      reader,
      'ringGroup',
      (o) => ({
        name: o.name,
        digits: o.digits ?? '',
        site: x.sites.get(o.site)!.name,
        members: people(o.members.length + o.outside.length, 'member'),
        rings: `${choiceWords(o.order)}, ${o.ringSeconds} s${o.order === 'in turn' || o.order === 'at random' ? ' each' : ''}`,
        then: o.noAnswer ? nameOf(x, o.noAnswer) : 'released',
      }),
      ['name', 'site', 'digits', 'order'],
      { site: mainSite(given.draft.plan)?.id, order: 'all at once' },
    ),
  );
}

/** All reach plans: whom each looks for, in how many steps, and where the caller goes then. */
export function reachPlans(given: Given, { reader }: By) {
  const x = given.draft.exchange();
  const whose = new Map(given.draft.plan.extensions.flatMap((e) => (e.reachPlan ? [[e.reachPlan, e] as const] : [])));
  return sightIn(given.draft, reader).cut(
    shortLedger(
      given,
      reader,
      'reachPlan',
      (o) => {
        const e = whose.get(o.id);
        const steps = x.reachSteps.get(o.id) ?? [];
        return {
          name: o.name,
          digits: o.digits ?? '',
          site: x.sites.get(o.site)!.name,
          whose: e ? `${e.digits ?? ''} ${e.name}`.trim() : 'nobody yet',
          steps: steps.map((s) => nameOf(x, (s.extension ?? s.outside)!)).join(', '),
          then: o.end ? nameOf(x, o.end) : 'released',
        };
      },
      ['name', 'site', 'end'],
      { site: mainSite(given.draft.plan)?.id },
    ),
  );
}

/** One reach plan with its steps, and whose it is. */
export function reachPlanPage(given: Given, { reader, id }: By & { id: string }) {
  const data = objectPage(given, { kind: 'reachPlan', id, reader });
  if (!data) return null;
  const { draft, live } = given;
  const x = draft.exchange();
  const sight = sightIn(draft, reader);
  const steps = x.reachSteps.get(id) ?? [];
  const before = new Map(live.plan.reachSteps.map((s) => [s.id, s]));
  const used = new Set(
    steps.flatMap((s) => [(s.extension ?? s.outside)!, ...(s.hours ? [s.hours] : []), ...s.presences]),
  );
  return sight.cut({
    data,
    steps: steps.map((value) => ({
      value,
      rowVersion: draft.rowVersions.of('reachStep', value.id)!,
      mark: markOf(before.get(value.id), value),
    })),
    stepFields: fieldsOf('reachStep'),
    choices: optionsFor(sight, ['extension', 'outsideNumber', 'hours', 'presenceRule'], used),
    whose: sight
      .list('extension')
      .filter((e) => e.reachPlan === id)
      .map((e) => ({ id: e.id, label: `${e.digits ?? ''} ${e.name}`.trim() })),
  });
}
