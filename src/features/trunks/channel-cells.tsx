import { Box, Flex } from '@chakra-ui/react';

const MOST_DRAWN = 60;

/** A trunk's channels as a row of cells: free for calls out, and kept for calls in. */
export function ChannelCells({ channels, kept, small }: { channels: number; kept: number; small?: boolean }) {
  const size = small ? '8px' : '16px';
  const drawn = Math.min(channels, MOST_DRAWN);
  return (
    <Flex align="center" gap="8px">
      <Flex gap="2px" wrap="wrap" role="img" aria-label={`${channels} channels, ${kept} kept for incoming`}>
        {Array.from({ length: drawn }, (_, i) => {
          const isKept = i >= channels - kept;
          return (
            <Box
              key={i}
              w={size}
              h={size}
              rounded="2px"
              border="1px solid"
              borderColor={isKept ? 'lake' : 'fieldLine'}
              bg={isKept ? 'lake' : 'transparent'}
              opacity={isKept ? 0.75 : 1}
            />
          );
        })}
      </Flex>
      <Box fontSize="12px" color="quiet" whiteSpace="nowrap">
        {channels}
        {kept > 0 ? `, ${kept} kept` : ''}
      </Box>
    </Flex>
  );
}
