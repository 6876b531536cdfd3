'use client';

import { createContext, useContext } from 'react';
import type { DayOrder } from '@/core/plan';

export const DayOrderContext = createContext<DayOrder>('day first');

/** Stands around what writes moments: how the organisation writes its dates. */
export const DayOrderProvider = DayOrderContext.Provider;

interface Writing {
  /** IANA name of a zone; none: the reader's own */
  zone?: string;
  /** without the time of day */
  dayOnly?: boolean;
  /** with the day of the week, without the year */
  weekday?: boolean;
}

/** Writes moments, given in ISO 8601 or milliseconds since 1970 UTC: the one way in which screens write them. */
export function useWriting(): (at: string | number, how?: Writing) => string {
  const order = useContext(DayOrderContext);
  return (at, { zone, dayOnly, weekday } = {}) =>
    new Intl.DateTimeFormat(order === 'month first' ? 'en-US' : 'en-GB', {
      timeZone: zone,
      day: 'numeric',
      month: 'short',
      ...(weekday ? { weekday: 'short' } : { year: 'numeric' }),
      ...(dayOnly ? {} : { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }),
    }).format(new Date(at));
}

/** A moment in the reader's own zone, or in one that is named; the moment in UTC stands in the title. */
export function Time({ iso, ...how }: { iso: string } & Writing) {
  const write = useWriting();
  return (
    <time dateTime={iso} title={`${iso} (UTC)`} suppressHydrationWarning>
      {write(iso, how)}
    </time>
  );
}
