import type { ObjectKind, Plan } from '../plan';
import type { Situation } from '../routing';

/* What calls meet though nothing on their way names it: where those are led who are turned away, notices, and what is heard everywhere. */

/** Whether something is met, by id. */
type IsMet = (id: string | null | undefined) => boolean;

/** Trunks of which some callers are turned away to what is met: blocked for all or for a site, or hiding their number (ENGINE E9). */
export function turnedAwayTo(plan: Plan, { blocked = [] }: Situation, isMet: IsMet): string[] {
  const { organisation } = plan;
  const { blockedCallers, blockedLeadTo, rejectsWithheld, withheldLeadTo } = organisation;
  const anyBlocked = blockedCallers !== null || blocked.length > 0;
  const ofAll =
    (anyBlocked && isMet(blockedLeadTo)) ||
    (rejectsWithheld && isMet(withheldLeadTo)) ||
    blocked.some((b) => b.site === null && isMet(b.leadsTo));
  const sites = new Set(plan.sites.flatMap((s) => (isMet(s.blockedLeadTo) ? s.id : [])));
  for (const { site, leadsTo } of blocked) if (site !== null && isMet(leadsTo)) sites.add(site);
  return plan.trunks.flatMap((t) => (ofAll || sites.has(t.site) ? t.id : []));
}

/** Kinds at which a notice can hold by itself. */
const NOTICED = ['numbers', 'inboundRoutes', 'attendants', 'queues'] as const;
const KIND_OF = { numbers: 'number', inboundRoutes: 'inboundRoute', attendants: 'attendant', queues: 'queue' } as const;

/** Hours and objects at which notices hold that lead to what is met, or say it. */
export function noticedAt(plan: Plan, { notices = [] }: Situation, isMet: IsMet): { kind: ObjectKind; id: string }[] {
  return notices.flatMap(({ hours, of, leadsTo, prompt }): { kind: ObjectKind; id: string }[] => {
    if (!isMet(leadsTo) && !isMet(prompt)) return [];
    if (hours !== undefined) return [{ kind: 'hours', id: hours }];
    const list = NOTICED.find((kind) => (plan[kind] as readonly { id: string }[]).some((o) => o.id === of));
    return list ? [{ kind: KIND_OF[list], id: of! }] : [];
  });
}

/** Phones that send callers who hide their number to what is met (ENGINE E9). */
export const rejectingTo = ({ organisation, extensions }: Plan, isMet: IsMet): string[] =>
  isMet(organisation.withheldLeadTo) ? extensions.flatMap((e) => (e.rejectsWithheld ? e.id : [])) : [];

/** Kinds that say phrases of the exchange. */
const SPEAKING = [
  ['attendant', 'attendants'],
  ['directory', 'directories'],
  ['queue', 'queues'],
  ['mailbox', 'mailboxes'],
] as const;

/** Where a prompt that is met is heard though it is named elsewhere: as a phrase of the exchange, or as the music of a site. */
export function heardAt(plan: Plan, isMet: IsMet): { kind: ObjectKind; id: string }[] {
  if (plan.prompts.some((p) => p.phrase !== null && isMet(p.id)))
    return SPEAKING.flatMap(([kind, list]) => plan[list].map(({ id }) => ({ kind, id })));
  const sites = new Set(plan.sites.flatMap((s) => (isMet(s.music) ? s.id : [])));
  return plan.queues.flatMap((q) =>
    q.music === null && sites.has(q.site) ? { kind: 'queue' as const, id: q.id } : [],
  );
}
