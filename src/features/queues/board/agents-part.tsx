'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { BoardAgent } from '@/contract/board';
import { Act, TextBox, Wrong } from '@/ui/controls';
import { call } from '@/workbench/api';
import { Waited } from './waited';

const STATES: Record<NonNullable<BoardAgent['state']>, string> = {
  free: 'free',
  ringing: 'ringing',
  speaking: 'speaking',
  'wrap-up': 'wrapping up',
};

/** The agents of a queue: signed in or out, paused with a reason, and what they do now. */
export function AgentsPart({
  agents,
  mine,
  heard,
  now,
  onDone,
}: {
  agents: readonly BoardAgent[];
  mine: boolean;
  /** the exchange spoke of the queue lately */
  heard: boolean;
  now: string;
  onDone: () => void;
}) {
  const [pausing, setPausing] = useState<string | null>(null);
  const [reason, setReason] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const set = async (id: string, body: { signedIn?: boolean; paused?: string | null }) => {
    const done = await call('setAgent', { params: { id }, body });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    onDone();
    return done.ok;
  };
  const pause = async (id: string) => {
    if (!(await set(id, { paused: reason }))) return;
    setPausing(null);
    setReason('');
  };
  if (agents.length === 0) return <Box color="quiet">This queue has no agents; its page gives it some.</Box>;
  return (
    <Box>
      {heard ? null : (
        <Box color="quiet" fontSize="13px" mb="6px">
          The exchange said nothing of this queue in the last minute: who speaks and who waits is not known.
        </Box>
      )}
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      <Grid
        role="table"
        aria-label="Agents"
        templateColumns={{ base: 'minmax(0,1fr) auto', md: 'minmax(180px,1fr) minmax(160px,1fr) auto' }}
        maxW="760px"
      >
        {agents.map((a) => (
          <Box key={a.id} display="contents" role="row" data-agent={a.id}>
            <Cell>
              <chakra.span color={a.signedIn ? undefined : 'quiet'}>{a.label}</chakra.span>
            </Cell>
            <Cell>
              <Says agent={a} now={now} />
            </Cell>
            <Cell>
              {mine ? (
                <Flex gap="6px" wrap="wrap">
                  {a.permanent ? null : (
                    <Act
                      aria-label={`${a.signedIn ? 'Sign out' : 'Sign in'} ${a.label}`}
                      onClick={() => void set(a.id, { signedIn: !a.signedIn })}
                    >
                      {a.signedIn ? 'Sign out' : 'Sign in'}
                    </Act>
                  )}
                  {a.signedIn ? (
                    a.paused !== null ? (
                      <Act aria-label={`Go on ${a.label}`} onClick={() => void set(a.id, { paused: null })}>
                        Go on
                      </Act>
                    ) : (
                      <Act
                        aria-label={`Pause … ${a.label}`}
                        aria-expanded={pausing === a.id}
                        onClick={() => setPausing(pausing === a.id ? null : a.id)}
                      >
                        Pause …
                      </Act>
                    )
                  ) : null}
                  {pausing === a.id ? (
                    <chakra.form
                      display="flex"
                      gap="6px"
                      onSubmit={(e) => {
                        e.preventDefault();
                        void pause(a.id);
                      }}
                    >
                      <TextBox
                        aria-label={`Why ${a.label} is paused`}
                        placeholder="why"
                        w="140px"
                        h="30px"
                        autoFocus
                        maxLength={80}
                        value={reason}
                        onChange={(e) => setReason(e.target.value)}
                      />
                      <Act type="submit" disabled={reason.trim() === ''}>
                        Pause
                      </Act>
                    </chakra.form>
                  ) : null}
                </Flex>
              ) : null}
            </Cell>
          </Box>
        ))}
      </Grid>
    </Box>
  );
}

const LEVELS: Record<number, string> = { 2: 'second level', 3: 'third level' };

function Says({ agent: a, now }: { agent: BoardAgent; now: string }) {
  const level = a.level > 1 ? `, ${LEVELS[a.level]}` : '';
  if (!a.signedIn) return <chakra.span color="quiet">signed out{level}</chakra.span>;
  if (a.paused !== null) return <chakra.span color="ochre">paused: {a.paused}</chakra.span>;
  return (
    <span>
      {a.permanent ? 'always signed in' : 'signed in'}
      {level}
      {a.state ? (
        <>
          , {STATES[a.state]}
          {a.since ? (
            <>
              {' '}
              <Waited since={a.since} now={now} />
            </>
          ) : null}
        </>
      ) : null}
    </span>
  );
}

const Cell = ({ children }: { children: React.ReactNode }) => (
  <Box
    role="cell"
    py="4px"
    pr="14px"
    minH="38px"
    borderTop="1px solid"
    borderColor="line"
    fontSize="13px"
    lineHeight="30px"
  >
    {children}
  </Box>
);
