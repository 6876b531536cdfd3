import { signedInAgents } from '@/core/destinations';
import { agentsOfQueue, levelOf, type Queue } from '@/core/plan';
import type { Situation } from '@/core/routing';
import { whereIs } from '../../access/areas';
import { may } from '../../access/rights';
import { sightIn, type By, type Given } from '../ground/question';

/* Live queues for the board: names and agents, as far as the reader may see them. */

/** A queue with those who may take its calls. */
export interface BoardQueue {
  id: string;
  label: string;
  site: string;
  zone: string;
  within: number;
  agents: string[];
  permanent: string[];
  /** the level of each agent, 1 to 3 */
  levels: Record<string, number>;
  /** signed in, whether paused or not */
  signedIn: string[];
  mine: boolean;
}

/** All queues that are live, by name; with the names of the agents of one. */
export function boardQueues(
  { live }: Given,
  { reader, situation, queue }: By & { situation: Situation; queue: string },
): { queues: BoardQueue[]; names: Record<string, string> } {
  const x = live.exchange();
  const sight = sightIn(live, reader);
  const queues = sight
    .list('queue')
    .map((q: Queue): BoardQueue => {
      const site = x.sites.get(q.site)!;
      return {
        id: q.id,
        label: q.name,
        site: site.name,
        zone: site.zone,
        within: q.answerWithinSeconds,
        agents: agentsOfQueue(q),
        levels: Object.fromEntries(agentsOfQueue(q).map((a) => [a, levelOf(q, a)])),
        permanent: q.permanentAgents,
        signedIn: signedInAgents(q, { situation }),
        mine: may(reader, 'actNow', whereIs(live.plan, 'queue', q)),
      };
    })
    .sort((a, b) => a.label.localeCompare(b.label));
  const asked = queues.find((q) => q.id === queue);
  const names = Object.fromEntries(
    (asked?.agents ?? []).map((id) => {
      const e = x.extensions.get(id);
      return [id, e && sight.sees('extension', e) ? `${e.digits} ${e.name}` : 'not yours to see'];
    }),
  );
  return { queues, names };
}

/** An extension that is an agent of a live queue, with the places where it is one; null when it is none. */
export function agentFacts({ live }: Given, { id }: { id: string }) {
  const extension = live.plan.extensions.find((e) => e.id === id);
  const queues = live.plan.queues.filter((q) => agentsOfQueue(q).includes(id));
  if (!extension || queues.length === 0) return null;
  return {
    label: `${extension.digits} ${extension.name}`,
    person: extension.person,
    wheres: queues.map((q) => ({ where: whereIs(live.plan, 'queue', q), label: q.name })),
    permanent: queues.every((q) => q.permanentAgents.includes(id)),
  };
}

/** Live queues that a person manages, by name. */
export const managedQueues = ({ live }: Given, { person }: { person: string }): { id: string; name: string }[] =>
  live.plan.queues
    .filter((q) => q.managers.includes(person))
    .map(({ id, name }) => ({ id, name }))
    .sort((a, b) => a.name.localeCompare(b.name));

/** A live queue with its managers' addresses; null when there is none. */
export function queueFacts({ live }: Given, { id }: { id: string }) {
  const queue = live.plan.queues.find((q) => q.id === id);
  if (!queue) return null;
  const site = live.plan.sites.find((s) => s.id === queue.site)!;
  const managers = live.plan.people.filter((p) => queue.managers.includes(p.id) && p.email !== null);
  return {
    queue,
    where: whereIs(live.plan, 'queue', queue),
    zone: site.zone,
    country: site.country,
    managers: managers.map((p) => ({ email: p.email!, language: p.language || site.language })),
    names: Object.fromEntries(
      agentsOfQueue(queue).flatMap((a) => {
        const e = live.plan.extensions.find((o) => o.id === a);
        return e ? [[a, `${e.digits} ${e.name}`]] : [];
      }),
    ) as Record<string, string>,
  };
}
