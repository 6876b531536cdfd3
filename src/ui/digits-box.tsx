'use client';

import { useState, type ComponentProps } from 'react';
import { TextBox } from './controls';

/** Fields of the plan that hold digits as they are dialled, wherever they stand. */
export const DIGIT_FIELDS: ReadonlySet<string> = new Set([
  'digits',
  'area',
  'outsidePrefix',
  'siteCode',
  'prepend',
  'deliveredHead',
  'carrierPrefix',
  'dial',
]);

/** What people write between digits for the eye, and no telephone sends (RFC 3966, section 5.1.1: visual separators). */
const SEPARATORS = /[\s().-]/g;

/** Digits without what only helps the eye. */
export const withoutSeparators = (text: string): string => text.replace(SEPARATORS, '');

/**
 * Digits as they are dialled: in mono, with a telephone's keys on a touch screen. They may be typed or pasted with spaces, dots,
 * hyphens and brackets; the value has none of them, and stands without them once the field is left.
 */
export function DigitsBox({
  value,
  onChange,
  onBlur,
  ...rest
}: Omit<ComponentProps<typeof TextBox>, 'value' | 'onChange'> & {
  value: string;
  onChange: (digits: string) => void;
}) {
  // While they are typed they stand as they are typed.
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <TextBox
      inputMode="tel"
      autoComplete="off"
      spellCheck={false}
      fontFamily="mono"
      {...rest}
      value={typed !== null && withoutSeparators(typed) === value ? typed : value}
      onChange={(e) => {
        setTyped(e.target.value);
        onChange(withoutSeparators(e.target.value));
      }}
      onBlur={(e) => {
        setTyped(null);
        onBlur?.(e);
      }}
    />
  );
}
