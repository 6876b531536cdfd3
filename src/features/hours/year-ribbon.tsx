'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { dateOf, dayOf, weekdayOf } from '@/core/hours/date';
import type { Week } from '@/core/hours/week';
import { Act } from '@/ui/controls';
import { useWriting } from '@/ui/time';

export interface CalendarDate {
  date: string;
  name: string;
  yearly: boolean;
}

export interface DatedTimes {
  date: string;
  open: string;
  name: string;
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

type Owner = { what: 'open' | 'closed' | 'holiday' | 'exception'; name: string };
const COLOURS: Record<Owner['what'], string> = {
  open: 'plumTint',
  closed: 'line',
  holiday: 'ochre',
  exception: 'brick',
};

/** What owns a day: a date with times of its own, a holiday, or the week (ENGINE E10). */
function ownerOf(day: number, week: Week, holidays: readonly CalendarDate[], exceptions: readonly DatedTimes[]): Owner {
  const date = dateOf(day);
  const exception = exceptions.find((e) => e.date === date);
  if (exception)
    return { what: 'exception', name: `${exception.name || 'other times'}: ${exception.open || 'closed all day'}` };
  const holiday = holidays.find((h) => (h.yearly ? h.date.slice(5) === date.slice(5) : h.date === date));
  if (holiday) return { what: 'holiday', name: `${holiday.name}, closed` };
  return week[weekdayOf(day)]!.length > 0 ? { what: 'open', name: '' } : { what: 'closed', name: '' };
}

/** A year, a row a month: days of the week as they are, holidays and dates with times of their own over them. */
export function YearRibbon({
  week,
  holidays,
  exceptions,
  today,
}: {
  week: Week;
  holidays: readonly CalendarDate[];
  exceptions: readonly DatedTimes[];
  /** ISO 8601 date */
  today: string;
}) {
  const write = useWriting();
  const [year, setYear] = useState(Number(today.slice(0, 4)));
  const days = MONTHS.map((_, m) => {
    const first = dayOf(`${year}-${String(m + 1).padStart(2, '0')}-01`)!;
    const next = m === 11 ? dayOf(`${year + 1}-01-01`)! : dayOf(`${year}-${String(m + 2).padStart(2, '0')}-01`)!;
    return Array.from({ length: next - first }, (_unused, i) => first + i);
  });
  const owned = days.flat().map((day) => ({ day, ...ownerOf(day, week, holidays, exceptions) }));
  const byDay = new Map(owned.map((o) => [o.day, o]));
  const named = owned.filter((o) => o.what === 'holiday' || o.what === 'exception');
  return (
    <Box maxW="760px" data-testid="year-ribbon">
      <Flex gap="8px" align="center" mb="8px" wrap="wrap">
        <Act h="26px" aria-label={`The year ${year - 1}`} onClick={() => setYear(year - 1)}>
          ‹
        </Act>
        <b>{year}</b>
        <Act h="26px" aria-label={`The year ${year + 1}`} onClick={() => setYear(year + 1)}>
          ›
        </Act>
        <Flex ml="auto" gap="14px" fontSize="12px" color="quiet" wrap="wrap">
          <Key what="holiday">holiday</Key>
          <Key what="exception">times of its own</Key>
          <Key what="closed">closed by the week</Key>
        </Flex>
      </Flex>
      <Box role="img" aria-label={`${year}: ${named.length} days that differ from the week`}>
        {days.map((month, m) => (
          <Flex key={m} h="14px" align="center" gap="2px">
            <Box w="34px" fontSize="11px" color="quiet">
              {MONTHS[m]}
            </Box>
            {Array.from({ length: 31 }, (_, i) => {
              const owner = month[i] === undefined ? null : byDay.get(month[i])!;
              return (
                <Box
                  key={i}
                  flex="1"
                  h="10px"
                  rounded="2px"
                  bg={owner ? COLOURS[owner.what] : 'transparent'}
                  outline={owner && dateOf(owner.day) === today ? '2px solid' : undefined}
                  outlineColor="plum"
                  title={
                    owner
                      ? `${write(dateOf(owner.day), { dayOnly: true, zone: 'UTC' })}${owner.name ? `: ${owner.name}` : ''}`
                      : undefined
                  }
                />
              );
            })}
          </Flex>
        ))}
      </Box>
      <Flex mt="8px" columnGap="18px" rowGap="2px" wrap="wrap" fontSize="13px">
        {named.length === 0 ? <chakra.span color="quiet">No day of {year} differs from the week.</chakra.span> : null}
        {named.slice(0, 24).map((o) => (
          <span key={o.day}>
            <b>{write(dateOf(o.day), { dayOnly: true, zone: 'UTC' })}</b> {o.name}
          </span>
        ))}
        {named.length > 24 ? <chakra.span color="quiet">and {named.length - 24} more</chakra.span> : null}
      </Flex>
    </Box>
  );
}

function Key({ what, children }: { what: Owner['what']; children: string }) {
  return (
    <Flex as="span" gap="5px" align="center">
      <Box as="span" w="12px" h="10px" rounded="2px" bg={COLOURS[what]} />
      {children}
    </Flex>
  );
}
