'use client';

import { ChakraProvider } from '@chakra-ui/react';
import { ThemeProvider } from 'next-themes';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { RefreshProvider } from './refresh';
import { Styles } from './styles';
import { system } from './theme';

export function UiProvider({ children }: { children: ReactNode }) {
  const [queries] = useState(
    () =>
      new QueryClient({
        // Our calls tell what went wrong themselves; a draft version makes old answers other questions.
        defaultOptions: {
          queries: {
            retry: false,
            networkMode: 'always',
            staleTime: 30_000,
            gcTime: 60_000,
            refetchOnWindowFocus: false,
          },
        },
      }),
  );
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
          <QueryClientProvider client={queries}>
            <RefreshProvider>{children}</RefreshProvider>
          </QueryClientProvider>
        </ThemeProvider>
      </ChakraProvider>
    </Styles>
  );
}
