'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import type { Week, WeekStretch } from '@/core/analysis';
import type { ObjectKind } from '@/core/plan';
import { Act, PartTitle, Wrong } from '@/ui/controls';
import { DayBox } from '@/ui/day-box';
import { LOOK_FACTS, endOf } from '@/ui/ends';
import { Glyph } from '@/ui/glyph';
import { Hint } from '@/ui/hint';
import { useKinds } from '@/ui/kinds';
import { useKey } from '@/ui/use-key';
import { useWriting } from '@/ui/time';
import { pathOfCall } from './paths';
import { useAsked } from './use-asked';
import { zoneWords } from './zone-words';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const DAY = 86_400_000;

const nameOf = (s: WeekStretch) => s.lands?.label ?? s.outcome;
const isoOf = (at: number) => new Date(at).toISOString();

/** The day some days from the Monday of a week, ISO 8601: a week is chosen by a day in it. */
const dayFrom = (week: Week, days: number) => isoOf(week.from + DAY / 2 + days * DAY).slice(0, 10);

/** What time rules of a route are called beside the strip, by id. */
export type RuleNames = (rule: string | null) => { short: string; long: string };

/**
 * Where callers end through a week: a bar from Monday to Sunday, each stretch opening its trace; beneath it what is meant. Another
 * week is chosen beside the title. `state` is what else its answer depends on, such as notices that were set on the page.
 */
export function WeekStrip({
  kind,
  id,
  title = 'callers from outside',
  ruleNames,
  state = null,
  of = 'draft',
}: {
  kind: ObjectKind;
  id: string;
  title?: string;
  ruleNames?: RuleNames;
  state?: string | null;
  /** draft, live or the number of a revision */
  of?: string;
}) {
  const [day, setDay] = useState('');
  const asked = useAsked(
    'week',
    { params: { kind, id }, query: { at: day, of } },
    { keep: true, fresh: true, also: state },
  );
  const week = asked.value?.week ?? null;
  useKey('w', () => {
    if (week) setDay(dayFrom(week, 7));
  });
  if (asked.wrong) return <Wrong>{asked.wrong}</Wrong>;
  // As high as it will be: what stands beneath it stays under the pointer.
  if (!asked.value) return <Box minH={ruleNames ? '164px' : '114px'} />;
  if (!week) return null;
  return (
    <Box data-testid="week-strip" aria-busy={asked.waiting}>
      <Flex gap="6px" align="center" wrap="wrap" mb="6px">
        <PartTitle>
          {day === '' ? 'This week' : 'The week'}, {title}
          {of === 'draft' ? '' : of === 'live' ? ', as it is live' : `, as revision ${of} has it`} ·{' '}
          {zoneWords(week.zone)}
        </PartTitle>
        <Flex gap="4px" ml="auto" align="center">
          <Act aria-label="The week before" px="6px" onClick={() => setDay(dayFrom(week, -7))}>
            <ChevronLeft size={16} aria-hidden />
          </Act>
          <Box w="150px">
            <DayBox aria-label="A day of the week to show" value={dayFrom(week, 0)} onChange={(d) => d && setDay(d)} />
          </Box>
          <Act aria-label="The week after" px="6px" onClick={() => setDay(dayFrom(week, 7))}>
            <ChevronRight size={16} aria-hidden />
          </Act>
          {day === '' ? null : <Act onClick={() => setDay('')}>This week</Act>}
        </Flex>
      </Flex>
      {ruleNames && week.rules?.some((r) => r.rule !== null || r.notice !== null) ? (
        <Rules week={week} names={ruleNames} />
      ) : null}
      <Bar week={week} stretches={week.stretches} height="28px" of={of} />
      {asked.value.live ? (
        <>
          <Box mt="4px" fontSize="11px" lineHeight="14px" color="quiet" aria-hidden>
            as it is live
          </Box>
          <Bar week={week} stretches={asked.value.live} height="10px" of="live" beneath />
        </>
      ) : null}
      <Flex mt="2px" fontSize="12px" color="quiet" aria-hidden>
        {DAYS.map((d, i) => (
          <Box key={d} flex="1">
            {d} {Number(dayFrom(week, i).slice(8))}
          </Box>
        ))}
      </Flex>
      <Legend week={week} live={asked.value.live} />
    </Box>
  );
}

function Bar({
  week,
  stretches,
  height,
  of,
  beneath = false,
}: {
  week: Week;
  stretches: readonly WeekStretch[];
  height: string;
  /** the plan whose stretches these are */
  of: string;
  /** stands beneath the bar of the draft */
  beneath?: boolean;
}) {
  const { lookOf } = useKinds();
  const write = useWriting();
  const how = { zone: week.zone, weekday: true };
  return (
    <Flex
      h={height}
      w="100%"
      border="1px solid"
      borderColor="fieldLine"
      rounded="4px"
      overflow="hidden"
      bg="raised"
      role="group"
      aria-label={of === 'draft' ? 'as drafted' : of === 'live' ? 'as it is live' : `as revision ${of} has it`}
    >
      {stretches.map((s) => {
        const { colour, dash } = LOOK_FACTS[lookOf(endOf(s))];
        const when = `${beneath ? 'Live, ' : ''}${write(s.from, how)} to ${write(s.to, how)}`;
        const said = `${when}: ${nameOf(s)}`;
        const look = {
          'aria-label': said,
          display: 'block',
          h: '100%',
          style: { width: `${((s.to - s.from) / (week.to - week.from)) * 100}%` },
          bg: colour,
          opacity: dash === '' ? 1 : 0.75,
          borderRight: '1px solid',
          borderColor: 'raised',
          backgroundImage:
            dash === ''
              ? undefined
              : 'repeating-linear-gradient(135deg, transparent 0 4px, var(--chakra-colors-raised) 4px 6px)',
          _focusVisible: { outline: '2px solid', outlineColor: 'plum', outlineOffset: '-2px' },
        } as const;
        return (
          <Hint key={s.from} text={said}>
            {week.ask ? (
              <chakra.a href={pathOfCall({ ...week.ask, at: isoOf(s.from) }, { of, beside: null })} {...look} />
            ) : (
              <chakra.span role="img" {...look} />
            )}
          </Hint>
        );
      })}
    </Flex>
  );
}

/** Which time rule decides when, above the ends that it leads to. */
function Rules({ week, names }: { week: Week; names: RuleNames }) {
  const write = useWriting();
  const how = { zone: week.zone, weekday: true };
  return (
    <Flex h="20px" mb="2px" role="group" aria-label="which rule decides" fontSize="12px" lineHeight="18px">
      {week.rules!.map((r) => {
        const { short, long } = names(r.rule);
        const said = r.notice === null ? long : `notice “${r.notice}”`;
        return (
          <Hint key={r.from} text={`${write(r.from, how)} to ${write(r.to, how)}: ${said}`}>
            <chakra.span
              tabIndex={0}
              role="img"
              aria-label={`${write(r.from, how)} to ${write(r.to, how)}: ${said}`}
              textAlign="center"
              overflow="hidden"
              borderLeft="1px solid"
              borderColor="fieldLine"
              bg={r.notice !== null ? 'saffronTint' : r.rule === null ? 'transparent' : 'plumTint'}
              color={r.rule === null && r.notice === null ? 'quiet' : 'ink'}
              style={{ width: `${((r.to - r.from) / (week.to - week.from)) * 100}%` }}
            >
              {r.notice === null ? short : '!'}
            </chakra.span>
          </Hint>
        );
      })}
    </Flex>
  );
}

function Legend({ week, live }: { week: Week; live: readonly WeekStretch[] | null }) {
  const key = (s: WeekStretch) => `${endOf(s)} ${nameOf(s)}`;
  const hours = (of: readonly WeekStretch[], end: WeekStretch) =>
    Math.round(of.filter((s) => key(s) === key(end)).reduce((sum, s) => sum + (s.to - s.from) / 3_600_000, 0));
  const ends = [...new Map([...week.stretches, ...(live ?? [])].map((s) => [key(s), s])).values()];
  return (
    <Flex gap="16px" wrap="wrap" mt="6px" fontSize="13px">
      {ends.map((s) => (
        <Flex key={key(s)} gap="6px" align="center">
          <Glyph kind={endOf(s)} />
          {nameOf(s)}
          <chakra.span color="quiet">
            {live ? `draft ${hours(week.stretches, s)} h, live ${hours(live, s)} h` : `${hours(week.stretches, s)} h`}
          </chakra.span>
        </Flex>
      ))}
    </Flex>
  );
}
