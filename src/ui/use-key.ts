'use client';

import { useEffect, useRef } from 'react';
import { isTyping } from './ledger-state';

/** Does something when a key is pressed outside a field; what it does is always the newest. */
export function useKey(key: string, act: () => void): void {
  const now = useRef(act);
  useEffect(() => {
    now.current = act;
  });
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.key !== key || e.ctrlKey || e.metaKey || e.altKey || isTyping(e.target)) return;
      e.preventDefault();
      now.current();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [key]);
}
