'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import type { Answer } from '@/contract';
import { PartTitle } from '@/ui/controls';
import { Hint } from '@/ui/hint';
import { useWriting } from '@/ui/time';
import { shortCount } from '@/workbench/count';

type Hours = Answer<'atlasHours'>;

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const ANOTHER = 'repeating-linear-gradient(135deg, transparent 0 5px, var(--chakra-colors-raised) 5px 7px)';

/** When through the week a phone dials the same as at the moment that is shown, and when otherwise: each stretch opens its atlas. */
export function HoursBar({ hours, pathAt }: { hours: Hours; pathAt: (at: string) => string }) {
  const write = useWriting();
  const { stretches, cuts, zone, from, to } = hours;
  const how = { zone, weekday: true };
  const others = cuts.filter((c) => c.differ !== '0').length;
  return (
    <Box mb="18px" data-testid="atlas-hours">
      <PartTitle>Through the week</PartTitle>
      <Box mb="6px">
        {others === 0
          ? 'All week long the same can be dialled as at this moment.'
          : 'Where the bar is striped, something else can be dialled than at this moment.'}
      </Box>
      <Flex
        h="22px"
        border="1px solid"
        borderColor="fieldLine"
        rounded="4px"
        overflow="hidden"
        role="group"
        aria-label="What can be dialled through the week"
      >
        {stretches.map((s) => {
          const { differ } = cuts[s.cut]!;
          const says = differ === '0' ? 'as at this moment' : `${shortCount(differ)} strings go otherwise`;
          const said = `${write(s.from, how)} to ${write(s.to, how)}: ${says}`;
          return (
            <Hint key={s.from} text={said}>
              <chakra.a
                href={pathAt(new Date(s.from).toISOString())}
                aria-label={said}
                display="block"
                h="100%"
                bg={differ === '0' ? 'pine' : 'ochre'}
                backgroundImage={differ === '0' ? undefined : ANOTHER}
                borderRight="1px solid"
                borderColor="raised"
                style={{ width: `${((s.to - s.from) / (to - from)) * 100}%` }}
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
    </Box>
  );
}
