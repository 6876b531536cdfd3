import { spacedNumber } from '@/core/numbers';
import { freeDigits } from '@/core/plan';
import { may, type Actor } from '../access/rights';
import { peopleChoices } from '../people/choices';
import { limitUse } from './limits';
import { draftPlan } from './store';

const OFFERED = 6;

/** What the form for a new extension proposes: per site the free digits and free numbers, and the one to be like. */
export async function newExtensionData(actor: Actor, asked: { site?: string; like?: string }) {
  const { plan } = await draftPlan();
  const like = plan.extensions.find((e) => e.id === asked.like) ?? null;
  const others = await peopleChoices();
  const largest = [...plan.sites].sort(
    (a, b) =>
      plan.extensions.filter((e) => e.site === b.id).length - plan.extensions.filter((e) => e.site === a.id).length,
  );
  const people = plan.extensions.filter((e) => e.kind === 'person');
  return {
    canEdit: may(actor, 'edit'),
    limits: await limitUse(plan),
    teams: plan.teams.map((t) => ({ id: t.id, label: t.name })),
    people: others.people,
    manyPeople: others.many,
    account: actor.account,
    site: plan.sites.find((s) => s.id === (asked.site ?? like?.site))?.id ?? largest[0]?.id ?? '',
    like: like
      ? {
          id: like.id,
          kind: like.kind,
          class: like.class,
          mailbox: like.mailbox !== null,
          ringSeconds: like.ringSeconds,
        }
      : null,
    classes: plan.classes.map((c) => ({ id: c.id, name: c.name })),
    defaultClass: mostUsed(people.map((e) => e.class)) ?? plan.classes[0]?.id ?? '',
    sites: plan.sites.map((s) => ({
      id: s.id,
      name: s.name,
      ranges: s.ranges.map((r) => `${r.from} to ${r.to}`).join(', '),
      free: freeAfterLast(plan, s.id),
      numbers: plan.numbers
        .filter(
          (n) =>
            n.site === s.id && n.state === 'active' && n.activeFrom === null && !n.belongsTo && !isNamed(plan, n.id),
        )
        .map((n) => ({ id: n.id, e164: spacedNumber(n.e164) })),
    })),
  };
}

type PlanOf = Awaited<ReturnType<typeof draftPlan>>['plan'];

/** Free digits after the last person of a site first, since joiners are usually added in order; then the others. */
function freeAfterLast(plan: PlanOf, site: string): string[] {
  const all = freeDigits(plan, site, 1000);
  const last =
    plan.extensions
      .filter((e) => e.site === site && e.kind === 'person')
      .map((e) => e.digits)
      .sort()
      .at(-1) ?? '';
  return [...all.filter((d) => d > last), ...all.filter((d) => d <= last)].slice(0, OFFERED);
}

/** Whether a number is spoken for otherwise: an inbound route names it, or it is a main number. */
function isNamed(plan: PlanOf, id: string): boolean {
  return plan.inboundRoutes.some((r) => r.numbers.includes(id)) || plan.sites.some((s) => s.mainNumber === id);
}

function mostUsed(list: string[]): string | undefined {
  const counts = new Map<string, number>();
  for (const x of list) counts.set(x, (counts.get(x) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
}
