import { Box, Flex } from '@chakra-ui/react';

const MOST_DRAWN = 60;

/** A trunk's channels as a row of cells: free for calls out, and kept for calls in. */
export function ChannelCells({
  channels,
  kept,
  emergency = 0,
  small,
}: {
  channels: number;
  kept: number;
  emergency?: number;
  small?: boolean;
}) {
  const size = small ? (channels > 20 ? '5px' : '8px') : '16px';
  const drawn = Math.min(channels, MOST_DRAWN);
  return (
    <Flex align="center" gap="8px">
      <Flex
        gap={small && channels > 20 ? '1px' : '2px'}
        wrap="wrap"
        role="img"
        aria-label={`${channels} channels, ${kept} kept for incoming, ${emergency} for emergency calls`}
      >
        {Array.from({ length: drawn }, (_, i) => {
          const isEmergency = i >= channels - emergency;
          const isKept = i >= channels - emergency - kept;
          const colour = isEmergency ? 'brick' : 'lake';
          return (
            <Box
              key={i}
              w={size}
              h={size}
              rounded={small ? '1px' : '2px'}
              border="1px solid"
              borderColor={isKept ? colour : 'fieldLine'}
              bg={isKept ? colour : 'transparent'}
              opacity={isKept ? 0.75 : 1}
            />
          );
        })}
      </Flex>
      <Box fontSize="12px" color="quiet" whiteSpace="nowrap">
        {channels}
        {kept + emergency > 0 ? `, ${kept + emergency} kept` : ''}
      </Box>
    </Flex>
  );
}
