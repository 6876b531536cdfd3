'use client';

import { Box } from '@chakra-ui/react';
import { useState, type ReactNode } from 'react';
import type { Answer } from '@/contract';
import { erlangB } from '@/core/load/erlang';
import { useAsked } from '@/workbench/use-asked';

/** Calls over any trunk. */
const ANY_TRUNK = 'any';
/** Share of calls that may find no channel in the busy hour. */
const LOSS = 0.01;
/** Days that are looked at where four weeks hold too many calls. */
const FEW_DAYS = 2;
const DAY = 86_400_000;
/** Sites whose channels are told one by one. */
const MOST_SITES = 4;

/** What lines carried in the busy hour of late, in erlangs: over all trunks, and over those of each site; null where no call is on record. */
export interface BusyHour {
  erlangs: number | null;
  ofSite: (site: string) => number | null;
  sentence: ReactNode;
}

/** The busy hour of late, also as a sentence; null while it isn't known, or isn't for this role. */
export function useBusyHour(): BusyHour | null {
  const all = useAsked('callTraffic', { query: { trunk: ANY_TRUNK } });
  const [since] = useState(() => new Date(Date.now() - FEW_DAYS * DAY).toISOString().slice(0, 10));
  const few = useAsked('callTraffic', all.wrong === null ? null : { query: { trunk: ANY_TRUNK, from: since } });
  const traffic = all.value ?? few.value;
  if (!traffic) return null;
  const against = (sentence: string): BusyHour => ({ erlangs: null, ofSite: () => null, sentence });
  if (!traffic.whole)
    return against('Your role sees some of the calls only, so channels are held against no busy hour.');
  if (!traffic.busyHour)
    return against('No call over a trunk is on record, so channels are held against no busy hour.');
  const { from, erlangs } = traffic.busyHour;
  const most = traffic.peak ? `, ${traffic.peak.calls} at once at most` : '';
  // A site without calls over its trunks needs no channel.
  const ofSites = new Map(traffic.siteBusyHours.map((s) => [s.site, s.erlangs]));
  return {
    erlangs,
    ofSite: (site) => ofSites.get(site) ?? 0,
    sentence: (
      <>
        Of late the busy hour begins at {from}: {erlangs.toFixed(1)} erlangs over all trunks{most}. A site’s own
        channels are held against the busy hour of its own trunks.
      </>
    ),
  };
}

/** Channels to the outside that are left, of all sites and of those that lose some, and how many calls of the busy hour would find none (Erlang B). */
export function Channels({ channels, busy }: { channels: Answer<'drill'>['channels']; busy: BusyHour | null }) {
  const { sites } = channels;
  return (
    <>
      {channels.left} of {channels.of}
      <Lost left={channels.left} erlangs={busy?.erlangs ?? null} enough="enough for the busy hour" />
      {sites.slice(0, MOST_SITES).map((s) => (
        <Box key={s.site} mt="4px" fontSize="12px">
          {s.left} of {s.of} at {s.siteName}
          <Lost left={s.left} erlangs={busy?.ofSite(s.site) ?? null} enough={null} />
        </Box>
      ))}
      {sites.length > MOST_SITES ? <Box mt="4px">and {sites.length - MOST_SITES} more sites</Box> : null}
    </>
  );
}

/** How many calls of the busy hour find no channel; `enough` where all but a few find one. */
function Lost({ left, erlangs, enough }: { left: number; erlangs: number | null; enough: string | null }) {
  if (erlangs === null) return null;
  const lost = erlangs === 0 ? 0 : erlangB(erlangs, left);
  const words = lost > LOSS ? `${said(lost)} in the busy hour find none` : enough;
  return words === null ? null : (
    <Box fontSize="12px" color={lost > LOSS ? 'brick' : 'quiet'}>
      {words}
    </Box>
  );
}

/** A share of calls, which is never rounded to all or none of them. */
const said = (share: number): string =>
  share >= 1
    ? 'all calls'
    : `${share > 0.99 ? 'over 99 %' : `${(share * 100).toFixed(share < 0.1 ? 1 : 0)} %`} of calls`;
