'use client';

import { Box, Grid, chakra } from '@chakra-ui/react';
import { Fragment, type ReactNode } from 'react';

/** Something that lasts, on a line of its own; times are seconds since the call came. */
export interface TimeBar {
  id: string;
  name: ReactNode;
  /** read aloud */
  says: string;
  /** half-open; none: it never comes */
  spans: { from: number; until: number }[];
  look: 'rings' | 'heard' | 'offered';
}

const LOOKS = {
  rings: { bg: 'pine', borderColor: 'pine', borderStyle: 'solid' },
  heard: { bg: 'plumTint', borderColor: 'plum', borderStyle: 'solid' },
  offered: { bg: 'raised', borderColor: 'ochre', borderStyle: 'dashed' },
} as const;

/** What lasts how long, one line each on one scale of seconds, with the end at the right. */
export function TimeLine({
  label,
  bars,
  whole,
  open = false,
  end,
}: {
  label: string;
  bars: readonly TimeBar[];
  /** seconds that the scale shows */
  whole: number;
  /** it goes on after that */
  open?: boolean;
  /** what follows, at the end of the scale */
  end: ReactNode;
}) {
  const at = (seconds: number) => `${(100 * Math.min(seconds, whole)) / whole}%`;
  return (
    <Grid
      as="section"
      aria-label={label}
      templateColumns={{ base: 'minmax(90px, 30%) minmax(0, 1fr)', md: '176px minmax(0, 1fr) auto' }}
      columnGap="14px"
      rowGap="4px"
      alignItems="center"
      border="1px solid"
      borderColor="line"
      rounded="4px"
      bg="raised"
      p="12px"
      maxW="760px"
      mb="14px"
      data-testid="time-line"
    >
      {bars.map((bar, i) => (
        <Fragment key={bar.id}>
          <Box minW={0} overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap" fontSize="13px">
            {bar.name}
          </Box>
          <Box
            position="relative"
            h="14px"
            role="img"
            aria-label={bar.says}
            borderBottom="1px dotted"
            borderColor="line"
          >
            {bar.spans
              .filter((s) => s.from < whole)
              .map((s) => (
                <Box
                  key={s.from}
                  position="absolute"
                  top="1px"
                  h="11px"
                  minW="3px"
                  rounded="2px"
                  border="1px solid"
                  {...LOOKS[bar.look]}
                  style={{ left: at(s.from), width: `calc(${at(s.until)} - ${at(s.from)})` }}
                />
              ))}
          </Box>
          {i === 0 ? (
            <Box
              gridColumn={{ base: '1 / -1', md: '3' }}
              gridRow={{ base: bars.length + 2, md: `1 / span ${bars.length + 1}` }}
              maxW={{ md: '190px' }}
              fontSize="13px"
            >
              {end}
            </Box>
          ) : null}
        </Fragment>
      ))}
      <span />
      <Box position="relative" h="16px" fontSize="11px" color="quiet">
        {ticksOf(whole).map((s) => (
          <chakra.span
            key={s}
            position="absolute"
            whiteSpace="nowrap"
            style={{
              left: at(s),
              transform: s === 0 ? undefined : s === whole ? 'translateX(-100%)' : 'translateX(-50%)',
            }}
          >
            {s}
            {s === whole ? (open ? ' s …' : ' s') : ''}
          </chakra.span>
        ))}
      </Box>
    </Grid>
  );
}

/** Figures on the scale: its ends and round ones between, none so near the end that they run together. */
function ticksOf(whole: number): number[] {
  const step = [5, 10, 15, 20, 30, 60, 120, 300, 600, 1800, 3600].find((s) => whole / s <= 6) ?? Math.ceil(whole / 6);
  const between: number[] = [];
  for (let s = step; s < whole - step / 2; s += step) between.push(s);
  return [0, ...between, whole];
}
