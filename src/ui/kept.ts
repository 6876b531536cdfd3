'use client';

import { useCallback, useMemo, useSyncExternalStore } from 'react';

/*
 * What is typed but not yet in the draft stays in the browser, per account and thing, until it is valid or given up. Secrets
 * are never kept: what a form holds of them is left out by whoever keeps it.
 */

/** What something kept is, for those who come back to it: its name, the page it was typed on, and which fields. */
export interface KeptAbout {
  title: string;
  path: string;
  fields?: readonly string[];
}

interface Entry {
  value: unknown;
  about: KeptAbout | null;
  at: string;
}

const PREFIX = 'polydrome-typed ';
/** Where what was typed stood before it said what it is: it held a PIN, so it goes. */
const OLD_PREFIX = 'polydrome-kept ';

const listeners = new Set<() => void>();
const told = () => {
  for (const listener of listeners) listener();
};

function textOf(key: string): string | null {
  return typeof window === 'undefined' ? null : window.localStorage.getItem(PREFIX + key);
}

function entryOf(text: string | null): Entry | null {
  if (text === null) return null;
  try {
    return JSON.parse(text) as Entry;
  } catch {
    return null;
  }
}

/** What is kept under a key; null when nothing is. */
export const readKept = <T>(key: string): T | null => (entryOf(textOf(key))?.value ?? null) as T | null;

/** Keeps a value under a key; null forgets it. */
export function writeKept(key: string, value: unknown, about: KeptAbout | null): void {
  if (value === null) window.localStorage.removeItem(PREFIX + key);
  else
    try {
      const entry: Entry = { value, about, at: new Date().toISOString() };
      window.localStorage.setItem(PREFIX + key, JSON.stringify(entry));
    } catch {
      // A browser that keeps nothing more: what is typed stays on the screen.
    }
  told();
}

export function subscribeKept(listener: () => void): () => void {
  listeners.add(listener);
  window.addEventListener('storage', listener);
  return () => {
    listeners.delete(listener);
    window.removeEventListener('storage', listener);
  };
}

/** A value kept in this browser under a key; null when there is none. Setting null forgets it; a function makes it from what is kept by then. */
export function useKept<T>(
  key: string,
  about: KeptAbout | null = null,
): [T | null, (value: T | null | ((now: T | null) => T | null)) => void] {
  const text = useSyncExternalStore(
    subscribeKept,
    () => textOf(key),
    () => null,
  );
  const aboutText = JSON.stringify(about);
  const set = useCallback(
    (value: T | null | ((now: T | null) => T | null)) => {
      const next = typeof value === 'function' ? (value as (now: T | null) => T | null)(readKept<T>(key)) : value;
      writeKept(key, next, JSON.parse(aboutText) as KeptAbout | null);
    },
    [key, aboutText],
  );
  const value = useMemo(() => (entryOf(text)?.value ?? null) as T | null, [text]);
  return [value, set];
}

const notFollowed = () => () => undefined;

/** Whether something is kept under a key as this is drawn; what is kept from then on is not followed. */
export const useIsKept = (key: string): boolean =>
  useSyncExternalStore(
    notFollowed,
    () => textOf(key) !== null,
    () => false,
  );

/** Something typed and not in the draft. */
export interface KeptThing extends KeptAbout {
  key: string;
  at: string;
}

function thingsOf(account: string): string {
  const out: KeptThing[] = [];
  for (let i = 0; i < window.localStorage.length; i++) {
    const name = window.localStorage.key(i)!;
    if (!name.startsWith(`${PREFIX}${account} `)) continue;
    const key = name.slice(PREFIX.length);
    const entry = entryOf(textOf(key));
    if (entry?.about) out.push({ key, at: entry.at, ...entry.about });
  }
  return JSON.stringify(out.sort((a, b) => (a.at < b.at ? 1 : -1)));
}

/** Everything an account typed in this browser that is not in the draft, the newest first. */
export function useKeptThings(account: string): KeptThing[] {
  const text = useSyncExternalStore(
    subscribeKept,
    () => thingsOf(account),
    () => '[]',
  );
  return useMemo(() => JSON.parse(text) as KeptThing[], [text]);
}

/** Forgets what an older version of the program kept, which had secrets in it. */
export function forgetOldKept(): void {
  for (const name of Object.keys(window.localStorage))
    if (name.startsWith(OLD_PREFIX)) window.localStorage.removeItem(name);
}
