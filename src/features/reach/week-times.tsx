'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { DAY_MINUTES, clockOf, momentOf, wallAt } from '@/core/hours';
import { SelectBox } from '@/ui/controls';
import { useWriting } from '@/ui/time';

/** Milliseconds since 1970 UTC, half-open. */
interface Span {
  from: number;
  to: number;
}

/** An hour of the week, or any: a weekday (0 is Monday) and an hour of its day. */
export interface HourOfWeek {
  day: number | null;
  hour: number | null;
}

const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
const HOUR_MS = 3_600_000;
const WEEK_MS = 7 * 24 * HOUR_MS;
const two = (n: number) => String(n).padStart(2, '0');

/** Whether some of the chosen hours, on the clock of a zone, are within spans of the week that begins at a moment. */
export function isAt(spans: readonly Span[], { day, hour }: HourOfWeek, zone: string, weekFrom: number): boolean {
  if (day === null && hour === null) return true;
  const clock = clockOf(zone);
  const today = Math.floor(wallAt(clock, weekFrom) / DAY_MINUTES);
  for (let d = today; d <= today + 7; d++) {
    // The first of January 1970 was a Thursday.
    if (day !== null && (((d + 3) % 7) + 7) % 7 !== day) continue;
    const begin = momentOf(clock, d * DAY_MINUTES + (hour ?? 0) * 60);
    const end = hour === null ? momentOf(clock, (d + 1) * DAY_MINUTES) : begin + HOUR_MS;
    if (spans.some((s) => s.from < end && begin < s.to)) return true;
  }
  return false;
}

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
