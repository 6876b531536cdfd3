'use client';

import { useEffect, useState, type ComponentProps } from 'react';
import { TextBox } from '@/ui/controls';
import { call } from './api';

const SEARCH_AFTER_MS = 120;

/** Who calls: an extension found by digits or name while it is typed, or anything else that can be asked from. */
export function PhoneBox({
  id,
  value,
  onChange,
  ...box
}: { id: string; value: string; onChange: (from: string) => void } & Omit<
  ComponentProps<typeof TextBox>,
  'id' | 'value' | 'onChange' | 'list'
>) {
  const [found, setFound] = useState<string[]>([]);
  useEffect(() => {
    const aborter = new AbortController();
    const timer = setTimeout(async () => {
      const query = { text: value.slice(0, 100) };
      const got = await call('options', { params: { target: 'extension' }, query }, aborter.signal);
      if (got.ok) setFound(got.value.options.map((o) => o.label));
    }, SEARCH_AFTER_MS);
    return () => {
      clearTimeout(timer);
      aborter.abort();
    };
  }, [value]);
  return (
    <>
      <TextBox
        {...box}
        id={id}
        list={`${id}-phones`}
        value={value}
        onChange={(e) => onChange(found.includes(e.target.value) ? e.target.value.split(' ')[0]! : e.target.value)}
      />
      <datalist id={`${id}-phones`}>
        {found.map((label) => (
          <option key={label} value={label} />
        ))}
      </datalist>
    </>
  );
}
