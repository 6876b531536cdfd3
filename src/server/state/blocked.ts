import type { BlockInput, BlockLine } from '@/contract/state';
import { spacedNumber } from '@/core/numbers';
import { recordHistory } from '../access/history';
import { Refused, demand, may, type Actor } from '../access/rights';
import { writing } from '../db/pool';
import { ask } from '../engine';
import { addEntry, endEntries, entriesIn } from './entries';
import { untilOf } from './forwarding';
import { demandThere, gone, oneThatIsSet } from './notices';

/* Callers who are turned away, for a site or for all: it acts at once, beside those that the plan blocks. */

const ALL = 'organisation';
const FAR = Date.UTC(2200, 0, 1);
const HIDDEN_NUMBER = 'whoever hides the number';

const whereOf = (site: string | null) => ({ area: 'incoming', site }) as const;
const shownAs = (calling: string | null) => (calling === null ? HIDDEN_NUMBER : spacedNumber(calling));

/** Blocks a caller; who is blocked there already is not blocked twice. */
export async function blockCaller(actor: Actor, input: BlockInput): Promise<{ id: string }> {
  demand(actor, 'actNow', whereOf(input.site));
  const zoned = input.site
    ? await ask('actsOn', { reader: actor, kind: 'site', id: input.site, path: 'site' })
    : { zone: null };
  const calling =
    input.calling === null ? null : (await ask('readCaller', { text: input.calling, site: input.site })).e164;
  const { leadsTo } = await ask('leadsLive', { reader: actor, leadsTo: input.leadsTo, prompt: null });
  const until = untilOf(input.until, zoned.zone);
  const subject = input.site ?? ALL;
  const known = await entriesIn({ from: Date.now(), to: FAR }, { kind: 'blocked', subject });
  if (known.some((e) => e.value.calling === calling))
    throw new Refused(422, 'blocked-already', `${shownAs(calling)} is blocked there already.`, 'calling');
  return writing(async (c) => {
    const value = { calling, leadsTo: input.leadsTo, reason: input.reason };
    const id = await addEntry(c, actor, { kind: 'blocked', subject, value }, { since: new Date(), until });
    await recordHistory(c, actor, {
      action: 'caller-blocked',
      of: shownAs(calling),
      detail: {
        ...(leadsTo ? { 'leads to': leadsTo.label } : {}),
        until: until?.toISOString() ?? 'somebody lets it through',
        ...(input.reason ? { reason: input.reason } : {}),
      },
    });
    return { id };
  });
}

/** Lets a blocked caller through again. */
export async function unblockCaller(actor: Actor, id: string): Promise<void> {
  demand(actor, 'actNow');
  const found = await oneThatIsSet('blocked', id);
  const site = found.subject === ALL ? null : found.subject;
  if (!may(actor, 'actNow', whereOf(site))) demandThere(actor, 'callers of that site');
  await writing(async (c) => {
    if ((await endEntries(c, { kind: 'blocked', id })) === 0) throw gone('blocked caller');
    await recordHistory(c, actor, { action: 'caller-unblocked', of: shownAs(found.value.calling as string | null) });
  });
}

/** Callers who are blocked now, the newest first, as far as the reader may look there. */
export async function listBlocked(actor: Actor): Promise<BlockLine[]> {
  const found = await entriesIn({ from: Date.now(), to: FAR }, { kind: 'blocked' });
  const ids = found.flatMap((e) => [e.subject, e.value.leadsTo]).filter((v) => typeof v === 'string' && v !== ALL);
  const names = await ask('namesOf', { reader: actor, ids: [...new Set(ids as string[])] });
  return found.flatMap((e): BlockLine[] => {
    const site = e.subject === ALL ? null : e.subject;
    if (!may(actor, 'look', whereOf(site)) || (site !== null && !names[site])) return [];
    const calling = e.value.calling as string | null;
    const to = e.value.leadsTo as string | null;
    return [
      {
        id: e.id,
        site,
        siteName: site === null ? 'all sites' : names[site]!.label,
        calling,
        shown: shownAs(calling),
        since: new Date(e.since).toISOString(),
        until: e.until === null ? null : new Date(e.until).toISOString(),
        leadsTo:
          to === null
            ? null
            : { kind: names[to]?.kind ?? 'tone', id: to, label: names[to]?.label ?? 'not there any more' },
        reason: e.value.reason as string,
        by: e.by,
        mine: may(actor, 'actNow', whereOf(site)),
      },
    ];
  });
}
