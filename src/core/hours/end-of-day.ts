import { DateTime } from 'luxon';

/** The last millisecond of a day (ISO 8601 date) in an IANA zone, in milliseconds since 1970 UTC. */
export const endOfDay = (day: string, zone: string): number => DateTime.fromISO(day, { zone }).endOf('day').toMillis();
