'use client';

import { createContext, useContext, useEffect, useMemo, useState, useSyncExternalStore, type ReactNode } from 'react';
import { forgetOldKept, readKept, subscribeKept, writeKept, type KeptAbout } from '@/ui/kept';
import { call } from '../api';
import { EditStore, type Keeper, type Of, type TypedFields } from './store';
import { useRefresh } from '@/ui/refresh';

/* The edits of one tab: one queue, whatever page they were made on. */

interface Tab {
  store: EditStore;
  account: string;
  /** the draft version that the page on the screen was made from */
  draftVersion: number;
  /** what kept fields are called for those who come back to them */
  about: Map<string, Omit<KeptAbout, 'fields'> & { titles: Readonly<Record<string, string>> }>;
}

const TabContext = createContext<Tab | null>(null);

/** Under which key typed fields of an object are kept in this browser. */
export const keptKey = (account: string, { kind, id }: Of) => `${account} object ${kind} ${id}`;

function newTab(account: string, onMade: () => void): Omit<Tab, 'draftVersion'> {
  const about: Tab['about'] = new Map();
  const keeper: Keeper = {
    read: (of) => readKept<TypedFields>(keptKey(account, of)),
    write: (of, fields) => {
      const known = about.get(`${of.kind} ${of.id}`);
      const { titles = {}, ...rest } = known ?? { title: of.id, path: '/' };
      const named = Object.keys(fields ?? {}).map((f) => titles[f] ?? f);
      writeKept(keptKey(account, of), fields, { ...rest, fields: named });
    },
  };
  return { store: new EditStore((body) => call('edit', { body }), keeper, onMade), account, about };
}

/** Stands around every page of a signed-in account; lives as long as the tab. */
export function EditsProvider({
  account,
  draftVersion,
  children,
}: {
  account: string;
  draftVersion: number;
  children: ReactNode;
}) {
  const refresh = useRefresh();
  // The queue outlives pages: what was left on one goes on while the next is read.
  const [made] = useState(() => newTab(account, refresh));
  const tab = useMemo(() => ({ ...made, draftVersion }), [made, draftVersion]);
  useEffect(forgetOldKept, []);
  return <TabContext.Provider value={tab}>{children}</TabContext.Provider>;
}

/** The draft version that the page on the screen was made from; 0 where nobody is signed in. */
export const useDraftVersion = (): number => useContext(TabContext)?.draftVersion ?? 0;

/** Who is signed in: what is kept of what they type goes by it. */
export const useAccount = (): string => useContext(TabContext)?.account ?? '';

/** How many requests of edits are on their way. */
export const useWaiting = (): number => useTab().store.waiting;

/** The tab's edits; renders again whenever they change, here or in another tab. */
export function useTab(): Tab {
  const tab = useContext(TabContext);
  if (!tab) throw new Error('edits are made within EditsProvider');
  useSyncExternalStore(
    tab.store.subscribe,
    () => tab.store.version,
    () => 0,
  );
  const keptVersion = useMemo(() => ({ n: 0 }), []);
  useSyncExternalStore(
    (listener) =>
      subscribeKept(() => {
        keptVersion.n++;
        listener();
      }),
    () => keptVersion.n,
    () => 0,
  );
  return tab;
}
