'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { CalendarDays } from 'lucide-react';
import { Suspense, lazy, useContext, useRef, useState, type ComponentProps } from 'react';
import { TextBox } from './controls';
import { useLabelOf } from './label-of';
import { DayOrderContext } from './time';
import { readDay, writeDay } from './written-day';

/** The calendar is large and seldom opened: it comes when it is. */
const Calendar = lazy(() => import('./calendar'));

/** A day, typed in the organisation's order or chosen from a calendar; the value is ISO 8601, empty for none. */
export function DayBox({
  value,
  onChange,
  onChosen,
  disabled,
  ref,
  ...rest
}: Omit<ComponentProps<typeof TextBox>, 'value' | 'onChange'> & {
  value: string;
  onChange: (iso: string) => void;
  /** told after a day was chosen from the calendar */
  onChosen?: () => void;
}) {
  const order = useContext(DayOrderContext);
  const [open, setOpen] = useState(false);
  const box = useRef<HTMLInputElement>(null);
  const named = useLabelOf(box, rest['aria-label']);
  // While it is typed it stands as it is typed.
  const [typed, setTyped] = useState<string | null>(null);
  const shown = typed !== null && readDay(typed, order) === value ? typed : writeDay(value, order);
  return (
    <Flex gap="4px">
      <TextBox
        {...rest}
        ref={(e: HTMLInputElement | null) => {
          box.current = e;
          if (typeof ref === 'function') ref(e);
        }}
        disabled={disabled}
        inputMode="numeric"
        autoComplete="off"
        placeholder={order === 'month first' ? 'month/day/year' : 'day/month/year'}
        value={shown}
        onChange={(e) => {
          setTyped(e.target.value);
          onChange(readDay(e.target.value, order));
        }}
        onBlur={(e) => {
          setTyped(null);
          rest.onBlur?.(e);
        }}
      />
      <Box position="relative">
        <chakra.button
          type="button"
          disabled={disabled}
          aria-label={`Choose ${named} from a calendar`}
          aria-expanded={open}
          onClick={() => setOpen(!open)}
          w="32px"
          h="32px"
          flexShrink={0}
          display="flex"
          alignItems="center"
          justifyContent="center"
          border="1px solid"
          borderColor="fieldLine"
          rounded="4px"
          bg="raised"
        >
          <CalendarDays size={16} aria-hidden />
        </chakra.button>
        {open ? (
          <Suspense fallback={null}>
            <Calendar
              value={value}
              onClose={() => setOpen(false)}
              onChoose={(iso) => {
                setTyped(null);
                onChange(iso);
                setOpen(false);
                onChosen?.();
              }}
            />
          </Suspense>
        ) : null}
      </Box>
    </Flex>
  );
}
