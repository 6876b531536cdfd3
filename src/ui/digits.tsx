'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';

/** Digits, numbers and maps stand in mono. */
export const Digits = chakra('span', { base: { fontFamily: 'mono', fontSize: '13px', whiteSpace: 'nowrap' } });

/** A digit map with its parts in colour: fixed digits ink, sets iris, counts ochre, structure quiet. */
export function MapText({ map }: { map: string }) {
  const parts = map.match(/\[[^\][]*\]|[xX]|\{[^{}]*\}|\.|[|()]|[Tt]$|[0-9*#+]+|\s+|./g) ?? [];
  return (
    <Digits wordBreak="break-all" whiteSpace="normal">
      {parts.map((part, i) => (
        <chakra.span
          key={i}
          color={
            /^[[xX]/.test(part) ? 'iris' : /^[{.]/.test(part) ? 'ochre' : /^[|()Tt]/.test(part) ? 'quiet' : 'inherit'
          }
          fontWeight={/^[|]/.test(part) ? 700 : undefined}
        >
          {part === '|' ? ' | ' : part}
        </chakra.span>
      ))}
    </Digits>
  );
}

export function MapChip({ map }: { map: string }) {
  return (
    <Box
      as="span"
      display="inline-block"
      border="1px solid"
      borderColor="line"
      bg="raised"
      rounded="3px"
      px="6px"
      lineHeight="22px"
      maxW="100%"
    >
      <MapText map={map} />
    </Box>
  );
}

const RAIL_LOOK: Record<string, { bg: string; color: string; borderColor: string; word: string }> = {
  open: { bg: 'raised', color: 'ink', borderColor: 'line', word: 'more digits are needed' },
  final: { bg: 'plumTint', color: 'plum', borderColor: 'plum', word: 'taken here' },
  'final-may-grow': {
    bg: 'saffronTint',
    color: 'ink',
    borderColor: 'saffron',
    word: 'matches, but could grow: the exchange waits',
  },
  dead: { bg: 'brickTint', color: 'brick', borderColor: 'brick', word: 'leads nowhere' },
};

/** What the exchange knows after each dialled symbol. */
export function DigitRail({ cells, note }: { cells: { symbol: string; state: string }[]; note: string }) {
  return (
    <Flex align="center" gap="12px" wrap="wrap" data-testid="digit-rail">
      <Flex overflowX="auto" maxW="100%">
        {cells.map((cell, i) => {
          const look = RAIL_LOOK[cell.state]!;
          return (
            <Box
              key={i}
              title={look.word}
              w="32px"
              h="32px"
              flexShrink={0}
              textAlign="center"
              lineHeight="30px"
              fontFamily="mono"
              fontSize="16px"
              border="1px solid"
              ml={i === 0 ? 0 : '-1px'}
              bg={look.bg}
              color={look.color}
              borderColor={look.borderColor}
              fontWeight={cell.state === 'open' ? 400 : 700}
              position="relative"
              zIndex={cell.state === 'open' ? 0 : 1}
            >
              {cell.symbol}
            </Box>
          );
        })}
      </Flex>
      <Box color="quiet" fontSize="13px">
        {note}
      </Box>
    </Flex>
  );
}
