import { fitsNoNumber, fromOutside, reachOfRungs } from '@/core/analysis';
import { OBJECT_KINDS, labelOf, objectsOf, type AnyObject, type Plan } from '@/core/plan';
import { reachableForms, trace } from '@/core/routing';
import { may } from './access/rights';
import { draftPlan, livePlan } from './draft';
import { ledgerPage } from './ledger-page';
import { pageActor } from './page';
import { situationAt } from './state/forwarding';

/** Labels of every object of a plan by id, for showing references. */
export function labelsOf(plan: Plan): Record<string, string> {
  return Object.fromEntries(
    OBJECT_KINDS.flatMap((k) => objectsOf(plan, k).map((o) => [o.id, labelOf(k, o as AnyObject)])),
  );
}

/** The inbound routes from top to bottom, each with what it takes and where it leads now. */
export async function inboundData() {
  const now = Date.now();
  const situation = await situationAt(now);
  const base = await ledgerPage('inboundRoute', () => ({}), ['name', 'calledMap', 'trunk', 'leadsTo']);
  const { plan, exchange, rowVersions } = await draftPlan();
  const x = exchange();
  const labels = labelsOf(plan);
  const marks = new Map(base.rows.map((r) => [r.id, r.mark]));
  const routes = x.routes.map((compiled) => {
    const { route, numbers } = compiled;
    const example = [...numbers][0];
    const t = example ? trace(x, fromOutside(example, now).call, situation) : null;
    const leads = route.leadsTo
      ? { kind: x.destinations.get(route.leadsTo)!.kind as string, label: labels[route.leadsTo]! }
      : route.dialledExtension
        ? { kind: 'extension', label: 'the extension that was dialled' }
        : { kind: 'refused', label: 'released' };
    return {
      id: route.id,
      rowVersion: rowVersions.get(route.id)!,
      value: route,
      mark: marks.get(route.id) ?? null,
      numbers: [...numbers],
      trunk: route.trunk ? labels[route.trunk]! : null,
      neverFits: fitsNoNumber(x, compiled),
      leads: t?.lands && !route.leadsTo ? { kind: t.lands.kind as string, label: t.lands.label } : leads,
      then: t?.then[0] ? `${t.then[0].lands.label} after ${t.then[0].afterSeconds} s` : '',
    };
  });
  const last = routes.at(-1)?.value.position ?? 0;
  const direct = plan.numbers.filter((n) => n.belongsTo && n.state === 'active').length;
  const ends = plan.trunks.map((t) => ({ trunk: t.name, otherwise: t.otherwise ? labels[t.otherwise]! : null }));
  return { ...base, routes, direct, ends, add: { ...base.add, defaults: { position: last + 10 } } };
}

/** One ladder from top to bottom with what each rule takes that those above leave. */
export async function outboundData(wanted: string | undefined) {
  const base = await ledgerPage('rung', () => ({}), ['name', 'map', 'reading', 'strip']);
  const { plan, exchange, rowVersions } = await draftPlan();
  const x = exchange();
  const labels = labelsOf(plan);
  const bySite = plan.sites
    .filter((s) => s.ladder)
    .sort(
      (a, b) =>
        plan.extensions.filter((e) => e.site === b.id).length - plan.extensions.filter((e) => e.site === a.id).length,
    );
  const ladder =
    plan.ladders.find((l) => l.id === wanted) ??
    plan.ladders.find((l) => l.id === bySite[0]?.ladder) ??
    plan.ladders[0] ??
    null;
  const rungs = ladder ? (x.rungsOf.get(ladder.id) ?? []) : [];
  const reach = reachOfRungs(rungs);
  const sites = plan.sites.filter((s) => s.ladder === ladder?.id);
  const marks = new Map(base.rows.map((r) => [r.id, r.mark]));
  return {
    ...base,
    ladders: plan.ladders.map((l) => ({ id: l.id, name: l.name })),
    ladder: ladder ? { id: ladder.id, name: ladder.name } : null,
    sites: sites.map((s) => ({ id: s.id, name: s.name, prefix: s.outsidePrefix })),
    emergency: [...new Set(sites.flatMap((s) => reachableForms(x, s)))],
    emergencyTrunks: [...new Set(sites.flatMap((s) => s.emergencyTrunks.map((t) => labels[t]!)))],
    phones: plan.extensions
      .filter((e) => sites.some((s) => s.id === e.site))
      .map((e) => ({ digits: e.digits, label: `${e.digits} ${e.name}` })),
    rungs: rungs.map(({ rung }, i) => ({
      id: rung.id,
      rowVersion: rowVersions.get(rung.id)!,
      value: rung,
      mark: marks.get(rung.id) ?? null,
      trunks: rung.trunks.map((t) => labels[t]!),
      aside: [
        rung.show === 'extension' ? 'shows the extension' : '',
        rung.show === 'hidden' ? 'shows nothing' : '',
        rung.forPeople.length + rung.forSites.length > 0
          ? `for ${[...rung.forSites, ...rung.forPeople].map((id) => labels[id]).join(', ')}`
          : '',
        rung.notForPeople.length + rung.notForSites.length > 0
          ? `not for ${[...rung.notForSites, ...rung.notForPeople].map((id) => labels[id]).join(', ')}`
          : '',
      ]
        .filter(Boolean)
        .join(', '),
      count: reach[i]!.count,
      coveredBy: reach[i]!.coveredBy?.map((id) => rungs.findIndex((r) => r.rung.id === id) + 1) ?? null,
    })),
    add: {
      ...base.add,
      defaults: {
        ladder: ladder?.id,
        position: (rungs.at(-1)?.rung.position ?? 0) + 10,
        strip: 1,
        reading: 'national',
      },
    },
  };
}

/** All classes beside each other, kind by kind. */
export async function classesData() {
  const actor = await pageActor();
  const base = await ledgerPage(
    'class',
    () => ({}),
    ['name'],
    () => ({ rights: { internal: { allow: true } } }),
  );
  const [draft, live] = await Promise.all([draftPlan(), livePlan()]);
  return {
    ...base,
    canEdit: may(actor, 'edit'),
    classes: draft.plan.classes.map((c) => ({
      id: c.id,
      name: c.name,
      rights: c.rights,
      users: draft.plan.extensions.filter((e) => e.class === c.id).length,
      changed: JSON.stringify(live.plan.classes.find((o) => o.id === c.id)) !== JSON.stringify(c),
    })),
  };
}
