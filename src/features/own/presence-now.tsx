'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { Act, Wrong } from '@/ui/controls';
import { useRefresh } from '@/ui/refresh';
import { Time } from '@/ui/time';
import { call } from '@/workbench/api';

/** How one is, of the states that the organisation uses: one press, and calls follow its rule. */
export function PresenceNow({
  states,
  presence,
}: {
  states: { id: string; label: string }[];
  presence: { state: string; until: string | null } | null;
}) {
  const refresh = useRefresh();
  const [wanted, setWanted] = useState<{ state: string | null } | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  if (states.length === 0) return null;
  const now = wanted ? wanted.state : (presence?.state ?? null);
  const set = async (state: string | null) => {
    setWanted({ state });
    const done = await call('ownPresence', { body: { state, until: null } });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    if (!done.ok) setWanted(null);
    refresh();
  };
  const choice = (state: string | null, label: string) => (
    <Act
      key={state ?? ''}
      aria-pressed={now === state}
      bg={now === state ? 'plumTint' : undefined}
      borderColor={now === state ? 'plum' : 'line'}
      onClick={() => void set(state)}
    >
      {label}
    </Act>
  );
  return (
    <Box mb="18px">
      <Flex gap="8px" wrap="wrap" role="group" aria-label="How I am">
        {choice(null, 'Reachable')}
        {states.map((s) => choice(s.id, s.label))}
      </Flex>
      {presence?.until && now === presence.state ? (
        <Box color="quiet" fontSize="13px" mt="4px">
          until <Time iso={presence.until} />
        </Box>
      ) : null}
      {wrong ? <Wrong>{wrong}</Wrong> : null}
    </Box>
  );
}
