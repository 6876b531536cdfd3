'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useEffect, useRef } from 'react';
import type { QueueNotice } from '@/contract/board';
import { PartTitle } from '@/ui/controls';
import { Time } from '@/ui/time';
import { say } from '@/ui/toasts';

const lasting = (seconds: number) =>
  seconds < 60 ? `${Math.round(seconds)} s` : `${Math.floor(seconds / 60)} min ${Math.round(seconds % 60)} s`;

/** What a notice says, in a sentence. */
function inWords({ what, who, seconds }: QueueNotice): string {
  const caller = who ?? 'A caller';
  switch (what) {
    case 'gave up':
      return `${caller} gave up after ${lasting(seconds)}.`;
    case 'waits long':
      return `${caller} had waited ${lasting(seconds)} by then.`;
    case 'nobody there':
      return 'Callers waited and nobody was signed in.';
    case 'paused':
      return `${who ?? 'An agent'} let offers go and was paused.`;
  }
}

/** What the managers of queues were told lately, the newest first; one that comes while somebody looks is said besides. */
export function ToldPart({ told, of }: { told: readonly QueueNotice[]; of: (notice: QueueNotice) => string | null }) {
  const newest = useRef<string | null>(null);
  useEffect(() => {
    const before = newest.current;
    newest.current = told[0]?.id ?? '0';
    if (before === null) return;
    for (const n of told.filter((t) => Number(t.id) > Number(before)).slice(0, 3))
      say([of(n), inWords(n)].filter(Boolean).join(': '));
  }, [told, of]);
  if (told.length === 0) return null;
  return (
    <Box mt="20px" data-testid="queue-told">
      <PartTitle>What managers were told</PartTitle>
      {told.slice(0, 12).map((n) => (
        <Flex
          key={n.id}
          gap="4px 14px"
          align="baseline"
          minH="32px"
          py="5px"
          borderTop="1px solid"
          borderColor="line"
          wrap="wrap"
        >
          <chakra.span color="quiet" fontSize="13px" minW="120px">
            <Time iso={n.at} />
          </chakra.span>
          {of(n) === null ? null : <b>{of(n)}</b>}
          <span>{inWords(n)}</span>
        </Flex>
      ))}
    </Box>
  );
}
