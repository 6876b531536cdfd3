'use client';

import { Box } from '@chakra-ui/react';
import { useCallback } from 'react';
import { Link } from '@/ui/link';
import type { ObjectPageData } from '@/workbench/form-data';
import { ObjectPage } from '@/workbench/object-page';
import { HolidayDates, type HolidayDate } from './holiday-dates';
import { OfficialDates } from './official-dates';

/** One holiday calendar: its dates year by year, and what its country or region says of them. */
export function HolidaysPage({
  data,
  usedBy,
  today,
}: {
  data: ObjectPageData;
  usedBy: { id: string; name: string }[];
  today: string;
}) {
  const said = useCallback((dates: HolidayDate[]) => dates.filter((d) => d.closed).length, []);
  return (
    <ObjectPage
      data={data}
      listPath="/holidays"
      top={(edit) => (
        <Box color="quiet" mt="-6px">
          {said(edit.value.dates as HolidayDate[])} dates are closed all day
          {usedBy.length === 0 ? '; no hours ask it yet. ' : ' for '}
          {usedBy.map((h, i) => (
            <span key={h.id}>
              {i > 0 ? ', ' : ''}
              <Link href={`/hours/${h.id}`} style={{ textDecoration: 'underline' }}>
                {h.name}
              </Link>
            </span>
          ))}
        </Box>
      )}
      parts={[
        { title: 'Whose holidays', draw: (edit) => <OfficialDates edit={edit} canEdit={data.canEdit} today={today} /> },
        { title: 'Its dates', draw: (edit) => <HolidayDates edit={edit} disabled={!data.canEdit} today={today} /> },
        { title: 'Name and note', fields: ['name', 'note'], rare: true },
      ]}
    />
  );
}
