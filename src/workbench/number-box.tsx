'use client';

import { useState, type ComponentProps } from 'react';
import { TextBox } from '@/ui/controls';
import { call } from './api';
import { useAsked } from './use-asked';

const E164 = /^\+[1-9][0-9]{4,14}$/;

/**
 * A telephone number as people of its site write it; the value is E.164. Any spelling is taken and read when the field is left;
 * what can't be read stays as it was typed.
 */
export function NumberBox({
  value,
  site,
  onType,
  onLeave,
  ...box
}: Omit<ComponentProps<typeof TextBox>, 'value' | 'onChange'> & {
  value: string;
  /** whose country says how numbers are read and written */
  site: string;
  onType: (text: string) => void;
  onLeave: () => void;
}) {
  const [typing, setTyping] = useState(false);
  const written = useAsked('readNumber', E164.test(value) ? { query: { text: value, site } } : null, { keep: true });
  const leave = async () => {
    const got = await call('readNumber', { query: { text: value, site } });
    if (got.ok && got.value.e164 && got.value.e164 !== value) onType(got.value.e164);
    setTyping(false);
    onLeave();
  };
  return (
    <TextBox
      {...box}
      fontFamily="mono"
      inputMode="tel"
      value={!typing && E164.test(value) ? (written.value?.shown ?? value) : value}
      onChange={(e) => {
        setTyping(true);
        onType(e.target.value);
      }}
      onBlur={() => (typing ? void leave() : onLeave())}
      onKeyDown={(e) => {
        if (e.key === 'Enter') void leave();
      }}
    />
  );
}
