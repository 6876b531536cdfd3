'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import type { LimitUse } from '@/contract/access';

export type { LimitUse };

/** Limits of the organisation, used and left: read before the first field is filled in. Nothing where there are none. */
export function LimitLines({ limits }: { limits: readonly LimitUse[] }) {
  if (limits.length === 0) return null;
  return (
    <Box border="1px solid" borderColor="line" rounded="4px" bg="raised" p="10px 12px" mb="16px" data-testid="limits">
      {limits.map((l) => {
        const left = l.most - l.used;
        return (
          <Flex key={l.name} gap="10px" align="center" fontSize="13px" minH="22px">
            <Box w="180px">{l.words}</Box>
            <Box flex="1" h="6px" bg="line" rounded="3px" overflow="hidden" maxW="180px">
              <Box
                h="100%"
                bg={left > 0 ? 'pine' : 'brick'}
                w={`${Math.min(100, (l.used / Math.max(1, l.most)) * 100)}%`}
              />
            </Box>
            <chakra.span color={left > 0 ? 'quiet' : 'brick'}>
              {l.used} of {l.most} used, {left > 0 ? `${left} left` : 'none left'}
            </chakra.span>
          </Flex>
        );
      })}
    </Box>
  );
}
