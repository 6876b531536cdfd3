'use client';

import { Box, Flex } from '@chakra-ui/react';
import type { Answer } from '@/contract';
import type { Leave } from '@/contract/going-live';
import { Act, Wrong } from '@/ui/controls';
import { PaneSection } from '@/ui/workspace';

/** What its reader leaves for later, and how to leave more or take it along. */
export interface Later {
  leave: readonly Leave[];
  onLeave: (leave: Leave[]) => void;
}

const same = (a: Leave, b: Leave) => JSON.stringify(a) === JSON.stringify(b);

/** Leaves an act, somebody's edits or one object for later, or takes them along again. */
export function LaterAct({ later: { leave, onLeave }, one, name }: { later: Later; one: Leave; name: string }) {
  const left = leave.some((l) => same(l, one));
  return (
    <Act
      h="24px"
      aria-pressed={left}
      aria-label={left ? `Take along: ${name}` : `Leave for later: ${name}`}
      onClick={() => onLeave(left ? leave.filter((l) => !same(l, one)) : [...leave, one])}
    >
      {left ? 'Take along' : 'Leave for later'}
    </Act>
  );
}

const LISTED = 12;

/** What stays in the draft, and what stays along with it and why. */
export function LeftPart({ leaving, onNone }: { leaving: Answer<'leaving'>; onNone: () => void }) {
  const { left, errors } = leaving;
  return (
    <PaneSection title="Left for later">
      <Box data-testid="left-for-later">
        {left.slice(0, LISTED).map((l) => (
          <Box key={`${l.kind} ${l.id}`} py="2px" overflowWrap="anywhere">
            {l.label}
            {l.because ? <Box color="quiet">waits along: it can’t go without {l.because}</Box> : null}
          </Box>
        ))}
        {left.length > LISTED ? <Box color="quiet">and {left.length - LISTED} more</Box> : null}
        {errors.length > 0 ? (
          <Box mt="8px">
            <Wrong>The rest can’t go live so: {errors[0]} Leave more for later, or less.</Wrong>
          </Box>
        ) : null}
        <Flex mt="8px">
          <Act h="24px" onClick={onNone}>
            Take everything along
          </Act>
        </Flex>
      </Box>
    </PaneSection>
  );
}
