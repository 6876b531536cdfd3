'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { Callback } from '@/contract/board';
import { Act, PartTitle, Wrong } from '@/ui/controls';
import { Time } from '@/ui/time';
import { call } from '../api';

/** Who asked on the public page to be called back, the first one first. */
export function CallbacksPart({
  callbacks,
  operation = 'callbackDone',
  onDone,
}: {
  callbacks: readonly Callback[];
  /** by which operation it is said that somebody was called */
  operation?: 'callbackDone' | 'ownCallbackDone';
  onDone: () => void;
}) {
  const [wrong, setWrong] = useState<string | null>(null);
  if (callbacks.length === 0) return null;
  const done = async (id: string) => {
    const got = await call(operation, { params: { id } });
    setWrong(got.ok ? null : got.errors[0]!.sentence);
    onDone();
  };
  return (
    <Box mt="20px" data-testid="callbacks">
      <PartTitle>Want to be called back</PartTitle>
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      {callbacks.map((c) => (
        <Flex key={c.id} gap="14px" align="center" minH="38px" borderTop="1px solid" borderColor="line" wrap="wrap">
          <chakra.span fontFamily="mono">{c.shown}</chakra.span>
          <span>{c.name}</span>
          <chakra.span color="quiet" fontSize="13px">
            asked <Time iso={c.at} />
          </chakra.span>
          <Act ml="auto" aria-label={`Was called ${c.shown}`} onClick={() => void done(c.id)}>
            Was called
          </Act>
        </Flex>
      ))}
    </Box>
  );
}
