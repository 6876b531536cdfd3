'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { weekDifferences } from '@/core/hours/compare';
import { parseWeek } from '@/core/hours/week';
import { clockTime } from '@/core/hours/words';
import { SelectBox } from '@/ui/controls';
import type { ObjectEdit } from '@/workbench/edits';
import { zoneWords } from '@/workbench/zone-words';

export interface OtherHours {
  id: string;
  label: string;
  weekly: string;
  zone: string;
}

const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];

/** These hours beside others, day by day: what is open in one and closed in the other. */
export function ComparePart({ edit, others }: { edit: ObjectEdit; others: OtherHours[] }) {
  const [chosen, setChosen] = useState('');
  const other = others.find((o) => o.id === chosen);
  const [mine, theirs] = [parseWeek(String(edit.value.weekly ?? '')), parseWeek(other?.weekly ?? '')];
  const found = other && mine.ok && theirs.ok ? weekDifferences(mine.week, theirs.week) : [];
  if (others.length === 0) return <Box color="quiet">There are no other hours to compare with.</Box>;
  return (
    <Box maxW="760px">
      <Box w="260px" mb="8px">
        <SelectBox aria-label="Compare with" value={chosen} onChange={(e) => setChosen(e.target.value)}>
          <option value="">compare with …</option>
          {others.map((o) => (
            <option key={o.id} value={o.id}>
              {o.label}
            </option>
          ))}
        </SelectBox>
      </Box>
      {other && found.length === 0 && mine.ok && theirs.ok ? <Box color="quiet">The weeks are the same.</Box> : null}
      {other && other.zone !== edit.value.zone ? (
        <Box color="quiet" fontSize="13px" mb="6px">
          By the clock of each: {other.label} goes by {zoneWords(other.zone)}.
        </Box>
      ) : null}
      {found.map((d) => (
        <Grid
          key={`${d.day} ${d.from}`}
          data-testid="week-difference"
          templateColumns="110px 120px 1fr"
          gap="10px"
          minH="26px"
          fontSize="13px"
        >
          <span>{DAYS[d.day]}</span>
          <chakra.span fontFamily="mono">
            {clockTime(d.from)}–{clockTime(d.to)}
          </chakra.span>
          <Flex gap="6px">open only {d.open === 'first' ? 'here' : <>in {other!.label}</>}</Flex>
        </Grid>
      ))}
    </Box>
  );
}
