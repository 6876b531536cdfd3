'use client';

import { useCallback, useSyncExternalStore } from 'react';

/* What is typed but not yet in the draft stays in the browser, per person and object, until it is valid or given up. */

const listeners = new Set<() => void>();
const PREFIX = 'polydrome-kept ';

function read(key: string): string | null {
  return typeof window === 'undefined' ? null : window.localStorage.getItem(PREFIX + key);
}

function write(key: string, value: string | null): void {
  if (value === null) window.localStorage.removeItem(PREFIX + key);
  else window.localStorage.setItem(PREFIX + key, value);
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  window.addEventListener('storage', listener);
  return () => {
    listeners.delete(listener);
    window.removeEventListener('storage', listener);
  };
}

/** A value kept in this browser under a key; null when there is none. Setting null forgets it; a function makes it from what is kept by then. */
export function useKept<T>(key: string): [T | null, (value: T | null | ((now: T | null) => T | null)) => void] {
  const text = useSyncExternalStore(
    subscribe,
    () => read(key),
    () => null,
  );
  const set = useCallback(
    (value: T | null | ((now: T | null) => T | null)) => {
      const now = () => {
        const known = read(key);
        return known === null ? null : (JSON.parse(known) as T);
      };
      const next = typeof value === 'function' ? (value as (now: T | null) => T | null)(now()) : value;
      write(key, next === null ? null : JSON.stringify(next));
    },
    [key],
  );
  return [text === null ? null : (JSON.parse(text) as T), set];
}
