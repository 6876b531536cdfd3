'use client';

import { Box, Flex, Grid } from '@chakra-ui/react';
import { X } from 'lucide-react';
import { parseSpans } from '@/core/hours/week';
import { Act, TextBox } from '@/ui/controls';
import { DayBox } from '@/ui/day-box';
import { useFocusNote } from '@/ui/workspace';
import type { ObjectEdit } from '@/workbench/edits';
import type { DatedTimes } from './year-ribbon';

/** Dates with times of their own, one a line: stronger than holidays and the week. */
export function DatesPart({ edit, disabled }: { edit: ObjectEdit; disabled: boolean }) {
  const list = edit.value.exceptions as DatedTimes[];
  const note = useFocusNote(
    'Times of that day',
    'Such as 8-13 or 8-12, 13-17; an end before its start runs past midnight. Empty: closed all day.',
  );
  const put = (i: number, change: Partial<DatedTimes>) =>
    edit.set(
      'exceptions',
      list.map((e, j) => (i === j ? { ...e, ...change } : e)),
    );
  const leave = () => void edit.commit();
  return (
    <Box maxW="760px">
      {list.length === 0 ? (
        <Box color="quiet" mb="8px">
          No date has times of its own.
        </Box>
      ) : null}
      {list.map((e, i) => {
        const read = parseSpans(e.open);
        return (
          <Grid
            key={i}
            templateColumns={{ base: '1fr', md: '180px 1fr 1fr 34px' }}
            gap="8px"
            mb="8px"
            alignItems="start"
            data-testid="dated-times"
          >
            <DayBox
              aria-label={`Date ${i + 1}`}
              value={e.date}
              disabled={disabled}
              onChange={(date) => put(i, { date })}
              onBlur={leave}
              onChosen={leave}
            />
            <Box>
              <TextBox
                aria-label={`Times of date ${i + 1}`}
                fontFamily="mono"
                placeholder="closed all day"
                disabled={disabled}
                value={e.open}
                aria-invalid={read.ok ? undefined : true}
                {...note}
                onChange={(c) => put(i, { open: c.target.value })}
                onBlur={leave}
              />
              {read.ok ? null : (
                <Box role="alert" color="brick" fontSize="13px" mt="3px">
                  {read.error.sentence}
                </Box>
              )}
            </Box>
            <TextBox
              aria-label={`Name of date ${i + 1}`}
              placeholder="what it is for"
              disabled={disabled}
              value={e.name}
              onChange={(c) => put(i, { name: c.target.value })}
              onBlur={leave}
            />
            {disabled ? null : (
              <Act
                h="32px"
                w="34px"
                px="8px"
                aria-label={`Take out ${e.name || e.date || `date ${i + 1}`}`}
                onClick={() =>
                  edit.choose(
                    'exceptions',
                    list.filter((_, j) => j !== i),
                  )
                }
              >
                <X size={14} aria-hidden />
              </Act>
            )}
          </Grid>
        );
      })}
      {edit.errorOf('exceptions') ? (
        <Box role="alert" color="brick" fontSize="13px" mb="8px">
          {edit.errorOf('exceptions')}
        </Box>
      ) : null}
      {disabled ? null : (
        <Flex>
          <Act onClick={() => edit.set('exceptions', [...list, { date: '', open: '', name: '' }])}>Add a date</Act>
        </Flex>
      )}
    </Box>
  );
}
