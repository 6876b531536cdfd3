'use client';

import { Box } from '@chakra-ui/react';
import { useState } from 'react';
import type { DifferenceFacts } from '@/contract/plan';
import { Act, Wrong } from '@/ui/controls';
import type { ApiResult } from '@/workbench/api';

/** A page of differences as the server gives it. */
interface DifferencePage<E> {
  edits: E[];
  next: string | null;
  labels: Record<string, string>;
}

export interface Pages<E> extends DifferencePage<E> {
  more: () => Promise<void>;
  busy: boolean;
  wrong: string | null;
}

/** A list of differences that grows by pages; it begins anew with every `version` of what it lists. */
export function useMorePages<E extends DifferenceFacts>(
  first: DifferencePage<E>,
  version: unknown,
  ask: (after: string) => Promise<ApiResult<DifferencePage<E>>>,
): Pages<E> {
  const [grown, setGrown] = useState<{ of: unknown; pages: DifferencePage<E>[] }>({ of: version, pages: [] });
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const pages = [first, ...(grown.of === version ? grown.pages : [])];
  const { next } = pages.at(-1)!;
  return {
    edits: pages.flatMap((p) => p.edits),
    labels: Object.assign({}, ...pages.map((p) => p.labels)) as Record<string, string>,
    next,
    busy,
    wrong,
    more: async () => {
      if (next === null) return;
      setBusy(true);
      const got = await ask(next);
      setBusy(false);
      setWrong(got.ok ? null : got.errors[0]!.sentence);
      if (got.ok) setGrown({ of: version, pages: [...pages.slice(1), got.value] });
    },
  };
}

export function MorePages({ list }: { list: Pages<DifferenceFacts> }) {
  return (
    <Box mt="12px">
      {list.wrong ? <Wrong>{list.wrong}</Wrong> : null}
      {list.next !== null ? (
        <Act disabled={list.busy} onClick={() => void list.more()}>
          {list.busy ? 'Fetching …' : 'Show the next 100'}
        </Act>
      ) : null}
    </Box>
  );
}
