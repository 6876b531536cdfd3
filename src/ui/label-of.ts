'use client';

import { useEffect, useState, type RefObject } from 'react';

/** What the label of a field says, for the buttons that belong to the field; empty until the page stands. */
export function useLabelOf(field: RefObject<HTMLInputElement | null>, own?: string): string {
  const [said, setSaid] = useState('');
  useEffect(() => {
    const label = own ?? field.current?.labels?.[0]?.textContent ?? '';
    // The label is outside of this component; what it says is known once it is drawn.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    setSaid(label.trim());
  }, [field, own]);
  return said;
}
