import type { SituationPiece } from '@/core/analysis';
import type { Situation } from '@/core/routing';
import { entriesAt, entriesIn, type Entry } from './entries';

/* The state beside the plan as what questions about calls are asked with: the past as it was, the future as it is set now. */

const DAY = 86_400_000;

/** What holds at a moment, milliseconds since 1970 UTC. */
export const situationAt = async (at: number): Promise<Situation> => situationOf(await entriesAt(at));

/** What holds around a moment: from some days more than a week before it to as many after, in pieces within which nothing changes. */
export async function piecesAround(at: number): Promise<SituationPiece[]> {
  const span = { from: at - 9 * DAY, to: at + 9 * DAY };
  const entries = await entriesIn(span);
  const borders = entries
    .flatMap((e) => [e.since, e.until ?? span.to])
    .filter((t) => t > span.from && t < span.to)
    .sort((a, b) => a - b);
  return [...new Set([span.from, ...borders])].map((from) => ({
    from,
    situation: situationOf(entries.filter((e) => e.since <= from && (e.until === null || e.until > from))),
  }));
}

/** Entries of one moment, the newest first, as a situation; of several about one thing the newest decides. */
function situationOf(entries: readonly Entry[]): Situation {
  const of = (kind: Entry['kind']) => entries.filter((e) => e.kind === kind);
  const [notices, switches, forwarding, blocked] = [of('notice'), of('switch'), of('forwarding'), of('blocked')];
  return {
    ...(notices.length > 0 ? { notices: notices.map(noticeOf) } : {}),
    ...(switches.length > 0 ? { switches: switches.map((e) => ({ id: e.subject, ...e.value })) as never } : {}),
    // The one set first is asked first.
    ...(forwarding.length > 0
      ? { forwarding: forwarding.reverse().map((e) => ({ extension: e.subject, ...e.value })) as never }
      : {}),
    ...(blocked.length > 0
      ? {
          blocked: blocked.map((e) => ({
            site: e.subject === 'organisation' ? null : e.subject,
            calling: e.value.calling as string | null,
            leadsTo: e.value.leadsTo as string | null,
          })),
        }
      : {}),
  };
}

function noticeOf(e: Entry): NonNullable<Situation['notices']>[number] {
  const { kind, reason, open, leadsTo, prompt } = e.value as {
    kind: string;
    reason: string;
    open: boolean;
    leadsTo: string | null;
    prompt: string | null;
  };
  return {
    id: e.id,
    name: reason || (open ? 'open' : 'closed'),
    ...(kind === 'hours' ? { hours: e.subject } : { of: e.subject }),
    from: new Date(e.since).toISOString(),
    until: e.until === null ? null : new Date(e.until).toISOString(),
    open,
    leadsTo,
    prompt,
  };
}
