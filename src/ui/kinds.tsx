'use client';

import { createContext, useContext, useMemo, type ReactNode } from 'react';
import type { Look } from '@/core/plan/facts/look';

/** What screens need of a kind of object: its name, how it is drawn, and its page with `{id}`. */
export interface Face {
  word: string;
  words: string;
  look: Look;
  path: string | null;
}

const Faces = createContext<Readonly<Record<string, Face>>>({});

/** Hands the faces of all kinds, as the server's registry has them, to everything within. */
export function FacesProvider({ faces, children }: { faces: Readonly<Record<string, Face>>; children: ReactNode }) {
  return <Faces.Provider value={faces}>{children}</Faces.Provider>;
}

/** Ends that are no kinds of object, and words of a trace that are drawn like one. */
const OTHERS: Readonly<Record<string, Look>> = {
  outside: 'leaving',
  refused: 'crossed',
  caller: 'caller',
  rule: 'rule',
};

/** Word, look and page of each kind. */
export function useKinds() {
  const faces = useContext(Faces);
  return useMemo(
    () => ({
      /** the page of an object; null for kinds without one */
      pathOf: (kind: string, id: string): string | null =>
        faces[kind]?.path?.replace('{id}', encodeURIComponent(id)) ?? null,
      lookOf: (kind: string): Look => OTHERS[kind] ?? faces[kind]?.look ?? 'rule',
      wordOf: (kind: string): string => faces[kind]?.word ?? kind,
    }),
    [faces],
  );
}
