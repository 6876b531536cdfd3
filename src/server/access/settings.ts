import type { Settings } from '@/contract/access';
import { change, reading, rows, writing } from '../db/pool';
import { recordHistory } from './history';
import { demand, type Actor } from './rights';

export async function readSettings(): Promise<Settings> {
  const [found] = await reading((c) =>
    rows<{ idle: number }>(c, 'SELECT idle_sign_out_minutes AS idle FROM setting WHERE id = 1'),
  );
  return { idleSignOutMinutes: found!.idle };
}

export async function changeSettings(actor: Actor, settings: Settings): Promise<void> {
  demand(actor, 'changeSettings');
  await writing(async (c) => {
    await change(c, 'UPDATE setting SET idle_sign_out_minutes = ? WHERE id = 1', [settings.idleSignOutMinutes]);
    await recordHistory(c, actor, { action: 'settings-changed', detail: { ...settings } });
  });
}
