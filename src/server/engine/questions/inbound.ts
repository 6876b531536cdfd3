import { fitsNoNumber, fromOutside } from '@/core/analysis';
import { outcomeOf, type Situation } from '@/core/routing';
import { labelsIn } from '../ground/labels';
import { sightIn, type By, type Given } from '../ground/question';
import { shortLedger } from './short-ledger';

/** The inbound routes from top to bottom, each with what it takes and where it leads now. */
export function inbound(given: Given, { reader, now, situation }: By & { now: number; situation: Situation }) {
  const { draft } = given;
  const { plan, rowVersions } = draft;
  const base = shortLedger(given, reader, 'inboundRoute', () => ({}), ['name', 'calledMap', 'trunk', 'leadsTo']);
  const x = draft.exchange();
  const sight = sightIn(draft, reader);
  const marks = new Map(base.rows.map((r) => [r.id, r.mark]));
  const shown = x.routes.filter((r) => sight.sees('inboundRoute', r.route));
  const labels = labelsIn(
    [plan],
    [shown.map((r) => [r.route.leadsTo, r.route.trunk]), plan.trunks.map((t) => t.otherwise)],
  );
  const routes = shown.map((compiled) => {
    const { route, numbers } = compiled;
    const example = [...numbers][0];
    const t = example ? outcomeOf(x, fromOutside(example, now).call, situation) : null;
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
      numbers: [...numbers],
      trunk: route.trunk ? labels[route.trunk]! : null,
      neverFits: fitsNoNumber(x, compiled),
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
