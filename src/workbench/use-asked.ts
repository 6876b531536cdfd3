'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { Answer, Input } from '@/contract';
import type { OperationName } from '@/contract/paths';
import { call, type ApiResult } from './api';
import { useDraftVersion } from './edits';

/** What came of a question so far. */
export interface Asked<T> {
  value: T | null;
  /** why there is no answer */
  wrong: string | null;
  waiting: boolean;
}

/**
 * Asks an operation of our API that only reads, once for what it is asked with and for each draft version; null asks nothing.
 * Answers that are no longer waited for are given up. With `keep` the last answer stands until the next one is there; `fresh` asks
 * again each time, for what depends on more than the draft; `also` is what else makes it another question.
 */
export function useAsked<N extends OperationName>(
  name: N,
  input: Input<N> | null,
  { keep = false, fresh = false, also = null }: { keep?: boolean; fresh?: boolean; also?: string | number | null } = {},
): Asked<Answer<N>> {
  const version = useDraftVersion();
  const asked = useQuery({
    queryKey: [name, input, version, also],
    enabled: input !== null,
    ...(fresh ? { staleTime: 0 } : {}),
    placeholderData: keep ? keepPreviousData : undefined,
    queryFn: async ({ signal }): Promise<Answer<N>> => {
      const ask = call as (name: N, input: unknown, signal: AbortSignal) => Promise<ApiResult<Answer<N>>>;
      const result = await ask(name, input, signal);
      if (!result.ok) throw new Error(result.errors[0]!.sentence);
      return result.value;
    },
  });
  if (input === null) return { value: null, wrong: null, waiting: false };
  return {
    value: (asked.data as Answer<N> | undefined) ?? null,
    wrong: asked.error?.message ?? null,
    waiting: asked.isFetching,
  };
}
