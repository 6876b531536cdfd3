import { isForEveryone, reachOfRungs } from '@/core/analysis';
import { reachableForms } from '@/core/routing';
import { whereIs } from '../../access/areas';
import { may, type Actor } from '../../access/rights';
import { labelsIn } from '../ground/labels';
import { named } from '../ground/options';
import { sightIn, type By, type Given } from '../ground/question';
import { countBy, shortLedger } from './short-ledger';

/** One ladder from top to bottom with what each rule takes that those above leave. */
export function outbound(given: Given, { reader, wanted }: By & { wanted: string | undefined }) {
  const { draft } = given;
  const { plan, rowVersions } = draft;
  const sight = sightIn(draft, reader);
  const base = shortLedger(given, reader, 'rung', () => ({}), ['name', 'map', 'reading', 'strip']);
  const x = draft.exchange();
  const ladder = ladderOf(given, reader, wanted);
  const rungs = ladder ? (x.rungsOf.get(ladder.id) ?? []) : [];
  const reach = reachOfRungs(rungs, x);
  const sites = sight.list('site').filter((s) => s.ladder === ladder?.id);
  const ids = new Set(sites.map((s) => s.id));
  const marks = new Map(base.rows.map((r) => [r.id, r.mark]));
  const labels = labelsIn(
    [plan],
    rungs.map(({ rung: r }) => [
      r.trunks,
      r.forPeople,
      r.forTeams,
      r.forSites,
      r.notForPeople,
      r.notForTeams,
      r.notForSites,
    ]),
  );
  const names = (...lists: (readonly string[])[]) => lists.flat().map((id) => labels[id] ?? id);
  return sight.cut({
    ...base,
    ladders: named(sight.list('ladder')).map(({ id, label }) => ({ id, name: label })),
    ladder: ladder ? { id: ladder.id, name: ladder.name } : null,
    sites: sites.map((s) => ({ id: s.id, name: s.name, prefix: s.outsidePrefix })),
    emergency: [...new Set(sites.flatMap((s) => reachableForms(x, s)))],
    emergencyTrunks: [...new Set(sites.flatMap((s) => s.emergencyTrunks.map((t) => x.trunks.get(t)!.name)))],
    firstPhone: phonesAt(given, reader, ids)[0] ?? null,
    rungs: rungs.map(({ rung }, i) => ({
      id: rung.id,
      rowVersion: rowVersions.of('rung', rung.id)!,
      value: rung,
      mark: marks.get(rung.id) ?? null,
      trunks: names(rung.trunks),
      forEveryone: isForEveryone(rung),
      isFor: names(rung.forSites, rung.forTeams, rung.forPeople),
      notFor: names(rung.notForSites, rung.notForTeams, rung.notForPeople),
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
  });
}

/** The ladder asked for, else that of the largest site, else the first. */
function ladderOf({ draft }: Given, reader: Actor, wanted: string | undefined) {
  const ladders = sightIn(draft, reader).list('ladder');
  const { plan } = draft;
  const extensions = countBy(plan.extensions, (e) => e.site);
  const largest = plan.sites
    .filter((s) => s.ladder)
    .sort((a, b) => (extensions.get(b.id) ?? 0) - (extensions.get(a.id) ?? 0))[0];
  return ladders.find((l) => l.id === wanted) ?? ladders.find((l) => l.id === largest?.ladder) ?? ladders[0] ?? null;
}

function phonesAt({ draft }: Given, reader: Actor, sites: ReadonlySet<string>) {
  const phone = draft.plan.extensions.find(
    (e) => sites.has(e.site) && may(reader, 'ask', whereIs(draft.plan, 'extension', e)),
  );
  return phone ? [{ digits: phone.digits, label: `${phone.digits} ${phone.name}` }] : [];
}
