'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { DAY_MINUTES } from '@/core/hours/week';
import { clockOf, momentOf, wallAt } from '@/core/hours/zone';
import { SelectBox } from '@/ui/controls';
import { useWriting } from '@/ui/time';
import type { HourOfWeek, Span } from './hour-of-week';

const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
const WEEK_MS = 7 * 86_400_000;
const two = (n: number) => String(n).padStart(2, '0');

/** Chooses an hour of the week, or any. */
export function HourChoice({ chosen, onChoose }: { chosen: HourOfWeek; onChoose: (next: HourOfWeek) => void }) {
  const read = (text: string) => (text === '' ? null : Number(text));
  return (
    <Flex gap="8px" align="center" wrap="wrap">
      <SelectBox
        aria-label="Weekday"
        w="auto"
        value={chosen.day ?? ''}
        onChange={(e) => onChoose({ ...chosen, day: read(e.target.value) })}
      >
        <option value="">on any day</option>
        {DAYS.map((name, i) => (
          <option key={name} value={i}>
            on {name}
          </option>
        ))}
      </SelectBox>
      <SelectBox
        aria-label="Hour of the day"
        w="auto"
        value={chosen.hour ?? ''}
        onChange={(e) => onChoose({ ...chosen, hour: read(e.target.value) })}
      >
        <option value="">at any time</option>
        {Array.from({ length: 24 }, (_, h) => (
          <option key={h} value={h}>
            from {two(h)}:00
          </option>
        ))}
      </SelectBox>
    </Flex>
  );
}

/** When in the coming week something can be: a bar from its first moment, a line at each midnight. */
export function WeekBar({ spans, zone, weekFrom }: { spans: readonly Span[]; zone: string; weekFrom: number }) {
  const write = useWriting();
  const clock = clockOf(zone);
  const today = Math.floor(wallAt(clock, weekFrom) / DAY_MINUTES);
  const place = (at: number) => `${((at - weekFrom) / WEEK_MS) * 100}%`;
  const how = { zone, weekday: true };
  const said = spans.map((s) => `${write(s.from, how)} to ${write(s.to, how)}`).join('; ') || 'not in this week';
  return (
    <Box
      role="img"
      aria-label={said}
      title={said}
      position="relative"
      w="140px"
      h="14px"
      border="1px solid"
      borderColor="fieldLine"
      rounded="2px"
      bg="raised"
      overflow="hidden"
    >
      {spans.map((s) => (
        <chakra.span
          key={s.from}
          position="absolute"
          top="0"
          h="100%"
          bg="pine"
          style={{ left: place(s.from), width: `max(1px, ${((s.to - s.from) / WEEK_MS) * 100}%)` }}
        />
      ))}
      {Array.from({ length: 7 }, (_, i) => momentOf(clock, (today + 1 + i) * DAY_MINUTES)).map((midnight) => (
        <chakra.span
          key={midnight}
          position="absolute"
          top="0"
          h="100%"
          w="1px"
          bg="line"
          style={{ left: place(midnight) }}
        />
      ))}
    </Box>
  );
}
