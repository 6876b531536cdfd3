'use client';

import { Trouble } from '@/features/frame/trouble';

export default function WorkError({ reset }: { reset: () => void }) {
  return <Trouble again={reset} />;
}
