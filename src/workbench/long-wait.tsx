'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { Act } from '@/ui/controls';
import type { AskedLong } from './use-long';

/** For so long nothing is said: most answers are there before. */
const SOON_MS = 600;

/** While a long question is being answered: what is done, how far it has come, and its end; after that, how it is asked again. */
export function LongWait({ asked, doing }: { asked: AskedLong<unknown>; doing: string }) {
  const { waiting, share, stopped, stop, again } = asked;
  const late = useLate(waiting);
  if (stopped)
    return (
      <Flex gap="10px" align="center" mb="10px" role="status">
        Stopped. <Act onClick={again}>Ask again</Act>
      </Flex>
    );
  if (!waiting || !late) return null;
  const percent = Math.floor(100 * (share ?? 0));
  return (
    <Flex gap="10px" align="center" mb="10px" data-testid="long-wait">
      <Box>{doing}</Box>
      <Box
        role="progressbar"
        aria-label={doing}
        aria-valuenow={percent}
        aria-valuemin={0}
        aria-valuemax={100}
        w="160px"
        h="8px"
        rounded="2px"
        border="1px solid"
        borderColor="fieldLine"
        bg="raised"
        overflow="hidden"
      >
        <Box h="100%" bg="plum" style={{ width: `${percent}%` }} />
      </Box>
      <Act onClick={stop}>Stop</Act>
    </Flex>
  );
}

/** Whether something goes on for longer than what is nearly at once. */
function useLate(waiting: boolean): boolean {
  const [late, setLate] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLate(waiting), waiting ? SOON_MS : 0);
    return () => clearTimeout(timer);
  }, [waiting]);
  return waiting && late;
}
