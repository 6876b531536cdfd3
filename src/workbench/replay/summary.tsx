'use client';

import { chakra } from '@chakra-ui/react';
import type { ReplayAnswer } from '@/contract/records';
import { useWriting } from '@/ui/time';

/** What a replay found, in a sentence. */
export function ReplaySummary({ found: f }: { found: ReplayAnswer }) {
  const write = useWriting();
  const day = (iso: string) => write(iso, { dayOnly: true });
  return (
    <chakra.span data-testid="replay-summary">
      {f.changed.toLocaleString('en')} of {f.calls.toLocaleString('en')} calls from {day(f.from)} to {day(f.to)}{' '}
      {f.against === 'live' ? 'would end elsewhere' : 'would not end as they did'}
      {f.lost > 0 ? <chakra.b color="brick">; {f.lost.toLocaleString('en')} would find nobody</chakra.b> : null}.
    </chakra.span>
  );
}
