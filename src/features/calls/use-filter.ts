'use client';

import { usePathname } from 'next/navigation';
import { useEffect, useState } from 'react';
import { useSettled } from '@/ui/settled';

/** What calls are chosen by, as text; empty is any. */
export type Filter = Record<string, string>;

/** The part of a filter that says something. */
export const said = (filter: Filter): Filter => Object.fromEntries(Object.entries(filter).filter(([, v]) => v !== ''));

/** The address of the calls of a filter. */
export const callsPath = (filter: Filter, page = '/calls'): string => {
  const query = new URLSearchParams(said(filter)).toString();
  return query ? `${page}?${query}` : page;
};

const SETTLE_MS = 300;

/** A filter that stands in the address; what is asked with it waits until typing rests. */
export function useFilter(initial: Filter): { filter: Filter; asked: Filter; put: (change: Filter) => void } {
  const path = usePathname();
  const [filter, setFilter] = useState(initial);
  const asked = useSettled(filter, SETTLE_MS);
  useEffect(() => {
    const wanted = callsPath(filter, path);
    if (wanted !== window.location.pathname + window.location.search) window.history.replaceState(null, '', wanted);
  }, [filter, path]);
  return { filter, asked, put: (change) => setFilter((now) => ({ ...now, ...change })) };
}
