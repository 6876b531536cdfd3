'use client';

import { useInfiniteQuery } from '@tanstack/react-query';
import { drawingOf } from '@/ui/drawing';
import type { ApiResult } from './api';

/** A list that grows by pages. */
export interface Grown<P> {
  pages: readonly P[];
  /** fetches the next page; null: all of it is here */
  more: (() => void) | null;
  busy: boolean;
  wrong: string | null;
}

/**
 * A list that grows by pages: the first came with the page that the server drew, and with every new drawing the list begins anew.
 * `after` tells by what the page after one is asked for; null: there is none.
 */
export function useGrown<P extends object>(
  name: string,
  first: P,
  after: (page: P, pages: readonly P[]) => string | null,
  ask: (after: string, signal: AbortSignal) => Promise<ApiResult<P>>,
): Grown<P> {
  const asked = useInfiniteQuery({
    queryKey: ['grown', name, drawingOf(first)],
    initialPageParam: '',
    initialData: { pages: [first], pageParams: [''] },
    getNextPageParam: (page: P, pages: P[]) => after(page, pages),
    queryFn: async ({ pageParam, signal }): Promise<P> => {
      const got = await ask(pageParam, signal);
      if (!got.ok) throw new Error(got.errors[0]!.sentence);
      return got.value;
    },
    staleTime: Infinity,
  });
  return {
    pages: asked.data.pages,
    more: asked.hasNextPage ? () => void asked.fetchNextPage() : null,
    busy: asked.isFetchingNextPage,
    wrong: asked.error?.message ?? null,
  };
}
