'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { faultsOf, type HoursFault } from '@/core/hours/faults';
import { openMinutes, painted } from '@/core/hours/paint';
import { DAY_MINUTES, parseWeek, weekText, type Week } from '@/core/hours/week';
import { clockTime, weekInWords } from '@/core/hours/words';
import { Act, TextBox } from '@/ui/controls';
import { useFocusNote } from '@/ui/workspace';
import type { ObjectEdit } from '@/workbench/edits';
import { WeekPainter } from './week-painter';

const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
const NEVER: Week = DAYS.map(() => []);

/** The week: typed, read back as a sentence, and painted; whichever is used, the other two follow. */
export function WeekPart({ edit, disabled }: { edit: ObjectEdit; disabled: boolean }) {
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
            <b>{weekInWords(week)}</b>: {Math.round(hours * 100) / 100} hours a week.
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

/** The week with the hole closed, or what is said twice said once. */
const mended = (week: Week, { day, from, to }: HoursFault): Week =>
  painted(week, { from: day * DAY_MINUTES + from, to: day * DAY_MINUTES + to }, true);

function Fault({ fault, onMend }: { fault: HoursFault; onMend: (() => void) | null }) {
  const when = `${DAYS[fault.day]} ${clockTime(fault.from)} to ${clockTime(fault.to)}`;
  return (
    <Flex gap="10px" align="center" mt="8px" color="brick" data-testid="week-fault">
      {fault.type === 'hole' ? `${when} is a hole between two open times.` : `${when} is said twice.`}
      {onMend ? (
        <Act h="26px" onClick={onMend}>
          {fault.type === 'hole' ? 'Close the hole' : 'Say it once'}
        </Act>
      ) : null}
    </Flex>
  );
}
