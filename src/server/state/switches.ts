import type { SwitchInput } from '@/contract/state';
import { recordHistory } from '../access/history';
import { demand, type Actor } from '../access/rights';
import { writing } from '../db/pool';
import { ask } from '../engine';
import { addEntry, endEntries, entriesAt } from './entries';
import { untilOf } from './forwarding';

/* Time switches set by hand: it acts at once, and holds until its end or until somebody sets it again. */

/** How a time switch is set by hand. */
export interface SwitchSet {
  id: string;
  setting: 'open' | 'closed';
  since: string;
  until: string | null;
  by: string;
}

/** Sets a time switch that is live, or gives it back to its hours. */
export async function setSwitch(actor: Actor, id: string, input: SwitchInput): Promise<void> {
  demand(actor, 'actNow');
  const { label, where, zone } = await ask('actsOn', { reader: actor, kind: 'timeSwitch', id, path: 'id' });
  demand(actor, 'actNow', where, label);
  const until = untilOf(input.until, zone);
  await writing(async (c) => {
    await endEntries(c, { kind: 'switch', subject: id });
    if (input.setting !== 'by hours')
      await addEntry(
        c,
        actor,
        { kind: 'switch', subject: id, value: { setting: input.setting } },
        { since: new Date(), until },
      );
    await recordHistory(c, actor, {
      action: 'switch-set',
      object: id,
      of: label,
      detail: { setting: input.setting, until: until?.toISOString() ?? 'somebody sets it' },
    });
  });
}

/** Switches that are set by hand now; one where a switch is named. */
export async function switchesSet(subject?: string): Promise<SwitchSet[]> {
  const found = await entriesAt(Date.now(), { kind: 'switch', ...(subject ? { subject } : {}) });
  return found.map((e) => ({
    id: e.subject,
    setting: e.value.setting as SwitchSet['setting'],
    since: new Date(e.since).toISOString(),
    until: e.until === null ? null : new Date(e.until).toISOString(),
    by: e.by,
  }));
}
