import { callFromOutside, weekOf, type SituationPiece } from '@/core/analysis';
import { signedInAgents } from '@/core/destinations';
import { readText } from '@/core/numbers';
import type { Extension, Plan, PlanNumber, Queue } from '@/core/plan';
import { hoursNow, outcomeAt, outcomeOf, takes, type Exchange, type Landing, type Situation } from '@/core/routing';
import type { Given } from '../ground/question';

/* The public page of a queue or of a person's extension: what anybody may know of it, from what is live. */

/** Such a page as it is now; null when there is none of that name. */
export interface CallPageFacts {
  kind: 'queue' | 'extension';
  id: string;
  name: string;
  organisation: string;
  language: string;
  zone: string;
  country: string;
  /** somebody takes calls now */
  open: boolean;
  /** when that changes next within the week, milliseconds since 1970 UTC */
  until: number | null;
  e164: string | null;
  /** where the person wants to be told of wishes to be called; a queue's stand on the board */
  email: string | null;
}

/** Numbers of ours whose calls may come to a place: its own, and those of routes that lead there. */
function numbersTo(exchange: Exchange, id: string): PlanNumber[] {
  const { plan } = exchange;
  const own = plan.numbers.filter((n) => n.belongsTo === id);
  const leads = (route: (typeof plan.inboundRoutes)[number]) =>
    route.leadsTo === id || plan.routeRules.some((r) => r.route === route.id && r.leadsTo === id);
  const routed = exchange.routes
    .filter((r) => leads(r.route))
    .flatMap((r) => plan.numbers.filter((n) => r.route.numbers.includes(n.id) || takes(r, n.e164)));
  return [...own, ...routed].filter((n) => n.state === 'active');
}

type Paged = { kind: 'queue'; object: Queue } | { kind: 'extension'; object: Extension };

function pagedAs({ queues, extensions }: Plan, page: string): Paged | null {
  const queue = queues.find((q) => q.callPage === page);
  if (queue) return { kind: 'queue', object: queue };
  const extension = extensions.find((e) => e.callPage === page);
  return extension ? { kind: 'extension', object: extension } : null;
}

/** Whether a call that ends there found somebody: at a queue it waits for them, a person’s rings somewhere. */
const finds = ({ kind, object }: Paged, lands: Landing | null): boolean =>
  kind === 'queue' ? lands?.id === object.id : lands?.kind === 'extension' || lands?.kind === 'outside';

/** The same for calls from inside, where no number leads there. */
function findsInside(x: Exchange, paged: Paged, now: number, situation: Situation): boolean {
  if (paged.kind === 'extension') return finds(paged, outcomeAt(x, paged.object.id, now, situation).lands);
  const { object: queue } = paged;
  const isOpen = queue.hours === null || hoursNow(x, situation, queue.hours, now).open;
  return isOpen && signedInAgents(queue, { situation }).length > 0;
}

export function callPageFacts(
  { live }: Given,
  { page, now, situation, pieces }: { page: string; now: number; situation: Situation; pieces: SituationPiece[] },
): CallPageFacts | null {
  const { plan } = live;
  const paged = pagedAs(plan, page);
  if (!paged) return null;
  const x = live.exchange();
  const { kind, object } = paged;
  const site = x.sites.get(object.site)!;
  const person = kind === 'extension' ? plan.people.find((p) => p.id === object.person) : undefined;
  const [number] = numbersTo(x, object.id);
  const open = number
    ? finds(paged, outcomeOf(x, callFromOutside(number.e164, now), situation).lands)
    : findsInside(x, paged, now, situation);
  const stretches = number ? (weekOf(x, 'number', number.id, now, pieces)?.stretches ?? []) : [];
  const next = stretches.find((s) => s.from > now && finds(paged, s.lands) !== open);
  return {
    kind,
    id: object.id,
    name: object.name,
    organisation: plan.organisation.name,
    language: (kind === 'queue' ? object.language : person?.language) || site.language,
    zone: site.zone,
    country: site.country,
    open,
    until: next?.from ?? null,
    e164: number?.e164 ?? null,
    email: person?.email ?? null,
  };
}

/** A number that somebody wrote on the page, as E.164; what is wrong with it else. */
export function callbackNumber(
  { live }: Given,
  { page, text }: { page: string; text: string },
): { e164: string | null; why: string } {
  const x = live.exchange();
  const { site } = pagedAs(live.plan, page)!.object;
  const read = readText(text, x.places.get(site)!);
  return { e164: read.valid ? read.e164 : null, why: read.why ?? 'This is no telephone number.' };
}
