'use client';

import { Portal, Tooltip } from '@chakra-ui/react';
import type { ReactElement } from 'react';

/** More about something that has the pointer or the focus; nothing that is needed stands only here. */
export function Hint({ text, children }: { text: string; children: ReactElement }) {
  return (
    <Tooltip.Root openDelay={250} closeDelay={50} lazyMount unmountOnExit positioning={{ placement: 'top' }}>
      <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
      <Portal>
        <Tooltip.Positioner>
          <Tooltip.Content bg="ink" color="paper" fontSize="13px" fontWeight={400} px="8px" py="4px" rounded="4px">
            {text}
          </Tooltip.Content>
        </Tooltip.Positioner>
      </Portal>
    </Tooltip.Root>
  );
}
