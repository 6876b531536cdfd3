'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { X } from 'lucide-react';
import { useState } from 'react';
import { Act, TextBox, TickBox } from '@/ui/controls';
import { DayBox } from '@/ui/day-box';
import type { ObjectEdit } from '@/workbench/edits';

export interface HolidayDate {
  date: string;
  name: string;
  yearly: boolean;
  closed: boolean;
}

/** The dates of a calendar in their order: those to come first to hand, those that are over folded away. */
export function HolidayDates({ edit, disabled, today }: { edit: ObjectEdit; disabled: boolean; today: string }) {
  const list = edit.value.dates as HolidayDate[];
  const [past, setPast] = useState(false);
  const put = (i: number, change: Partial<HolidayDate>) =>
    edit.set(
      'dates',
      list.map((d, j) => (j === i ? { ...d, ...change } : d)),
    );
  const leave = () => void edit.commit();
  // What was over when the page came; a date that is being typed is not over because it is short yet.
  const [overThen] = useState(() => new Set(list.flatMap((d) => (!d.yearly && d.date < today ? [d.date] : []))));
  const all = past || edit.errorOf('dates') !== null;
  const shown = list.map((d, i) => ({ d, i })).filter(({ d }) => all || d.date === '' || !overThen.has(d.date));
  const over = list.length - shown.length;
  return (
    <Box maxW="760px">
      {list.length === 0 ? (
        <Box color="quiet" mb="8px">
          It has no dates yet.
        </Box>
      ) : (
        <Grid
          templateColumns="180px 1fr 198px 34px"
          gap="8px"
          fontSize="12px"
          color="quiet"
          mb="4px"
          hideBelow="md"
          aria-hidden
        >
          <span>Date</span>
          <span>Name</span>
          <Flex>
            <Box w="104px">Every year</Box>
            <span>Closed</span>
          </Flex>
        </Grid>
      )}
      {shown.map(({ d, i }) => (
        <Grid
          key={i}
          data-testid="holiday"
          templateColumns={{ base: '1fr 34px', md: '180px 1fr 198px 34px' }}
          gap="8px"
          mb="6px"
          alignItems="center"
        >
          <Box order={1}>
            <DayBox
              aria-label={`Date of ${d.name || `holiday ${i + 1}`}`}
              value={d.date}
              disabled={disabled}
              onChange={(date) => put(i, { date })}
              onBlur={leave}
              onChosen={leave}
            />
          </Box>
          <TextBox
            aria-label={`Name of ${d.date || `holiday ${i + 1}`}`}
            value={d.name}
            disabled={disabled}
            order={{ base: 3, md: 2 }}
            gridColumn={{ base: '1 / -1', md: 'auto' }}
            textDecoration={d.closed ? undefined : 'line-through'}
            onChange={(e) => put(i, { name: e.target.value })}
            onBlur={leave}
          />
          <Flex order={{ base: 4, md: 3 }} gridColumn={{ base: '1 / -1', md: 'auto' }} mb={{ base: '8px', md: 0 }}>
            <Tick
              label={`${d.name}, every year`}
              words="every year"
              checked={d.yearly}
              disabled={disabled}
              onChange={(yearly) => {
                put(i, { yearly });
                leave();
              }}
            />
            <Tick
              label={`${d.name}, closed`}
              words={d.closed ? 'closed' : 'you work'}
              checked={d.closed}
              disabled={disabled}
              onChange={(closed) => {
                put(i, { closed });
                leave();
              }}
            />
          </Flex>
          {disabled ? null : (
            <Act
              order={{ base: 2, md: 4 }}
              h="32px"
              w="34px"
              px="8px"
              aria-label={`Take out ${d.name || d.date || `holiday ${i + 1}`}`}
              onClick={() =>
                edit.choose(
                  'dates',
                  list.filter((_, j) => j !== i),
                )
              }
            >
              <X size={14} aria-hidden />
            </Act>
          )}
        </Grid>
      ))}
      {edit.errorOf('dates') ? (
        <Box role="alert" color="brick" fontSize="13px" mb="8px">
          {edit.errorOf('dates')}
        </Box>
      ) : null}
      <Flex gap="8px">
        {disabled ? null : (
          <Act onClick={() => edit.set('dates', [...list, { date: '', name: '', yearly: false, closed: true }])}>
            Add a date
          </Act>
        )}
        {over > 0 ? <Act onClick={() => setPast(true)}>Show {over} that are over</Act> : null}
      </Flex>
    </Box>
  );
}

function Tick({
  label,
  words,
  checked,
  disabled,
  onChange,
}: {
  label: string;
  words: string;
  checked: boolean;
  disabled: boolean;
  onChange: (checked: boolean) => void;
}) {
  return (
    <Flex as="label" gap="6px" align="center" fontSize="13px" w="104px">
      <TickBox
        type="checkbox"
        aria-label={label}
        checked={checked}
        disabled={disabled}
        onChange={(e) => onChange(e.target.checked)}
      />
      <chakra.span color={checked ? 'ink' : 'quiet'}>{words}</chakra.span>
    </Flex>
  );
}
