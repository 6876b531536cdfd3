'use client';

import { useEffect, useState } from 'react';

/** A value once it has stood for so many milliseconds: what is typed is asked about when the hands rest. */
export function useSettled<T>(value: T, ms: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  return settled;
}
