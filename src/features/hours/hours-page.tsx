'use client';

import { Box } from '@chakra-ui/react';
import { parseWeek } from '@/core/hours/week';
import { useWriting } from '@/ui/time';
import type { ObjectPageData } from '@/workbench/form-data';
import { NoticesHere, useNotice } from '@/workbench/notices-here';
import { ObjectPage } from '@/workbench/object-page';
import { zoneWords } from '@/workbench/zone-words';
import type { NextClockChange } from '@/core/hours';
import { CalendarPart } from './calendar-part';
import { ClockLine } from './clock-line';
import { ComparePart, type OtherHours } from './compare-part';
import { DuplicateHours } from './duplicate-hours';
import { DatesPart } from './dates-part';
import { WeekPart } from './week-part';
import { YearRibbon, type CalendarDate, type DatedTimes } from './year-ribbon';

interface Calendar {
  id: string;
  name: string;
  dates: CalendarDate[];
}

/** One hours object: its week, the year over it, dates with times of their own; and what holds now. */
export function HoursPage({
  data,
  calendars,
  now,
  language,
  clock,
  others,
}: {
  data: ObjectPageData;
  calendars: Calendar[];
  now: { at: string; open: boolean; until: string | null };
  /** of the organisation */
  language: string;
  clock: NextClockChange | null;
  others: OtherHours[];
}) {
  const write = useWriting();
  const zone = String(data.object.zone);
  const said = `${now.open ? 'open' : 'closed'} now${now.until ? `, until ${write(now.until, { zone, weekday: true })}` : ''}, by the draft`;
  const notice = useNotice(
    { kind: 'hours', id: String(data.object.id), label: data.label, zone },
    data.account,
    data.rights.includes('actNow'),
  );
  return (
    <ObjectPage
      data={data}
      listPath="/hours"
      acts={
        <>
          {notice.act}
          {data.canEdit ? <DuplicateHours data={data} /> : null}
        </>
      }
      top={() => (
        <>
          {notice.panel}
          <NoticesHere id={String(data.object.id)} />
          <Box color="quiet" mt="-6px" data-testid="hours-now">
            {zoneWords(zone)} · {said}
          </Box>
          {clock ? <ClockLine change={clock} /> : null}
        </>
      )}
      parts={[
        {
          title: 'The week, typed or painted',
          draw: (edit) => <WeekPart edit={edit} disabled={!data.canEdit} language={language} />,
        },
        {
          title: 'The year over it',
          draw: (edit) => {
            const week = parseWeek(String(edit.value.weekly));
            const chosen = edit.value.holidays as string[];
            return (
              <YearRibbon
                week={week.ok ? week.week : EMPTY}
                holidays={calendars.filter((c) => chosen.includes(c.id)).flatMap((c) => c.dates)}
                exceptions={edit.value.exceptions as DatedTimes[]}
                today={now.at.slice(0, 10)}
              />
            );
          },
        },
        { title: 'Beside another', draw: (edit) => <ComparePart edit={edit} others={others} /> },
        { title: 'Holidays', fields: ['holidays'] },
        {
          title: 'Dates with times of their own',
          draw: (edit) => <DatesPart edit={edit} disabled={!data.canEdit} />,
        },
        {
          title: 'As a calendar',
          draw: (edit) => <CalendarPart id={String(data.object.id)} edit={edit} canEdit={data.canEdit} />,
        },
        { title: 'Name, zone and note', fields: ['name', 'zone', 'note'], rare: true },
      ]}
    />
  );
}

const EMPTY = Array.from({ length: 7 }, () => []);
