'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import type { Picture, WeekStretch } from '@/core/analysis';
import { PartTitle } from '@/ui/controls';
import { LOOK_FACTS, endOf } from '@/ui/ends';
import { Glyph } from '@/ui/glyph';
import { Hint } from '@/ui/hint';
import { useKinds } from '@/ui/kinds';
import { tracePath } from './paths';
import { useWriting } from '@/ui/time';

type Week = NonNullable<Picture['week']>;
const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

const nameOf = (s: WeekStretch) => s.lands?.label ?? s.outcome;

/** Where callers end through this week: a bar from Monday to Sunday, each stretch opening its trace; beneath it what is meant. */
export function WeekStrip({ week }: { week: Week }) {
  const { lookOf } = useKinds();
  const write = useWriting();
  const how = { zone: week.zone, weekday: true };
  const width = (s: WeekStretch) => `${((s.to - s.from) / (week.to - week.from)) * 100}%`;
  const ends = [...new Map(week.stretches.map((s) => [`${endOf(s)} ${nameOf(s)}`, s])).values()];
  const hours = (end: WeekStretch) =>
    week.stretches
      .filter((s) => endOf(s) === endOf(end) && nameOf(s) === nameOf(end))
      .reduce((sum, s) => sum + (s.to - s.from) / 3_600_000, 0);
  return (
    <Box data-testid="week-strip">
      <PartTitle>This week, callers from outside ({week.zone.split('/').at(-1)!.replaceAll('_', ' ')} time)</PartTitle>
      <Flex h="28px" border="1px solid" borderColor="fieldLine" rounded="4px" overflow="hidden" bg="raised">
        {week.stretches.map((s) => {
          const { colour, dash } = LOOK_FACTS[lookOf(endOf(s))];
          const when = `${write(s.from, how)} to ${write(s.to, how)}`;
          return (
            <Hint key={s.from} text={`${when}: ${nameOf(s)}`}>
              <chakra.a
                href={tracePath('outside', week.e164, new Date(s.from).toISOString())}
                aria-label={`${when}: ${nameOf(s)}`}
                display="block"
                h="100%"
                style={{ width: width(s) }}
                bg={colour}
                opacity={dash === '' ? 1 : 0.75}
                borderRight="1px solid"
                borderColor="raised"
                backgroundImage={
                  dash === ''
                    ? undefined
                    : 'repeating-linear-gradient(135deg, transparent 0 4px, var(--chakra-colors-raised) 4px 6px)'
                }
                _focusVisible={{ outline: '2px solid', outlineColor: 'plum', outlineOffset: '-2px' }}
              />
            </Hint>
          );
        })}
      </Flex>
      <Flex mt="2px" fontSize="12px" color="quiet" aria-hidden>
        {DAYS.map((d) => (
          <Box key={d} flex="1">
            {d}
          </Box>
        ))}
      </Flex>
      <Flex gap="16px" wrap="wrap" mt="6px" fontSize="13px">
        {ends.map((s) => (
          <Flex key={`${endOf(s)} ${nameOf(s)}`} gap="6px" align="center">
            <Glyph kind={endOf(s)} />
            {nameOf(s)}
            <chakra.span color="quiet">{Math.round(hours(s))} h</chakra.span>
          </Flex>
        ))}
      </Flex>
    </Box>
  );
}
