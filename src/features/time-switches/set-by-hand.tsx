'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { Act, SelectBox, Wrong } from '@/ui/controls';
import { useWriting } from '@/ui/time';
import { call } from '@/workbench/api';
import { useStateChanged } from '@/workbench/notices-here';
import { dayIn } from '@/workbench/zone-words';

export interface SwitchNow {
  setting: 'open' | 'closed';
  since: string;
  until: string | null;
  by: string;
}

const SETTINGS = ['open', 'closed', 'by hours'] as const;
const ENDS = [
  { id: 'never', label: 'until somebody sets it again' },
  { id: 'hour', label: 'for one hour' },
  { id: 'today', label: 'until the end of today' },
  { id: 'tomorrow', label: 'until the end of tomorrow' },
] as const;
type End = (typeof ENDS)[number]['id'];

function untilOf(end: End, zone: string | null): string | null {
  if (end === 'never') return null;
  if (end === 'hour') return new Date(Date.now() + 3_600_000).toISOString();
  return dayIn(zone, end === 'today' ? 0 : 1);
}

/** How a time switch stands, who set it and until when; and the three positions it can be set to, at once. */
export function SetByHand({
  id,
  set,
  zone,
  byHours,
  may,
  isLive,
}: {
  id: string;
  set: SwitchNow | null;
  zone: string | null;
  /** it has hours to go back to */
  byHours: boolean;
  may: boolean;
  isLive: boolean;
}) {
  const write = useWriting();
  const changed = useStateChanged();
  const [end, setEnd] = useState<End>('never');
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const now = set?.setting ?? 'by hours';
  const words = {
    open: 'open',
    closed: 'closed',
    'by hours': byHours ? 'by its hours' : 'the open way: it has no hours',
  };
  const how = { zone: zone ?? undefined, weekday: true };
  const put = async (setting: (typeof SETTINGS)[number]) => {
    setBusy(true);
    const until = setting === 'by hours' ? null : untilOf(end, zone);
    const done = await call('setSwitch', { params: { id }, body: { setting, until } });
    setBusy(false);
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    if (done.ok) changed();
  };
  return (
    <Box
      border="1px solid"
      borderColor={set ? 'saffron' : 'line'}
      borderLeftWidth={set ? '4px' : '1px'}
      rounded="4px"
      bg={set ? 'saffronTint' : 'raised'}
      p="12px"
      maxW="760px"
      data-testid="set-by-hand"
    >
      <Flex gap="10px" align="center" wrap="wrap">
        <Flex role="group" aria-label="Set it by hand">
          {SETTINGS.map((s) => (
            <Act
              key={s}
              aria-pressed={now === s}
              disabled={!may || busy || !isLive}
              bg={now === s ? 'plumTint' : undefined}
              borderColor={now === s ? 'plum' : undefined}
              rounded="0"
              onClick={() => void put(s)}
            >
              {s === 'by hours' ? 'by hours' : s}
            </Act>
          ))}
        </Flex>
        {may && isLive ? (
          <Box w="220px">
            <SelectBox
              aria-label="How long it stays as it is set"
              value={end}
              onChange={(e) => setEnd(e.target.value as End)}
            >
              {ENDS.map((e) => (
                <option key={e.id} value={e.id}>
                  {e.label}
                </option>
              ))}
            </SelectBox>
          </Box>
        ) : null}
        <Box flex="1" minW="200px" aria-live="polite">
          <b>{set ? `Set ${set.setting} by hand` : `It goes ${words['by hours']}`}</b>
          {set ? (
            <chakra.span color="quiet">
              {' '}
              by {set.by}, {write(set.since, how)},{' '}
              {set.until ? `until ${write(set.until, how)}` : 'until it is set again'}
            </chakra.span>
          ) : null}
        </Box>
      </Flex>
      <Box fontSize="13px" color="quiet" mt="6px">
        {isLive
          ? 'It acts at once on live calls, whatever stands in the draft.'
          : 'It is in the draft only; it can be set by hand once it is live.'}
      </Box>
      {wrong ? (
        <Box mt="8px">
          <Wrong>{wrong}</Wrong>
        </Box>
      ) : null}
    </Box>
  );
}
