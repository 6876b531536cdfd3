'use client';

import { useToken } from '@chakra-ui/react';
import { useTheme } from 'next-themes';
import { useMemo } from 'react';

/** A colour of the theme as a canvas takes it, in the theme that is shown. */
export function useDrawnColour(name: string): string {
  const { resolvedTheme } = useTheme();
  const [token] = useToken('colors', [name]);
  return useMemo(() => {
    const variable = /^var\((--[\w-]+)\)$/.exec(token ?? '')?.[1];
    return variable ? getComputedStyle(document.documentElement).getPropertyValue(variable).trim() : (token ?? '');
    // The same variable means another colour in the other theme.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [token, resolvedTheme]);
}
