'use client';

import { Trouble } from '@/features/frame/trouble';

export default function RootError({ reset }: { reset: () => void }) {
  return <Trouble again={reset} />;
}
