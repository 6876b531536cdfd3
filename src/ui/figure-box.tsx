'use client';

import { Box, Flex, NumberInput } from '@chakra-ui/react';
import type { ComponentProps } from 'react';

/** A figure with its unit beside it; arrow keys and its two buttons make it more or less. What is typed stands as it is typed. */
export function FigureBox({
  id,
  title,
  value,
  unit,
  disabled,
  onChange,
  onLeave,
  w = '112px',
  'aria-invalid': invalid,
  ...input
}: {
  id: string;
  /** what its buttons are named by */
  title: string;
  value: string;
  unit?: string | null;
  disabled?: boolean;
  onChange: (text: string) => void;
  /** left, or Enter pressed */
  onLeave?: () => void;
  w?: string;
  'aria-invalid'?: true;
} & Pick<ComponentProps<typeof NumberInput.Input>, 'onFocus' | 'placeholder' | 'aria-describedby'> & {
    'data-field'?: string;
  }) {
  return (
    <Flex gap="8px" align="center">
      <NumberInput.Root
        ids={{ input: id }}
        value={value}
        disabled={disabled}
        invalid={invalid}
        clampValueOnBlur={false}
        translations={{ incrementLabel: `More: ${title}`, decrementLabel: `Less: ${title}` }}
        formatOptions={{ useGrouping: false, maximumFractionDigits: 3 }}
        w={w}
        onValueChange={(d) => {
          if (d.value !== value) onChange(d.value);
        }}
      >
        <NumberInput.Control />
        <NumberInput.Input
          {...input}
          onBlur={onLeave}
          onKeyDown={(e) => {
            if (e.key === 'Enter') onLeave?.();
          }}
          h="32px"
          px="8px"
          bg="raised"
          borderColor="fieldLine"
          rounded="4px"
          fontSize="14px"
          _focusVisible={{ outline: '2px solid', outlineColor: 'plum', outlineOffset: '1px' }}
        />
      </NumberInput.Root>
      {unit ? (
        <Box as="span" color="quiet" fontSize="13px">
          {unit}
        </Box>
      ) : null}
    </Flex>
  );
}
