import { fitsNoNumber, callFromOutside } from '@/core/analysis';
import { fieldsOf } from '@/core/plan';
import { outcomeOf, type Situation } from '@/core/routing';
import { labelsIn } from '../ground/labels';
import { sightIn, type By, type Given } from '../ground/question';
import { optionsFor } from '../ground/options';
import { objectPage } from './objects';
import { markOf, shortLedger } from './short-ledger';

/** The inbound routes from top to bottom, each with what it takes and where it leads now. */
export function inbound(given: Given, { reader, now, situation }: By & { now: number; situation: Situation }) {
  const { draft } = given;
  const { plan, rowVersions } = draft;
  const base = shortLedger(given, reader, 'inboundRoute', () => ({}), ['name', 'calledMap', 'trunk', 'leadsTo']);
  const x = draft.exchange();
  const sight = sightIn(draft, reader);
  const marks = new Map(base.rows.map((r) => [r.id, r.mark]));
  const compiled = new Map(x.routes.map((r) => [r.route.id, r]));
  const shown = [...sight.list('inboundRoute')].sort((a, b) => a.position - b.position);
  const labels = labelsIn([plan], [shown.map((r) => [r.leadsTo, r.trunk]), plan.trunks.map((t) => t.otherwise)]);
  const routes = shown.map((route) => {
    const inUse = compiled.get(route.id);
    const numbers = route.numbers.map((n) => x.numbers.get(n)!.e164);
    const example = inUse ? numbers[0] : undefined;
    const t = example ? outcomeOf(x, callFromOutside(example, now), situation) : null;
    const leads = route.leadsTo
      ? { kind: x.destinations.get(route.leadsTo)!.kind as string, label: labels[route.leadsTo]! }
      : route.dialledExtension
        ? { kind: 'extension', label: 'the extension that was dialled' }
        : { kind: 'refused', label: 'released' };
    return {
      id: route.id,
      rowVersion: rowVersions.of('inboundRoute', route.id)!,
      value: route,
      mark: marks.get(route.id) ?? null,
      numbers,
      trunk: route.trunk ? labels[route.trunk]! : null,
      neverFits: inUse !== undefined && fitsNoNumber(x, inUse),
      rules: (x.routeRules.get(route.id) ?? []).length,
      leads: t?.lands && !route.leadsTo ? { kind: t.lands.kind as string, label: t.lands.label } : leads,
      then: t?.then[0] ? `${t.then[0].lands.label} after ${t.then[0].afterSeconds} s` : '',
    };
  });
  const last = routes.at(-1)?.value.position ?? 0;
  return sight.cut({
    ...base,
    routes,
    direct: sight.list('number').filter((n) => n.belongsTo && n.state === 'active').length,
    ends: sight
      .list('trunk')
      .map((t) => ({ trunk: t.name, otherwise: t.otherwise ? (labels[t.otherwise] ?? null) : null })),
    add: { ...base.add, defaults: { position: last + 10 } },
  });
}

/** One inbound route with its time rules in their order, what they may name, and which numbers come there. */
export function inboundRoutePage(given: Given, { reader, id }: By & { id: string }) {
  const data = objectPage(given, { kind: 'inboundRoute', id, reader });
  if (!data) return null;
  const { draft, live } = given;
  const x = draft.exchange();
  const sight = sightIn(draft, reader);
  const rules = x.routeRules.get(id) ?? [];
  const before = new Map(live.plan.routeRules.map((r) => [r.id, r]));
  const used = new Set(rules.flatMap((r) => [r.hours, r.leadsTo]));
  const { numbers } = data.object as unknown as { numbers: string[] };
  const first = x.numbers.get(numbers[0] ?? '');
  const site = first ? x.sites.get(first.site)! : draft.plan.sites[0];
  return {
    data,
    rules: rules.map((value) => ({
      value,
      rowVersion: draft.rowVersions.of('routeRule', value.id)!,
      mark: markOf(before.get(value.id), value),
    })),
    ruleFields: fieldsOf('routeRule'),
    choices: optionsFor(sight, ['hours', 'destination'], used),
    zone: site?.zone ?? null,
    site: site?.id ?? null,
    /** what the Ask line begins with: a number that comes here */
    dial: first?.e164 ?? null,
    trunks: sight.list('trunk').map((t) => ({ id: t.id, label: t.name })),
  };
}
