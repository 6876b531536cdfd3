'use client';

import { Box, DatePicker, Popover, Portal } from '@chakra-ui/react';
import { parseDate } from '@internationalized/date';
import { useContext } from 'react';
import { DayOrderContext } from './time';

/** A month to choose a day from, with the pointer or with arrow keys; days are ISO 8601. */
export default function Calendar({
  value,
  onChoose,
  onClose,
}: {
  value: string;
  onChoose: (iso: string) => void;
  onClose: () => void;
}) {
  const order = useContext(DayOrderContext);
  const day = /^\d{4}-\d{2}-\d{2}$/.test(value) && !Number.isNaN(Date.parse(value)) ? [parseDate(value)] : [];
  return (
    <Popover.Root open onOpenChange={(d) => !d.open && onClose()} positioning={{ placement: 'bottom-end' }}>
      <Popover.Anchor asChild>
        <Box position="absolute" inset={0} pointerEvents="none" />
      </Popover.Anchor>
      <Portal>
        <Popover.Positioner>
          <Popover.Content
            aria-label="Calendar"
            w="auto"
            bg="raised"
            border="1px solid"
            borderColor="fieldLine"
            rounded="4px"
            shadow="none"
            p="10px"
          >
            <DatePicker.Root
              inline
              locale={order === 'month first' ? 'en-US' : 'en-GB'}
              defaultValue={day}
              onValueChange={(d) => d.value[0] && onChoose(d.value[0].toString())}
              colorPalette="plum"
              size="sm"
            >
              <DatePicker.Content unstyled>
                <DatePicker.View view="day">
                  <DatePicker.Header />
                  <DatePicker.DayTable />
                </DatePicker.View>
                <DatePicker.View view="month">
                  <DatePicker.Header />
                  <DatePicker.MonthTable />
                </DatePicker.View>
                <DatePicker.View view="year">
                  <DatePicker.Header />
                  <DatePicker.YearTable />
                </DatePicker.View>
              </DatePicker.Content>
            </DatePicker.Root>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
