import type { Settings } from '@/contract/access';
import { change, reading, rows, writing } from '../db/pool';
import { recordHistory } from './history';
import { demand, type Actor } from './rights';

export async function readSettings(): Promise<Settings> {
  const [found] = await reading((c) =>
    rows<{ idle: number; hours: number; months: number | null; days: number | null; factor: number }>(
      c,
      'SELECT idle_sign_out_minutes AS idle, most_session_hours AS hours, keep_calls_months AS months, keep_recordings_days AS days, people_second_factor AS factor FROM setting WHERE id = 1',
    ),
  );
  return {
    idleSignOutMinutes: found!.idle,
    mostSessionHours: found!.hours,
    keepCallsMonths: found!.months,
    keepRecordingsDays: found!.days,
    peopleSecondFactor: found!.factor === 1,
  };
}

export async function changeSettings(actor: Actor, settings: Partial<Settings>): Promise<void> {
  demand(actor, 'changeSettings');
  await writing(async (c) => {
    const { idleSignOutMinutes: idle, mostSessionHours: hours, keepCallsMonths: months } = settings;
    const { peopleSecondFactor: factor, keepRecordingsDays: days } = settings;
    if (idle !== undefined) await change(c, 'UPDATE setting SET idle_sign_out_minutes = ? WHERE id = 1', [idle]);
    if (hours !== undefined) await change(c, 'UPDATE setting SET most_session_hours = ? WHERE id = 1', [hours]);
    if (months !== undefined) await change(c, 'UPDATE setting SET keep_calls_months = ? WHERE id = 1', [months]);
    if (days !== undefined) await change(c, 'UPDATE setting SET keep_recordings_days = ? WHERE id = 1', [days]);
    if (factor !== undefined) await change(c, 'UPDATE setting SET people_second_factor = ? WHERE id = 1', [factor]);
    await recordHistory(c, actor, { action: 'settings-changed', detail: { ...settings } });
  });
}
