import { readText } from '@/core/numbers';
import {
  DESTINATION_KINDS,
  KINDS,
  OBJECT_KINDS,
  labelOf,
  objectsOf,
  type AnyObject,
  type ObjectKind,
} from '@/core/plan';
import { nameOf } from '@/core/routing';
import { maySee, whereIs } from '../../access/areas';
import { Refused, may, type Where } from '../../access/rights';
import type { HeldPlan } from '../ground/held';
import { sightIn, type By, type Given } from '../ground/question';

/* What notices, time switches and blocked callers are about, and what they may lead to: things that are live, since they act at once. */

type Named = { kind: string; id: string; label: string };

const find = (held: HeldPlan, kinds: readonly ObjectKind[], id: string) => {
  for (const kind of kinds) {
    const object = (objectsOf(held.plan, kind) as AnyObject[]).find((o) => o.id === id);
    if (object) return { kind, object };
  }
  return null;
};

/** The zone in which a day of something ends: its own, that of its site, or that of the first number of a route. */
function zoneOf({ plan, exchange }: HeldPlan, kind: ObjectKind, object: AnyObject): string | null {
  if ('zone' in object) return object.zone;
  const numbers = kind === 'inboundRoute' ? (object as { numbers: string[] }).numbers : [];
  const of = 'site' in object ? (object.site as string) : exchange().numbers.get(numbers[0] ?? '')?.site;
  return (plan.sites.find((s) => s.id === of) ?? plan.sites[0])?.zone ?? null;
}

/** Something that acts at once and is live, with where it belongs; 404 when it is not there, 422 when it is in the draft only. */
export function actsOn(
  { draft, live }: Given,
  { reader, kind, id, path }: By & { kind: ObjectKind; id: string; path: string },
): { label: string; where: Where; zone: string | null } {
  for (const held of [live, draft]) {
    const found = find(held, [kind], id);
    if (!found || !maySee(reader, held.plan, kind, found.object)) continue;
    const label = labelOf(kind, found.object);
    if (held === draft && live.plan !== draft.plan)
      throw new Refused(
        422,
        'not-live',
        `${label} is in the draft only; what acts at once needs what is live. Go live with it first.`,
        path,
      );
    return { label, where: whereIs(held.plan, kind, found.object), zone: zoneOf(held, kind, found.object) };
  }
  throw new Refused(404, 'no-such-object', `There is no such ${KINDS[kind].word}.`, path);
}

/** What a notice leads to or plays, in live; 422 when the plan has no such thing. */
export function leadsLive(
  { draft, live }: Given,
  { reader, leadsTo, prompt }: By & { leadsTo: string | null; prompt: string | null },
): { leadsTo: Named | null; prompt: Named | null } {
  const named = (kinds: readonly ObjectKind[], id: string | null, path: string, what: string): Named | null => {
    if (id === null) return null;
    const found = find(live, kinds, id);
    if (found && maySee(reader, live.plan, found.kind, found.object))
      return { kind: found.kind, id, label: labelOf(found.kind, found.object) };
    const inDraft = find(draft, kinds, id);
    const sentence = inDraft
      ? `${labelOf(inDraft.kind, inDraft.object)} is in the draft only; choose something that is live.`
      : `There is no such ${what}.`;
    throw new Refused(422, inDraft ? 'not-live' : 'no-such-object', sentence, path);
  };
  return {
    leadsTo: named(DESTINATION_KINDS, leadsTo, 'leadsTo', 'destination'),
    prompt: named(['prompt'], prompt, 'prompt', 'prompt'),
  };
}

/** Things by id as their reader may name them, with whether the reader may act on them at once, and their zone; null: not for this reader. */
export function namesOf(
  { draft, live }: Given,
  { reader, ids }: By & { ids: readonly string[] },
): Record<string, (Named & { mine: boolean; zone: string | null }) | null> {
  return Object.fromEntries(
    ids.map((id) => {
      for (const held of [live, draft]) {
        const found = find(held, OBJECT_KINDS, id);
        if (!found) continue;
        if (!maySee(reader, held.plan, found.kind, found.object)) return [id, null];
        return [
          id,
          {
            kind: found.kind,
            id,
            label: labelOf(found.kind, found.object),
            mine: may(reader, 'actNow', whereIs(held.plan, found.kind, found.object)),
            zone: zoneOf(held, found.kind, found.object),
          },
        ];
      }
      return [id, null];
    }),
  );
}

/** Those of some things that are live and no longer in the draft, by id, as their reader may name them. */
export function goesWithDraft(
  { draft, live }: Given,
  { reader, ids }: By & { ids: readonly string[] },
): Record<string, string> {
  return Object.fromEntries(
    ids.flatMap((id) => {
      const was = find(live, OBJECT_KINDS, id);
      if (!was || find(draft, OBJECT_KINDS, id) || !maySee(reader, live.plan, was.kind, was.object)) return [];
      return [[id, labelOf(was.kind, was.object)]];
    }),
  );
}

/** A caller's number as E.164, read as people of a site (or of the first) write it; 422 with the reason when it is none. */
export function readCaller(
  { live, draft }: Given,
  { text, site }: { text: string; site: string | null },
): { e164: string; siteName: string; zone: string | null; hasSite: boolean } {
  const plan = live.plan.sites.length > 0 ? live.plan : draft.plan;
  const at = plan.sites.find((s) => s.id === site) ?? plan.sites[0];
  if (!at) throw new Refused(422, 'no-such-object', 'There is no site yet by which the number could be read.', 'site');
  const { e164, why } = readText(text, { country: at.country, area: at.area, additions: plan.numberAdditions });
  if (!e164) throw new Refused(422, 'not-a-number', why ?? `${text} is no number.`, 'calling');
  return { e164, siteName: at.name, zone: at.zone, hasSite: plan.sites.some((s) => s.id === site) };
}

/** The zone of a site of the draft; null when there is no such site. */
export const zoneOfSite = ({ draft }: Given, { id }: { id: string }): string | null =>
  draft.plan.sites.find((s) => s.id === id)?.zone ?? null;

/** Where the plan itself turns callers away, for the organisation and each site, and the sites that a block can be for. */
export function blockedByPlan({ draft }: Given, { reader }: By) {
  const { organisation } = draft.plan;
  const x = draft.exchange();
  const sight = sightIn(draft, reader);
  const sites = sight.list('site');
  const lead = (id: string | null) => (id ? nameOf(x, id) : 'released, cause 21');
  return sight.cut({
    sites: sites.map((s) => ({ id: s.id, label: s.name })),
    rules: [
      ...(organisation.blockedCallers
        ? [
            {
              who: organisation.name,
              map: organisation.blockedCallers,
              lead: lead(organisation.blockedLeadTo),
              path: '/settings',
            },
          ]
        : []),
      ...(organisation.rejectsWithheld
        ? [{ who: organisation.name, map: null, lead: lead(organisation.withheldLeadTo), path: '/settings' }]
        : []),
      ...sites.flatMap((s) =>
        s.blockedCallers
          ? [{ who: s.name, map: s.blockedCallers, lead: lead(s.blockedLeadTo), path: `/sites/${s.id}` }]
          : [],
      ),
    ],
  });
}
