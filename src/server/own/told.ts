import type { Actor } from '../access/rights';
import { ask } from '../engine';
import { entriesAt } from '../state/entries';
import type { OwnReach } from '@/core/routing';

/** What a person set on the page of their own and holds now, in words, for those who look after them. */
interface OwnSet {
  what: string;
  since: string;
  until: string | null;
}

/** What holds now of a person, of some extensions and of some mailboxes. */
export async function ownSetOf(
  reader: Actor,
  of: {
    person: string;
    extensions: readonly string[];
    mailboxes: readonly string[];
    states: Readonly<Record<string, string>>;
  },
): Promise<OwnSet[]> {
  const ids = new Set([of.person, ...of.extensions, ...of.mailboxes]);
  const found = (await entriesAt(Date.now())).filter((e) => ids.has(e.subject));
  const out: OwnSet[] = [];
  for (const e of found) {
    const times = {
      since: new Date(e.since).toISOString(),
      until: e.until === null ? null : new Date(e.until).toISOString(),
    };
    if (e.kind === 'presence')
      out.push({ what: `is “${of.states[e.value.rule as string] ?? 'in a state that is gone'}”`, ...times });
    if (e.kind === 'greeting') out.push({ what: `own greeting when ${e.value.situation as string}`, ...times });
    if (e.kind === 'signed-in') out.push({ what: 'signed in to queues', ...times });
    if (e.kind === 'paused') out.push({ what: `paused: ${e.value.reason as string}`, ...times });
    if (e.kind === 'reach') {
      const reach = { extension: e.subject, ...e.value } as OwnReach;
      const steps = await ask('ownReachTold', { reader, reach });
      out.push({ what: `own reach plan: ${steps.map((s) => `${s.label}, ${s.seconds} s`).join(' → ')}`, ...times });
    }
  }
  return out;
}
