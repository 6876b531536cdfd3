import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/atkinson-hyperlegible-mono';
import { EarlyTyping } from '@/ui/early-typing';
import { EARLY_SCRIPT } from '@/ui/early-script';
import { UiProvider } from '@/ui/provider';

export const metadata: Metadata = {
  description: 'Builds, proves and explains a company phone system',
};

export default function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <script dangerouslySetInnerHTML={{ __html: EARLY_SCRIPT }} />
        <UiProvider>
          {children}
          <EarlyTyping />
        </UiProvider>
      </body>
    </html>
  );
}
