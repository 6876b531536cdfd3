'use client';

import { Flex } from '@chakra-ui/react';
import { useTheme } from 'next-themes';
import { useSyncExternalStore } from 'react';
import { Act } from '@/ui/controls';

/** Light, dark, or as the device is. */
export function ThemeChoice() {
  const { theme, setTheme } = useTheme();
  const here = useSyncExternalStore(
    () => () => {},
    () => true,
    () => false,
  );
  return (
    <Flex gap="6px" role="group" aria-label="Theme">
      {['light', 'dark', 'system'].map((t) => (
        <Act
          key={t}
          aria-pressed={here && theme === t}
          bg={here && theme === t ? 'plumTint' : undefined}
          borderColor={here && theme === t ? 'plum' : 'line'}
          onClick={() => setTheme(t)}
        >
          {t === 'system' ? 'as the device' : t}
        </Act>
      ))}
    </Flex>
  );
}
