'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { call } from '@/workbench/api';
import type { SessionFacts as Session } from '@/contract/access';
import { Act } from '@/ui/controls';
import { useRefresh } from '@/ui/refresh';
import { Time } from '@/ui/time';

/** The browser in two words, from how it calls itself. */
function browserOf(agent: string): string {
  const name = /(Firefox|Edg|Chrome|Safari)\//.exec(agent)?.[1] ?? 'a program';
  const on = /(Windows|Mac OS|Android|iPhone|Linux)/.exec(agent)?.[1];
  return on ? `${name === 'Edg' ? 'Edge' : name} on ${on}` : name;
}

/** Open sessions, each to be ended. */
export function SessionsPart({ sessions }: { sessions: Session[] }) {
  const refresh = useRefresh();
  const end = async (id: string) => {
    await call('endSession', { params: { id } });
    refresh();
  };
  return (
    <Box>
      {sessions.map((s, i) => (
        <Flex
          key={s.id}
          gap="12px"
          align="center"
          minH="34px"
          borderTop="1px solid"
          borderColor="line"
          fontSize="13px"
          wrap="wrap"
        >
          <b>{s.name}</b>
          <chakra.span color="quiet">
            {browserOf(s.agent)}, from {s.address}, since <Time iso={s.since} />, last seen <Time iso={s.lastSeen} />
          </chakra.span>
          <Box ml="auto">
            {s.mine ? (
              <chakra.span color="pine">this one</chakra.span>
            ) : (
              <Act
                h="24px"
                aria-label={`End session ${i + 1}, of ${s.name}, ${browserOf(s.agent)}`}
                onClick={() => void end(s.id)}
              >
                End it
              </Act>
            )}
          </Box>
        </Flex>
      ))}
    </Box>
  );
}
