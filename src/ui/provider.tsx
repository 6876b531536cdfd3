'use client';

import { ChakraProvider } from '@chakra-ui/react';
import { ThemeProvider } from 'next-themes';
import type { ReactNode } from 'react';
import { Styles } from './styles';
import { system } from './theme';

export function UiProvider({ children }: { children: ReactNode }) {
  return (
    <Styles>
      <ChakraProvider value={system}>
        <ThemeProvider
          attribute="class"
          defaultTheme="system"
          enableSystem
          disableTransitionOnChange
          storageKey="polydrome-theme"
        >
          {children}
        </ThemeProvider>
      </ChakraProvider>
    </Styles>
  );
}
