'use client';

import { Flex } from '@chakra-ui/react';
import { Search } from 'lucide-react';
import { Act, ActLink, Empty } from '@/ui/controls';
import { Workspace } from '@/ui/workspace';
import { askLine } from './ask-line';

/** Instead of a page that does not exist: says so, and offers to look for what was meant. */
export function NotThere() {
  return (
    <Workspace title="Nothing stands under this address">
      <Empty
        act={
          <Flex gap="8px">
            <Act look="main" onClick={() => askLine()?.focus()}>
              <Search size={14} aria-hidden /> Look for it
            </Act>
            <ActLink href="/">To Today</ActLink>
          </Flex>
        }
      >
        The draft has no such thing. It may have been deleted, and a revision may still have it; or the address was
        mistyped. The Ask line finds everything by its name, its digits or its number.
      </Empty>
    </Workspace>
  );
}
