'use client';

import { Box } from '@chakra-ui/react';
import type { DifferenceFacts } from '@/contract/plan';
import { Act, Wrong } from '@/ui/controls';
import type { ApiResult } from '@/workbench/api';
import { useGrown, type Grown } from '@/workbench/use-grown';

/** A page of differences as the server gives it. */
interface DifferencePage<E> {
  edits: E[];
  next: string | null;
  labels: Record<string, string>;
}

export interface Pages<E> extends Omit<Grown<unknown>, 'pages'> {
  edits: E[];
  labels: Record<string, string>;
}

/** A list of differences that grows by pages. */
export function useMorePages<E extends DifferenceFacts>(
  name: string,
  first: DifferencePage<E>,
  ask: (after: string) => Promise<ApiResult<DifferencePage<E>>>,
): Pages<E> {
  const { pages, ...grown } = useGrown(name, first, (page) => page.next, ask);
  return {
    ...grown,
    edits: pages.flatMap((p) => p.edits),
    labels: Object.assign({}, ...pages.map((p) => p.labels)) as Record<string, string>,
  };
}

export function MorePages({ list }: { list: Pages<DifferenceFacts> }) {
  return (
    <Box mt="12px">
      {list.wrong ? <Wrong>{list.wrong}</Wrong> : null}
      {list.more ? (
        <Act disabled={list.busy} onClick={list.more}>
          {list.busy ? 'Fetching …' : 'Show the next 100'}
        </Act>
      ) : null}
    </Box>
  );
}
