import type { SituationPiece } from '@/core/analysis';
import type { MessageSituation } from '@/core/plan/facts/message-situations';
import type { Situation } from '@/core/routing';
import { entriesAt, entriesIn, type Entry } from './entries';

/* The state beside the plan as what questions about calls are asked with: the past as it was, the future as it is set now. */

const DAY = 86_400_000;

/** What holds at a moment, milliseconds since 1970 UTC. */
export const situationAt = async (at: number): Promise<Situation> => situationOf(await entriesAt(at));

/** What held at every moment of a span, milliseconds since 1970 UTC, read at once. */
export async function situationOver(span: { from: number; to: number }): Promise<(at: number) => Situation> {
  const pieces = piecesOf(span, await entriesIn(span));
  return (at) => {
    let [low, high] = [0, pieces.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (pieces[middle]!.from <= at) low = middle;
      else high = middle - 1;
    }
    return pieces[low]?.situation ?? {};
  };
}

/** What holds around a moment: from some days more than a week before it to as many after, in pieces within which nothing changes. */
export async function piecesAround(at: number): Promise<SituationPiece[]> {
  const span = { from: at - 9 * DAY, to: at + 9 * DAY };
  return piecesOf(span, await entriesIn(span));
}

function piecesOf(span: { from: number; to: number }, entries: readonly Entry[]): SituationPiece[] {
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
  const [presence, reach, greetings] = [of('presence'), of('reach'), of('greeting')];
  const full = of('full').map((e) => e.subject);
  // Who is paused is signed in all the same: callers wait for them.
  const [agents, paused] = [of('signed-in').map((e) => e.subject), of('paused').map((e) => e.subject)];
  return {
    ...(notices.length > 0 ? { notices: notices.map(noticeOf) } : {}),
    ...(switches.length > 0 ? { switches: switches.map((e) => ({ id: e.subject, ...e.value })) as never } : {}),
    ...(presence.length > 0
      ? { presence: Object.fromEntries(presence.reverse().map((e) => [e.subject, e.value.rule as string])) }
      : {}),
    ...(agents.length > 0 ? { agents } : {}),
    ...(paused.length > 0 ? { paused } : {}),
    ...(full.length > 0 ? { fullMailboxes: full } : {}),
    ...(greetings.length > 0 ? { greetings: greetings.map(greetingOf) } : {}),
    ...(reach.length > 0 ? { reach: reach.map((e) => ({ extension: e.subject, ...e.value })) as never } : {}),
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

function greetingOf({ subject, value }: Entry): NonNullable<Situation['greetings']>[number] {
  const { situation, seconds, said, sound } = value as {
    situation: MessageSituation;
    seconds: number;
    said: string | null;
    sound: string;
  };
  return { mailbox: subject, situation, seconds, ...(said === null ? {} : { text: said }), sound };
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
