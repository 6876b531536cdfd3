import type { NoticeInput, NoticeLine } from '@/contract/state';
import { recordHistory } from '../access/history';
import { Refused, demand, type Actor } from '../access/rights';
import { writing } from '../db/pool';
import { ask } from '../engine';
import { addEntry, endEntries, entriesIn, type Entry } from './entries';
import { momentIn, untilOf } from './forwarding';

/* Notices act at once and end by themselves, beside draft and revisions (ENGINE E10, ARCHITECTURE principle 6). */

const FAR = Date.UTC(2200, 0, 1);

/** Sets a notice at something that is live; tells its id. */
export async function setNotice(actor: Actor, input: NoticeInput): Promise<{ id: string }> {
  demand(actor, 'actNow');
  const { kind, id } = input.of;
  const { label, where, zone } = await ask('actsOn', { reader: actor, kind, id, path: 'of.id' });
  demand(actor, 'actNow', where, label);
  const { leadsTo, prompt } = await ask('leadsLive', { reader: actor, leadsTo: input.leadsTo, prompt: input.prompt });
  const since = input.from === null ? new Date() : new Date(momentIn(input.from, zone));
  const until = untilOf(input.until, zone);
  if (until !== null && until <= since)
    throw new Refused(422, 'ends-before', 'It ends before it begins; choose a later end.', 'until');
  return writing(async (c) => {
    const value = { kind, open: input.open, leadsTo: input.leadsTo, prompt: input.prompt, reason: input.reason };
    // One that is set for now begins now, not a moment ago.
    const made = await addEntry(c, actor, { kind: 'notice', subject: id, value }, { since, until });
    await recordHistory(c, actor, {
      action: 'notice-set',
      object: id,
      of: label,
      detail: {
        says: input.open ? 'open' : 'closed',
        ...(leadsTo ? { 'leads to': leadsTo.label } : {}),
        ...(prompt ? { plays: prompt.label } : {}),
        from: since.toISOString(),
        until: until?.toISOString() ?? 'somebody ends it',
        ...(input.reason ? { reason: input.reason } : {}),
      },
    });
    return { id: made };
  });
}

/** Ends a notice now; one that has not begun is taken back. */
export async function endNotice(actor: Actor, id: string): Promise<void> {
  demand(actor, 'actNow');
  const found = await oneThatIsSet('notice', id);
  const named = (await ask('namesOf', { reader: actor, ids: [found.subject] }))[found.subject];
  if (!named) throw gone('notice');
  if (!named.mine) demandThere(actor, named.label);
  await writing(async (c) => {
    if ((await endEntries(c, { kind: 'notice', id })) === 0) throw gone('notice');
    await recordHistory(c, actor, { action: 'notice-ended', object: found.subject, of: named.label });
  });
}

/** Notices that hold or are to come, as far as the reader may see what they belong to: those that hold first, then by their begin. */
export async function listNotices(actor: Actor, subject?: string): Promise<NoticeLine[]> {
  const now = Date.now();
  const entries = await entriesIn({ from: now, to: FAR }, { kind: 'notice', ...(subject ? { subject } : {}) });
  const ids = entries.flatMap((e) => [e.subject, e.value.leadsTo, e.value.prompt]).filter((v) => typeof v === 'string');
  const names = await ask('namesOf', { reader: actor, ids: [...new Set(ids)] });
  const ref = (id: unknown) => {
    if (typeof id !== 'string') return null;
    const known = names[id];
    return { kind: known?.kind ?? 'tone', id, label: known?.label ?? 'not there any more, or not yours to see' };
  };
  return entries
    .flatMap((e): NoticeLine[] => {
      const of = names[e.subject];
      if (!of) return [];
      return [
        {
          id: e.id,
          of: { kind: of.kind, id: of.id, label: of.label },
          open: e.value.open as boolean,
          from: new Date(e.since).toISOString(),
          until: e.until === null ? null : new Date(e.until).toISOString(),
          zone: of.zone,
          leadsTo: ref(e.value.leadsTo),
          prompt: ref(e.value.prompt),
          reason: e.value.reason as string,
          by: e.by,
          holds: e.since <= now,
          mine: of.mine,
        },
      ];
    })
    .sort((a, b) => Number(b.holds) - Number(a.holds) || (a.holds ? 0 : a.from.localeCompare(b.from)));
}

/** An entry that holds or is to come; 404 when there is none. */
export async function oneThatIsSet(kind: 'notice' | 'blocked', id: string): Promise<Entry> {
  const found = (await entriesIn({ from: Date.now(), to: FAR }, { kind })).find((e) => e.id === id);
  if (!found) throw gone(kind === 'notice' ? 'notice' : 'blocked caller');
  return found;
}

export const gone = (what: string) =>
  new Refused(404, 'not-there', `There is no such ${what} any more: it has ended, or somebody ended it.`);

/** Says no to somebody who may act at once, but not here. */
export function demandThere(actor: Actor, label: string): never {
  demand(actor, 'actNow');
  throw new Refused(
    403,
    'not-allowed',
    `The role ${actor.role.name} may not act at once for ${label}; somebody with that right can.`,
  );
}
