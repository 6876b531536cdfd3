'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { Act, PartTitle, TextBox, Wrong } from '@/ui/controls';
import { useRefresh } from '@/ui/refresh';
import { call } from '@/workbench/api';
import type { OwnPhone } from './data';

/** Taking calls of queues: signed in or out, paused with a reason. */
export function AgentPart({ phone, agent }: { phone: OwnPhone; agent: NonNullable<OwnPhone['agent']> }) {
  const refresh = useRefresh();
  const [reason, setReason] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const set = async (body: { signedIn?: boolean; paused?: string | null }) => {
    const done = await call('ownAgent', { params: { id: phone.id }, body });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    if (done.ok) setReason('');
    refresh();
  };
  const there = agent.permanent || agent.signedIn;
  return (
    <Box mb="18px" data-testid="own-agent">
      <PartTitle>Calls of {agent.queues.join(', ')}</PartTitle>
      <Flex gap="8px" align="center" wrap="wrap">
        <Box>
          {there ? (agent.paused === null ? 'You take them.' : `Paused: ${agent.paused}.`) : 'You are signed out.'}
        </Box>
        {agent.permanent ? null : (
          <Act onClick={() => void set({ signedIn: !agent.signedIn })}>{agent.signedIn ? 'Sign out' : 'Sign in'}</Act>
        )}
        {!there ? null : agent.paused !== null ? (
          <Act onClick={() => void set({ paused: null })}>Go on</Act>
        ) : (
          <chakra.form
            display="flex"
            gap="6px"
            onSubmit={(e) => {
              e.preventDefault();
              void set({ paused: reason });
            }}
          >
            <TextBox
              aria-label="Why you pause"
              placeholder="why"
              w="150px"
              h="30px"
              maxLength={80}
              value={reason}
              onChange={(e) => setReason(e.target.value)}
            />
            <Act type="submit" disabled={reason.trim() === ''}>
              Pause
            </Act>
          </chakra.form>
        )}
      </Flex>
      {wrong ? <Wrong>{wrong}</Wrong> : null}
    </Box>
  );
}
