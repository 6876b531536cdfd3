import { partition, stateAt, type Hours } from './hours';

/** The next time that the clock of some hours is changed, and what that does to them. */
export interface NextClockChange {
  /** milliseconds since 1970 UTC */
  at: number;
  /** wall time that never happens, or that happens twice: local ISO times without offset */
  wall: { from: string; to: string };
  kind: 'skipped' | 'repeated';
  /** minutes by which the clock is moved */
  minutes: number;
  /** how it falls: while it is closed, while it is open, or partly */
  falls: 'closed' | 'open' | 'partly open';
}

const YEAR = 370 * 86_400_000;
const MINUTE = 60_000;

/** The next clock change within a year of a moment; null in zones that have none. Wall time is that before the change (ENGINE E10). */
export function clockChange(hours: Hours, now: number): NextClockChange | null {
  const [before, change] = hours.clock.stretches(now, now + YEAR);
  if (!before || !change) return null;
  const minutes = Math.abs(change.offset - before.offset);
  const kind = change.offset > before.offset ? ('skipped' as const) : ('repeated' as const);
  const local = (at: number, offset: number) => new Date(at + offset * MINUTE).toISOString().slice(0, 16);
  const wall =
    kind === 'skipped'
      ? { from: local(change.at, before.offset), to: local(change.at, change.offset) }
      : { from: local(change.at, change.offset), to: local(change.at, before.offset) };
  return { at: change.at, wall, kind, minutes, falls: fallsOn(hours, change.at, minutes, kind) };
}

/** Whether it is open through the time that is skipped, as it would be on any such day, or through both passes of what is repeated. */
function fallsOn(hours: Hours, at: number, minutes: number, kind: NextClockChange['kind']): NextClockChange['falls'] {
  const length = minutes * MINUTE;
  const [from, to] = kind === 'repeated' ? [at - length, at + length] : [at - MINUTE, at + MINUTE];
  const open = partition(hours, [], from, to).map((s) => s.state.open);
  if (open.every((o) => !o)) return 'closed';
  return open.every((o) => o) && stateAt(hours, [], at).open ? 'open' : 'partly open';
}
