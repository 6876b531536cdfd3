'use client';

import { Box } from '@chakra-ui/react';
import { useEffect, useEffectEvent, useRef } from 'react';
import { PartTitle, Wrong } from '@/ui/controls';
import { Link } from '@/ui/link';
import { JobBar } from '../job-bar';
import { ReplaySummary } from './summary';
import { useReplay } from './use-replay';

/** What the draft would have made of the last weeks' calls; found anew for each version of it. */
export function RealCalls({ draftVersion }: { draftVersion: number }) {
  const { work, running, found, wrong, start } = useReplay();
  const begun = useRef<number | null>(null);
  const begin = useEffectEvent(() => {
    if (begun.current === draftVersion) return;
    begun.current = draftVersion;
    void start({});
  });
  useEffect(() => begin(), [draftVersion]);
  return (
    <Box mb="16px" data-testid="real-calls">
      <PartTitle>Calls of the last four weeks under this draft</PartTitle>
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      {running ? <JobBar job={work} what="Replaying" /> : null}
      {found && !running ? (
        found.calls === 0 ? (
          <Box color="quiet">No calls are kept of that time.</Box>
        ) : (
          <>
            <ReplaySummary found={found} />{' '}
            {found.changed > 0 || found.unexplained.length > 0 ? (
              <Link href="/calls/replay" style={{ textDecoration: 'underline' }}>
                Which
              </Link>
            ) : null}
          </>
        )
      ) : null}
    </Box>
  );
}
