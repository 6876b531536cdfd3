import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/atkinson-hyperlegible-mono';
import { UiProvider } from '@/ui/provider';

export const metadata: Metadata = {
  description: 'Builds, proves and explains a company phone system',
};

export default function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <UiProvider>{children}</UiProvider>
      </body>
    </html>
  );
}
