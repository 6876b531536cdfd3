'use client';

import { Box, Flex } from '@chakra-ui/react';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { Act } from './controls';
import { OrderedList } from './ordered-list';

/** What stands in a list of things that were picked. */
interface Picked {
  id: string;
  name: string;
}

/** An ordered list of picked things: dragged or moved by keys, taken out, and more added beneath. */
export function PickList({
  items,
  label,
  disabled,
  ordered = true,
  onChange,
  onFocus,
  children,
}: {
  items: readonly Picked[];
  label: string;
  disabled: boolean;
  /** the order says something */
  ordered?: boolean;
  onChange: (ids: string[]) => void;
  onFocus?: () => void;
  /** what adds another one */
  children?: ReactNode;
}) {
  const ids = items.map((i) => i.id);
  const row = (item: Picked, index: number, handle: ReactNode, arrows: ReactNode) => (
    <Flex align="center" gap="6px" px="6px" minH="30px">
      {handle}
      {ordered ? (
        <Box color="quiet" w="16px" fontSize="12px" flexShrink={0}>
          {index + 1}
        </Box>
      ) : null}
      <Box flex="1" minW={0} overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
        {item.name}
      </Box>
      {arrows}
      {disabled ? null : (
        <Act
          h="24px"
          px="5px"
          aria-label={`Take ${item.name} out`}
          onClick={() => onChange(ids.filter((x) => x !== item.id))}
        >
          <X size={14} />
        </Act>
      )}
    </Flex>
  );
  return (
    <Box border="1px solid" borderColor="line" rounded="4px" bg="raised" p="3px" onFocus={onFocus}>
      {ordered && items.length > 1 ? (
        <OrderedList
          items={items}
          label={label}
          disabled={disabled}
          gap="0"
          onMove={(id, after) => {
            const others = ids.filter((x) => x !== id);
            const at = after === null ? 0 : others.indexOf(after) + 1;
            onChange([...others.slice(0, at), id, ...others.slice(at)]);
          }}
        >
          {(item, i, { handle, arrows }) => row(item, i, handle, disabled ? null : arrows)}
        </OrderedList>
      ) : (
        items.map((item, i) => <Box key={item.id}>{row(item, i, null, null)}</Box>)
      )}
      {disabled ? (
        items.length === 0 ? (
          <Box px="6px" py="4px" color="quiet">
            none
          </Box>
        ) : null
      ) : (
        <Box mt={items.length > 0 ? '3px' : 0}>{children}</Box>
      )}
    </Box>
  );
}
