'use client';

import { Box } from '@chakra-ui/react';
import type { NextClockChange } from '@/core/hours';
import { useWriting } from '@/ui/time';

/** What the next clock change does to some hours, in a sentence. */
export function ClockLine({ change: c }: { change: NextClockChange }) {
  const write = useWriting();
  const day = write(`${c.wall.from}Z`, { zone: 'UTC', dayOnly: true });
  const [from, to] = [c.wall.from.slice(11), c.wall.to.slice(11)];
  const what =
    c.kind === 'skipped'
      ? `the clock goes from ${from} to ${to}: that time never happens`
      : `the time from ${from} to ${to} happens twice`;
  const effect =
    c.falls === 'closed'
      ? 'it is closed then, and nothing changes'
      : c.kind === 'skipped'
        ? `it is open ${c.minutes} minutes less than on other days`
        : c.falls === 'open'
          ? `it is open both times, ${c.minutes} minutes more than on other days`
          : 'what is open of it is open both times';
  return (
    <Box color="quiet" fontSize="13px" mt="2px" data-testid="clock-change">
      On {day} {what}; {effect}.
    </Box>
  );
}
