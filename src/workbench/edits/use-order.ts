'use client';

import { useRef, useState } from 'react';
import type { DraftKind } from '@/core/plan';
import { useTab } from './tab';

interface Move {
  n: number;
  id: string;
  after: string | null;
  /** the draft version that it made; null: it is on its way */
  made: number | null;
}

/** An order with something moved right behind something else (null: to the front). */
export function withMoved(order: readonly string[], id: string, after: string | null): string[] {
  const others = order.filter((x) => x !== id);
  const at = after === null ? 0 : others.indexOf(after) + 1;
  return [...others.slice(0, at), id, ...others.slice(at)];
}

/**
 * The order of a list of objects as it is being moved about: moves show at once and go to the draft one after the other, until
 * a page brings what they made.
 */
export function useOrder(kind: DraftKind, brought: readonly string[]) {
  const { store, draftVersion } = useTab();
  const [moves, setMoves] = useState<Move[]>([]);
  const next = useRef(0);
  const [wrong, setWrong] = useState<string | null>(null);
  const standing = moves.filter((m) => m.made === null || m.made > draftVersion);
  const order = standing.reduce<readonly string[]>(
    (o, m) => (o.includes(m.id) && (m.after === null || o.includes(m.after)) ? withMoved(o, m.id, m.after) : o),
    brought,
  );
  const move = async (id: string, after: string | null) => {
    const n = next.current++;
    setMoves((now) => [...now.filter((m) => m.made === null || m.made > draftVersion), { n, id, after, made: null }]);
    const made = await store.together([{ do: 'move', of: { kind, id }, after }]);
    setWrong(made.ok ? null : made.errors[0]!.sentence);
    setMoves((now) =>
      made.ok
        ? now.map((m) => (m.n === n ? { ...m, made: made.value.draftVersion } : m))
        : now.filter((m) => m.n !== n),
    );
  };
  return { order, move, wrong };
}
