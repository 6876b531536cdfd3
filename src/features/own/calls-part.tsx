'use client';

import { Box, Grid, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { Act, Empty } from '@/ui/controls';
import { Time } from '@/ui/time';
import type { OwnData } from './data';

type Call = Exclude<OwnData['own'], null | 'gone'>['calls'][number];

const FIRST = 12;

/** Calls that came to one’s own phones and mailboxes in the last four weeks, the newest first. */
export function CallsPart({ calls }: { calls: readonly Call[] }) {
  const [all, setAll] = useState(false);
  if (calls.length === 0) return <Empty>Nobody called in the last four weeks.</Empty>;
  return (
    <>
      <Grid
        role="table"
        aria-label="Who called"
        templateColumns="auto minmax(110px, 1fr) minmax(90px, 1fr)"
        fontSize="13px"
      >
        {(all ? calls : calls.slice(0, FIRST)).map((c, i) => (
          <Box key={`${c.started} ${i}`} display="contents" role="row">
            <Cell>
              <chakra.span color="quiet">
                <Time iso={c.started} />
              </chakra.span>
            </Cell>
            <Cell>
              {c.calling === null ? (
                c.shown
              ) : (
                <chakra.a href={`tel:${c.calling}`} fontFamily="mono" textDecoration="underline">
                  {c.shown}
                </chakra.a>
              )}
            </Cell>
            <Cell>
              {c.answered ? `${Math.max(1, Math.round(c.seconds / 60))} min` : <b>missed</b>}
              {!c.answered && c.inMailbox ? ', came to the mailbox' : ''}
            </Cell>
          </Box>
        ))}
      </Grid>
      {!all && calls.length > FIRST ? (
        <Act mt="8px" onClick={() => setAll(true)}>
          Show all {calls.length}
        </Act>
      ) : null}
    </>
  );
}

const Cell = ({ children }: { children: React.ReactNode }) => (
  <Box role="cell" py="4px" pr="14px" borderTop="1px solid" borderColor="line" minW={0} overflowWrap="anywhere">
    {children}
  </Box>
);
