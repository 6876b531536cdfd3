'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Digits } from '@/ui/digits';

/** The numbers that belong to an extension. */
export function OwnNumbers({ numbers }: { numbers: { id: string; e164: string }[] }) {
  return (
    <Flex gap="10px" align="center" wrap="wrap">
      {numbers.length === 0 ? (
        <Box color="quiet">None: callers outside reach it only through something else.</Box>
      ) : null}
      {numbers.map((n) => (
        <chakra.a key={n.id} href={`/numbers/${n.id}`}>
          <Digits>{n.e164}</Digits>
        </chakra.a>
      ))}
    </Flex>
  );
}
