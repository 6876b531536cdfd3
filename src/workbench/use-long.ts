'use client';

import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import type { Answer, Input } from '@/contract';
import type { OperationName } from '@/contract/paths';
import { call, callLong } from './api';
import { useDraftVersion } from './edits';
import type { Asked } from './use-asked';

/** What came of a long question so far, how far it has come, and how it is stopped and asked again. */
export interface AskedLong<T> extends Asked<T> {
  /** 0 to 1; null: not told yet */
  share: number | null;
  stopped: boolean;
  stop: () => void;
  again: () => void;
}

const LOOK_EVERY_MS = 500;

/** Asks what may take long, as `useAsked` does; the last answer stands until the next one is there. Nothing is asked of null. */
export function useLong<N extends OperationName>(name: N, input: Input<N> | null): AskedLong<Answer<N>> {
  const version = useDraftVersion();
  const queries = useQueryClient();
  const key = [name, input, version, 'long'];
  const [ticket, setTicket] = useState('');
  const [stopped, setStopped] = useState(false);
  const asked = useQuery({
    queryKey: key,
    enabled: input !== null,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: async ({ signal }): Promise<Answer<N>> => {
      const own = uuid();
      setTicket(own);
      setStopped(false);
      const result = await callLong(name, input!, signal, own);
      if (!result.ok) throw new Error(result.errors[0]!.sentence);
      return result.value;
    },
  });
  const waiting = asked.isFetching;
  const far = useQuery({
    queryKey: ['progress', ticket],
    enabled: waiting && ticket !== '',
    refetchInterval: LOOK_EVERY_MS,
    queryFn: async () => {
      const result = await call('progress', { params: { ticket } });
      return result.ok ? result.value.share : null;
    },
  });
  return {
    value: input === null ? null : (asked.data ?? null),
    wrong: asked.error?.message ?? null,
    waiting,
    share: waiting ? (far.data ?? null) : null,
    stopped: stopped && !waiting,
    stop: () => {
      setStopped(true);
      void queries.cancelQueries({ queryKey: key });
    },
    again: () => void asked.refetch(),
  };
}
