'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { faultsOf, mended, type HoursFault } from '@/core/hours/faults';
import { openMinutes, painted } from '@/core/hours/paint';
import { DAY_MINUTES, parseWeek, weekText, type Span, type Week } from '@/core/hours/week';
import { clockTime, weekInWords } from '@/core/hours/words';
import { Act, TextBox } from '@/ui/controls';
import { useFocusNote } from '@/ui/workspace';
import type { ObjectEdit } from '@/workbench/edits';
import { WeekPainter } from './week-painter';

const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
const NEVER: Week = DAYS.map(() => []);

/** The week: typed, read back as a sentence, and painted; whichever is used, the other two follow. */
export function WeekPart({
  edit,
  disabled,
  language,
}: {
  edit: ObjectEdit;
  disabled: boolean;
  /** in which the week is read back */
  language: string;
}) {
  const text = String(edit.value.weekly ?? '');
  const read = parseWeek(text);
  // While what is typed cannot be read, the drawing stays what it was.
  const [last, setLast] = useState<{ text: string; week: Week }>({ text, week: read.ok ? read.week : NEVER });
  if (read.ok && last.text !== text) setLast({ text, week: read.week });
  const week = read.ok ? read.week : last.week;
  const faults = faultsOf(week);
  const hours = openMinutes(week).reduce((sum, s) => sum + s.to - s.from, 0) / 60;
  const note = useFocusNote(
    'The week',
    'Days and times: mon-fri 7-19, sat 8-13. Commas add up; an end before its start runs past midnight, such as fri 22-2. Empty: never open.',
  );
  const put = (next: Week) => edit.choose('weekly', weekText(next));
  const error = edit.errorOf('weekly');
  return (
    <Box maxW="760px">
      <TextBox
        aria-label="The week, typed"
        data-field="weekly"
        fontFamily="mono"
        fontSize="16px"
        h="36px"
        mb="6px"
        spellCheck={false}
        disabled={disabled}
        value={text}
        aria-invalid={read.ok && !error ? undefined : true}
        aria-describedby="week-said"
        {...note}
        onChange={(e) => edit.set('weekly', e.target.value)}
        onBlur={() => void edit.commit()}
        onKeyDown={(e) => {
          if (e.key === 'Enter') void edit.commit();
        }}
      />
      <Box
        id="week-said"
        data-testid="week-said"
        mb="10px"
        color={read.ok ? undefined : 'brick'}
        role={read.ok ? undefined : 'alert'}
      >
        {read.ok ? (
          <>
            <b>{weekInWords(week, language)}</b>: {Math.round(hours * 100) / 100} hours a week.
          </>
        ) : (
          read.error.sentence
        )}
      </Box>
      <WeekPainter
        week={week}
        faults={faults}
        disabled={disabled}
        onPaint={(stretches, open) => put(stretches.reduce((w, s) => painted(w, s, open), week))}
      />
      {faults.map((f) => (
        <Fault key={`${f.type} ${f.day} ${f.from}`} fault={f} onMend={disabled ? null : () => put(mended(week, f))} />
      ))}
    </Box>
  );
}

const spanWords = ({ from, to }: Span) =>
  `${clockTime(from)} to ${clockTime(to > DAY_MINUTES ? to - DAY_MINUTES : to)}`;

/** What is doubtful, in a sentence, and what the button says that mends it. */
function faultWords(fault: HoursFault): { said: string; act: string } {
  const when = `${DAYS[fault.day]} ${spanWords(fault)}`;
  switch (fault.type) {
    case 'hole':
      return fault.to - fault.from === 1
        ? {
            said: `${DAYS[fault.day]} is closed for the one minute from ${clockTime(fault.from)}.`,
            act: 'Close the gap',
          }
        : { said: `${when} is a hole between two open times.`, act: 'Close the hole' };
    case 'overlap':
      return { said: `${when} is said twice.`, act: 'Say it once' };
    case 'minute':
      return {
        said: `${DAYS[fault.day]} ends one minute before ${clockTime(fault.to % DAY_MINUTES || DAY_MINUTES)}: ends are not open any more.`,
        act: `End at ${clockTime(fault.to % DAY_MINUTES || DAY_MINUTES)}`,
      };
    case 'half-day':
      return {
        said: `${when}${fault.to > DAY_MINUTES ? ' the next day' : ''}: half a day off, it seems (a.m. and p.m.).`,
        act: `Make it ${spanWords(fault.meant)}`,
      };
  }
}

function Fault({ fault, onMend }: { fault: HoursFault; onMend: (() => void) | null }) {
  const { said, act } = faultWords(fault);
  return (
    <Flex gap="10px" align="center" mt="8px" color="brick" data-testid="week-fault">
      {said}
      {onMend ? (
        <Act h="26px" onClick={onMend}>
          {act}
        </Act>
      ) : null}
    </Flex>
  );
}
