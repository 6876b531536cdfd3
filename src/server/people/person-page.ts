import { spacedNumber } from '@/core/numbers';
import { landingTimes } from '@/core/analysis';
import { hasPin } from '../access/secrets';
import { draftPlan } from '../draft';
import { objectPage } from '../object-page';
import { optionsFor } from '../options';
import { forwardingAt, situationAt } from '../state/forwarding';

/** Everything of one person: each extension and mailbox with its own page data, numbers, presence, forwarding, reach plan. */
export async function personPage(id: string) {
  const data = await objectPage('person', id);
  const draft = await draftPlan();
  const { plan } = draft;
  const x = draft.exchange();
  const mine = plan.extensions.filter((e) => e.person === id);
  const now = Date.now();
  const situation = await situationAt(now);
  const nameOf = (target: string | null) =>
    target === null ? null : (x.destinations.get(target)?.object.name ?? x.extensions.get(target)?.name ?? target);
  const extensions = await Promise.all(
    mine.map(async (e) => {
      const numbers = plan.numbers.filter((n) => n.belongsTo === e.id);
      const steps = plan.reachSteps
        .filter((s) => s.reachPlan === e.reachPlan)
        .sort((a, b) => a.position - b.position)
        .map((s) => ({
          rings: nameOf(s.extension ?? s.outside)!,
          outside: s.outside !== null,
          together: s.withPrevious,
          seconds: s.seconds,
        }));
      return {
        data: await objectPage('extension', e.id),
        numbers: numbers.map((n) => ({ id: n.id, e164: spacedNumber(n.e164), state: n.state })),
        lands: numbers[0] ? landingTimes(x, numbers[0].e164, now, situation) : [],
        forwarding: await forwardingAt(new Date(now), e.id),
        reach: e.reachPlan
          ? { name: nameOf(e.reachPlan)!, steps, end: nameOf(x.plan.reachPlans.find((r) => r.id === e.reachPlan)!.end) }
          : null,
        presence: plan.presenceRules.map((rule) => {
          const own = plan.presenceChoices.find((c) => c.extension === e.id && c.rule === rule.id) ?? null;
          return {
            rule: rule.id,
            name: rule.name,
            usual: {
              internal: rule.internal,
              internalTo: nameOf(rule.internalTo),
              outside: rule.outside,
              outsideTo: nameOf(rule.outsideTo),
            },
            own: own && { ...own, rowVersion: draft.rowVersions.get(own.id)! },
          };
        }),
        mailbox: e.mailbox ? { data: await objectPage('mailbox', e.mailbox), pinSet: await hasPin(e.mailbox) } : null,
      };
    }),
  );
  const { options, long } = optionsFor(plan, ['destination']);
  return {
    data,
    extensions,
    destinations: options.destination ?? [],
    manyDestinations: long.length > 0,
  };
}
