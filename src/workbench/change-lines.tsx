'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef } from 'react';
import { useKinds } from '@/ui/kinds';
import type { BulkLine } from '@/core/acts/bulk';

const ROW = 26;

/** Changes before they are made, one line an object: what was, what will be. Long lists are drawn where they are seen. */
export function ChangeLines({ lines, count }: { lines: readonly BulkLine[]; count: number }) {
  const { wordOf } = useKinds();
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 10,
  });
  if (count === 0) return <Box color="quiet">Nothing would be otherwise.</Box>;
  return (
    <Box data-testid="change-lines">
      <Box fontSize="13px" mb="6px">
        <b>{count}</b> {count === 1 ? 'object changes' : 'objects change'}
        {lines.length < count ? `; the first ${lines.length} are listed` : ''}:
      </Box>
      <Box
        ref={scroller}
        maxH="260px"
        overflow="auto"
        border="1px solid"
        borderColor="line"
        rounded="4px"
        bg="raised"
        tabIndex={0}
      >
        <Box position="relative" h={`${virtual.getTotalSize()}px`} minW="fit-content">
          {virtual.getVirtualItems().map((item) => {
            const line = lines[item.index]!;
            return (
              <Flex
                key={item.key}
                position="absolute"
                top={0}
                left={0}
                h={`${ROW}px`}
                w="100%"
                transform={`translateY(${item.start}px)`}
                align="center"
                gap="10px"
                px="10px"
                fontSize="13px"
                whiteSpace="nowrap"
                borderBottom="1px solid"
                borderColor="line"
              >
                <chakra.span color="quiet" w="76px" flexShrink={0}>
                  {wordOf(line.kind)}
                </chakra.span>
                <chakra.span w="190px" flexShrink={0} overflow="hidden" textOverflow="ellipsis">
                  {line.label}
                </chakra.span>
                {line.changes.length === 0 ? <span>{line.fate === 'made' ? 'is made' : 'goes'}</span> : null}
                {line.changes.map((c) => (
                  <span key={c.title}>
                    {c.title}: <chakra.span color="quiet">{c.before}</chakra.span> → <b>{c.after}</b>
                  </span>
                ))}
              </Flex>
            );
          })}
        </Box>
      </Box>
    </Box>
  );
}
