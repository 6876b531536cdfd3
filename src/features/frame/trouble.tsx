'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { call } from '@/workbench/api';
import { Act } from '@/ui/controls';

const ASK_EVERY_MS = 2000;
/** A page that failed may have met a moment in which everything was busy: it is asked for again so often by itself. */
const MOST_TRIES = 3;
let tries = 0;

/** Instead of a page that could not be made: says whether the database is away, and goes on by itself when it is back. */
export function Trouble({ again }: { again: () => void }) {
  const [gone, setGone] = useState<boolean | null>(null);
  const retry = useRef(again);
  useEffect(() => {
    retry.current = again;
  });
  useEffect(() => {
    if (gone !== false || tries >= MOST_TRIES) return;
    const timer = setTimeout(
      () => {
        tries++;
        retry.current();
      },
      ASK_EVERY_MS * (tries + 1),
    );
    return () => clearTimeout(timer);
  }, [gone]);
  useEffect(() => {
    let stopped = false;
    const look = async () => {
      const health = await call('health');
      if (stopped) return;
      if (gone === true && health.ok) window.location.reload();
      else setGone(!health.ok);
    };
    const first = setTimeout(look, 0);
    const timer = setInterval(look, ASK_EVERY_MS);
    return () => {
      stopped = true;
      clearTimeout(first);
      clearInterval(timer);
    };
  }, [gone]);
  return (
    <Flex flex="1" minH="300px" align="center" justify="center" p="24px">
      <Box
        role="alert"
        maxW="460px"
        border="1px solid"
        borderColor="brick"
        bg="brickTint"
        rounded="4px"
        p="18px"
        data-testid={gone ? 'database-gone' : 'trouble'}
      >
        <Box fontWeight={700} mb="6px">
          {gone ? 'The database does not answer' : 'This page could not be made'}
        </Box>
        <Box mb="12px">
          {gone
            ? 'Nothing is lost: what was saved is in the database, and what you typed is kept in this browser. This page goes on by itself when the database is back.'
            : 'Something broke on our side and nothing was changed. The log says more. What you typed is kept in this browser.'}
        </Box>
        <Act
          onClick={() => {
            tries = 0;
            if (gone) window.location.reload();
            else again();
          }}
        >
          Try again now
        </Act>
      </Box>
    </Flex>
  );
}
