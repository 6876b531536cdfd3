import type { Settings } from '@/contract/access';
import { change, reading, rows, writing } from '../db/pool';
import { recordHistory } from './history';
import { demand, type Actor } from './rights';

export async function readSettings(): Promise<Settings> {
  const [found] = await reading((c) =>
    rows<{ idle: number; hours: number }>(
      c,
      'SELECT idle_sign_out_minutes AS idle, most_session_hours AS hours FROM setting WHERE id = 1',
    ),
  );
  return { idleSignOutMinutes: found!.idle, mostSessionHours: found!.hours };
}

export async function changeSettings(actor: Actor, settings: Partial<Settings>): Promise<void> {
  demand(actor, 'changeSettings');
  await writing(async (c) => {
    const { idleSignOutMinutes: idle, mostSessionHours: hours } = settings;
    if (idle !== undefined) await change(c, 'UPDATE setting SET idle_sign_out_minutes = ? WHERE id = 1', [idle]);
    if (hours !== undefined) await change(c, 'UPDATE setting SET most_session_hours = ? WHERE id = 1', [hours]);
    await recordHistory(c, actor, { action: 'settings-changed', detail: { ...settings } });
  });
}
