'use client';

import { Box } from '@chakra-ui/react';
import { useState, type ReactNode } from 'react';
import { erlangB } from '@/core/load/erlang';
import { useAsked } from '@/workbench/use-asked';

/** Calls over any trunk. */
const ANY_TRUNK = 'any';
/** Share of calls that may find no channel in the busy hour. */
const LOSS = 0.01;
/** Days that are looked at where four weeks hold too many calls. */
const FEW_DAYS = 2;
const DAY = 86_400_000;

/** What lines carried in the busy hour of late, as erlangs and as a sentence; null while it isn't known, or isn't for this role. */
export function useBusyHour(): { erlangs: number | null; sentence: ReactNode } | null {
  const all = useAsked('callTraffic', { query: { trunk: ANY_TRUNK } });
  const [since] = useState(() => new Date(Date.now() - FEW_DAYS * DAY).toISOString().slice(0, 10));
  const few = useAsked('callTraffic', all.wrong === null ? null : { query: { trunk: ANY_TRUNK, from: since } });
  const traffic = all.value ?? few.value;
  if (!traffic) return null;
  if (!traffic.busyHour)
    return { erlangs: null, sentence: 'No call over a trunk is on record, so channels are held against no busy hour.' };
  const { from, erlangs } = traffic.busyHour;
  const most = traffic.peak ? `, ${traffic.peak.calls} at once at most` : '';
  return {
    erlangs,
    sentence: (
      <>
        Of late the busy hour begins at {from}: {erlangs.toFixed(1)} erlangs over all trunks{most}.
      </>
    ),
  };
}

/** Channels to the outside that are left, and how many calls of the busy hour would find none (Erlang B). */
export function Channels({ left, of, erlangs }: { left: number; of: number; erlangs: number | null }) {
  const lost = erlangs === null ? 0 : erlangB(erlangs, left);
  return (
    <>
      {left} of {of}
      {erlangs === null ? null : (
        <Box fontSize="12px" color={lost > LOSS ? 'brick' : 'quiet'}>
          {lost > LOSS ? `${said(lost)} of calls in the busy hour find none` : 'enough for the busy hour'}
        </Box>
      )}
    </>
  );
}

/** A share between 0 and 1 as a percentage that is never rounded to all or nothing. */
const said = (share: number): string =>
  share >= 1 ? 'all' : share > 0.99 ? 'over 99 %' : `${(share * 100).toFixed(share < 0.1 ? 1 : 0)} %`;
