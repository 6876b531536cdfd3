'use client';

import { useRouter } from 'next/navigation';
import { createContext, useCallback, useContext, useEffect, useRef, useTransition, type ReactNode } from 'react';

const RefreshContext = createContext<() => void>(() => undefined);

/** A reading that takes so long counts as lost, and another may begin. */
const LOST_MS = 20_000;

/**
 * Reads pages again, one reading at a time: what is asked for meanwhile is one more reading after it. A reading that was begun
 * anew every few seconds would never come to its end on a slow line.
 */
export function RefreshProvider({ children }: { children: ReactNode }) {
  const router = useRouter();
  const [pending, start] = useTransition();
  const begun = useRef<number | null>(null);
  const again = useRef(false);
  const refresh = useCallback(() => {
    if (begun.current !== null && Date.now() - begun.current < LOST_MS) {
      again.current = true;
      return;
    }
    begun.current = Date.now();
    start(() => router.refresh());
  }, [router]);
  useEffect(() => {
    if (pending) return;
    begun.current = null;
    if (!again.current) return;
    again.current = false;
    refresh();
  }, [pending, refresh]);
  return <RefreshContext.Provider value={refresh}>{children}</RefreshContext.Provider>;
}

/** Reads the page again from the server, after what is being read just now. */
export const useRefresh = (): (() => void) => useContext(RefreshContext);
