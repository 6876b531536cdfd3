'use client';

import { Box, Flex, Popover, Portal } from '@chakra-ui/react';
import { Columns3 } from 'lucide-react';
import { Act, TickBox } from './controls';
import type { Column } from './ledger-state';
import { OrderedList } from './ordered-list';

/** Which columns a ledger shows, and in which order: the first stays in sight when the rest is moved sideways. */
export function ColumnChooser<T>({
  columns,
  shown,
  onShow,
}: {
  columns: readonly Column<T>[];
  shown: readonly Column<T>[];
  onShow: (next: readonly Column<T>[]) => void;
}) {
  const all = [...shown, ...columns.filter((c) => !shown.includes(c))];
  const move = (key: string, after: string | null) => {
    const column = all.find((c) => c.key === key)!;
    const rest = all.filter((c) => c !== column);
    rest.splice(after === null ? 0 : rest.findIndex((c) => c.key === after) + 1, 0, column);
    onShow(rest.filter((c) => shown.includes(c)));
  };
  return (
    <Popover.Root lazyMount unmountOnExit positioning={{ placement: 'bottom-start' }}>
      <Popover.Trigger asChild>
        <Act>
          <Columns3 size={14} aria-hidden /> Columns
        </Act>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content
            aria-label="Columns"
            w="300px"
            bg="raised"
            border="1px solid"
            borderColor="fieldLine"
            rounded="4px"
            shadow="none"
            maxH="60vh"
            overflowY="auto"
          >
            <Popover.Body p="10px" fontSize="13px">
              <OrderedList
                label="Columns"
                gap="2px"
                items={all.map((c) => ({ id: c.key, name: c.title, column: c }))}
                onMove={move}
              >
                {({ column }, _, { handle, arrows }) => (
                  <Flex align="center" gap="6px" h="30px">
                    {handle}
                    <Flex as="label" gap="6px" align="center" flex="1" minW={0}>
                      <TickBox
                        type="checkbox"
                        checked={shown.includes(column)}
                        onChange={() =>
                          onShow(all.filter((c) => (c === column ? !shown.includes(c) : shown.includes(c))))
                        }
                      />
                      <Box overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
                        {column.title}
                      </Box>
                    </Flex>
                    {arrows}
                  </Flex>
                )}
              </OrderedList>
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
