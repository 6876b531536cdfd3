'use client';

import { Box, Grid, chakra } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Board, BoardLine } from '@/contract/board';
import { Act, Empty, TextBox, Wrong } from '@/ui/controls';
import { Link } from '@/ui/link';
import { Workspace } from '@/ui/workspace';
import { call } from '@/workbench/api';
import { AgentsPart } from './agents-part';
import { CallbacksPart } from '@/workbench/queues/callbacks-part';
import { ToldPart } from '@/workbench/queues/told-part';
import { Waited } from './waited';

const EVERY_MS = 3000;
/** Notices here are all of the queue that is looked at. */
const ofNone = () => null;
/** So many are drawn at once; of the others those in which something waits. */
const FIRST = 60;

/** Queues as they are now: who waits, how the day goes, and the agents of the one that is chosen. */
export function BoardPage({ first }: { first: { queue: string; board: Board } }) {
  const router = useRouter();
  const { queue } = first;
  const [acts, setActs] = useState(0);
  const [text, setText] = useState('');
  const [all, setAll] = useState(false);
  const asked = useQuery({
    queryKey: ['board', queue, acts],
    initialData: acts === 0 ? first.board : undefined,
    placeholderData: (before) => before,
    refetchInterval: EVERY_MS,
    queryFn: async ({ signal }): Promise<Board> => {
      const got = await call('board', { query: { queue } }, signal);
      if (!got.ok) throw new Error(got.errors[0]!.sentence);
      return got.value;
    },
  });
  const board = asked.data ?? first.board;
  const one = board.queues.find((q) => q.id === queue);
  const done = () => setActs((n) => n + 1);
  const wanted = text.trim().toLowerCase();
  const fitting = board.queues.filter((q) => q.label.toLowerCase().includes(wanted));
  const shown = fitting.filter((q, i) => all || i < FIRST || q.waiting > 0 || q.callbacks > 0 || q.id === queue);
  return (
    <Workspace title="Board" count={`${board.queues.length} ${board.queues.length === 1 ? 'queue' : 'queues'}`}>
      {asked.error ? <Wrong>{asked.error.message} What stands here is older.</Wrong> : null}
      {board.queues.length === 0 ? (
        <Empty>Queues that are live stand here with who waits in them and who takes their calls.</Empty>
      ) : (
        <Box overflowX="auto">
          {board.queues.length > FIRST ? (
            <TextBox
              aria-label="Find a queue"
              placeholder="find a queue"
              maxW="240px"
              mb="10px"
              value={text}
              onChange={(e) => setText(e.target.value)}
            />
          ) : null}
          <Grid
            role="table"
            aria-label="Queues now"
            minW="760px"
            templateColumns="minmax(150px, 1.5fr) 76px 86px 130px 150px 110px 90px"
            alignItems="stretch"
          >
            <Box display="contents" role="row">
              {['Queue', 'Waiting', 'Longest', 'Agents', 'Answered in time today', 'Gave up', 'Call back'].map((t) => (
                <Head key={t}>{t}</Head>
              ))}
            </Box>
            {shown.map((q) => (
              <Row
                key={q.id}
                line={q}
                chosen={q.id === queue}
                now={board.at}
                onChoose={() => router.push(`/queues/board?queue=${q.id}`)}
              />
            ))}
          </Grid>
          {shown.length < fitting.length ? (
            <Act mt="8px" onClick={() => setAll(true)}>
              Show all {fitting.length}
            </Act>
          ) : null}
        </Box>
      )}
      {one ? (
        <Box mt="24px">
          <chakra.h2 fontSize="16px" fontWeight={700} mb="8px">
            <Link href={`/queues/${one.id}`}>{one.label}</Link>
          </chakra.h2>
          {one.mine ? <CallbacksPart callbacks={board.callbacks} onDone={done} /> : null}
          <ToldPart key={one.id} told={board.told} of={ofNone} />
          <Box mt="16px">
            <AgentsPart
              agents={board.agents}
              mine={one.mine}
              heard={one.heardAt !== null}
              now={board.at}
              onDone={done}
            />
          </Box>
        </Box>
      ) : null}
    </Workspace>
  );
}

const Head = ({ children }: { children: React.ReactNode }) => (
  <Box role="columnheader" fontSize="12px" color="quiet" pb="6px">
    {children}
  </Box>
);

const Cell = ({ children, look }: { children: React.ReactNode; look?: 'wrong' | 'quiet' }) => (
  <Box
    role="cell"
    h="34px"
    pt="6px"
    pr="12px"
    borderTop="1px solid"
    borderColor="line"
    whiteSpace="nowrap"
    overflow="hidden"
    textOverflow="ellipsis"
    color={look === 'wrong' ? 'brick' : look === 'quiet' ? 'quiet' : undefined}
    fontWeight={look === 'wrong' ? 700 : undefined}
  >
    {children}
  </Box>
);

function Row({
  line: q,
  chosen,
  now,
  onChoose,
}: {
  line: BoardLine;
  chosen: boolean;
  now: string;
  onChoose: () => void;
}) {
  const { calls, inTime, gaveUp, within } = q.today;
  const there = q.agents.signedIn - q.agents.paused;
  return (
    <Box display="contents" role="row" aria-selected={chosen} data-queue={q.id}>
      <Cell>
        <chakra.button
          type="button"
          onClick={onChoose}
          fontWeight={chosen ? 700 : 500}
          textDecoration="underline"
          textDecorationColor={chosen ? 'plum' : 'line'}
          textUnderlineOffset="3px"
          cursor="pointer"
        >
          {q.label}
        </chakra.button>{' '}
        <chakra.span color="quiet" fontSize="12px">
          {q.site}
        </chakra.span>
      </Cell>
      <Cell look={q.heardAt === null ? 'quiet' : q.waiting > 0 && there === 0 ? 'wrong' : undefined}>
        {q.heardAt === null ? 'not known' : q.waiting}
      </Cell>
      <Cell>{q.firstSince ? <Waited since={q.firstSince} now={now} /> : ''}</Cell>
      <Cell look={there === 0 ? 'wrong' : undefined}>
        {there} of {q.agents.all}
        {q.agents.paused > 0 ? `, ${q.agents.paused} paused` : ''}
      </Cell>
      <Cell look={calls === 0 ? 'quiet' : undefined}>
        {calls === 0 ? 'no calls yet' : `${Math.round((100 * inTime) / calls)} % of ${calls} in ${within} s`}
      </Cell>
      <Cell>{gaveUp > 0 ? gaveUp : ''}</Cell>
      <Cell look={q.callbacks > 0 ? 'wrong' : undefined}>{q.callbacks > 0 ? q.callbacks : ''}</Cell>
    </Box>
  );
}
