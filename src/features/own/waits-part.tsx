'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { useCallback, type ReactNode } from 'react';
import type { Answer } from '@/contract';
import type { QueueNotice } from '@/contract/board';
import { Glyph } from '@/ui/glyph';
import { call } from '@/workbench/api';
import { CallbacksPart } from '@/workbench/queues/callbacks-part';
import { ToldPart } from '@/workbench/queues/told-part';

const EVERY_MS = 15_000;

/** Who wants to be called by a person, and the queues they manage with what was told of them; asked again now and then. */
export function WaitsPart({ title }: { title: (inside: ReactNode) => ReactNode }) {
  const { data, refetch } = useQuery({
    queryKey: ['own told'],
    refetchInterval: EVERY_MS,
    queryFn: async ({ signal }): Promise<Answer<'ownTold'>> => {
      const got = await call('ownTold', {}, signal);
      if (!got.ok) throw new Error(got.errors[0]!.sentence);
      return got.value;
    },
  });
  const queues = data?.queues;
  const of = useCallback(
    (notice: QueueNotice) => queues?.find((q) => 'queue' in notice && q.id === notice.queue)?.name ?? null,
    [queues],
  );
  if (!data) return null;
  return (
    <>
      <CallbacksPart callbacks={data.callbacks} operation="ownCallbackDone" onDone={() => void refetch()} />
      {data.queues.length === 0 ? null : title(<Managed data={data} of={of} />)}
    </>
  );
}

function Managed({ data, of }: { data: Answer<'ownTold'>; of: (notice: QueueNotice) => string | null }) {
  return (
    <>
      {data.queues.map((q) => (
        <Flex key={q.id} gap="8px" align="center" minH="28px">
          <Glyph kind="queue" />
          <span>{q.name}</span>
          <chakra.span color={q.waiting > 0 ? 'brick' : 'quiet'} fontWeight={q.waiting > 0 ? 700 : undefined}>
            {q.waiting === 0 ? 'nobody waits' : `${q.waiting} wait`}
          </chakra.span>
        </Flex>
      ))}
      {data.told.length === 0 ? (
        <Box color="quiet" fontSize="13px" mt="4px">
          Nothing went wrong there within the last days.
        </Box>
      ) : null}
      {/* Also while it shows nothing: the first notice is said too. */}
      <ToldPart told={data.told} of={of} />
    </>
  );
}
