/** The time at which a quarter hour of the day begins, counted from 0; 96 is the end of the day. */
export const quarterClock = (quarter: number): string =>
  `${String(Math.floor(quarter / 4)).padStart(2, '0')}:${String((quarter % 4) * 15).padStart(2, '0')}`;
