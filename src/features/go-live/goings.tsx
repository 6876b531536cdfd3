'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { Going } from '@/contract/going-live';
import { Act, Wrong } from '@/ui/controls';
import { Time } from '@/ui/time';
import { call } from '@/workbench/api';

const WAITS: ReadonlySet<Going['state']> = new Set(['planned', 'waits for a second person']);

/** What waits to go live, for its time or for a second person; and what became of the last one. */
export function Goings({
  goings,
  mayGoLive,
  onDone,
}: {
  goings: readonly Going[];
  mayGoLive: boolean;
  onDone: () => void;
}) {
  const [wrong, setWrong] = useState<string | null>(null);
  const shown = goings.filter((g, i) => WAITS.has(g.state) || i === 0);
  if (shown.length === 0) return null;
  const act = async (operation: 'agreeGoing' | 'withdrawGoing', id: string) => {
    const done = await call(operation, { params: { id } });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    onDone();
  };
  return (
    <Box mb="14px" border="1px solid" borderColor="line" rounded="4px" bg="raised" p="10px" data-testid="goings">
      {shown.map((g) => (
        <Flex key={g.id} gap="10px" align="center" wrap="wrap" py="3px">
          <Box flex="1" minW="220px">
            <b>{headOf(g)}</b> {g.edits} {g.edits === 1 ? 'edit' : 'edits'}, asked for by {g.mine ? 'you' : g.by},{' '}
            <Time iso={g.madeAt} />
            {g.at && WAITS.has(g.state) ? (
              <>
                ; goes live <Time iso={g.at} />
              </>
            ) : null}
            {g.agreedBy ? `; ${g.agreedBy} agreed` : ''}
            {g.note ? <Box color="quiet">{g.note}</Box> : null}
            {g.outcome ? <Box color={g.state === 'refused' ? 'brick' : 'quiet'}>{g.outcome}</Box> : null}
          </Box>
          {mayGoLive && g.state === 'waits for a second person' && !g.mine ? (
            <Act look="main" h="26px" onClick={() => void act('agreeGoing', g.id)}>
              Agree
            </Act>
          ) : null}
          {mayGoLive && WAITS.has(g.state) ? (
            <Act h="26px" onClick={() => void act('withdrawGoing', g.id)}>
              Withdraw
            </Act>
          ) : null}
        </Flex>
      ))}
      {wrong ? <Wrong>{wrong}</Wrong> : null}
    </Box>
  );
}

const headOf = (g: Going): string =>
  g.state === 'planned'
    ? 'Planned:'
    : g.state === 'live'
      ? 'Went live:'
      : g.state === 'refused'
        ? 'Did not go live:'
        : g.state === 'withdrawn'
          ? 'Withdrawn:'
          : 'Waits for a second person:';
