'use client';

import { Box, Flex } from '@chakra-ui/react';
import type { Answer } from '@/contract';
import { call, type ApiResult } from '@/workbench/api';
import { Act, PartTitle } from '@/ui/controls';
import { Time } from '@/ui/time';

type Dead = Answer<'deadJobs'>['jobs'][number];

const WORDS: Record<Dead['kind'], string> = {
  'import-check': 'Checking a sheet',
  'import-apply': 'Importing a sheet',
  'bulk-edit': 'Editing many at once',
  undo: 'Taking an edit back',
  'log-check': 'Checking a call log',
  'log-import': 'Bringing in a call log',
  replay: 'Replaying calls',
  'erase-calls': 'Erasing somebody from the calls',
};

/** Work that failed again and again and was given up: what, whose, and once more. Nothing while there is none. */
export function DeadJobs({
  jobs,
  onAct,
}: {
  jobs: readonly Dead[];
  onAct: <T>(asked: Promise<ApiResult<T>>) => Promise<T | null>;
}) {
  if (jobs.length === 0) return null;
  return (
    <Box mt="28px">
      <PartTitle>Work that was given up</PartTitle>
      {jobs.map((j) => (
        <Flex
          key={j.id}
          gap="12px"
          align="center"
          minH="40px"
          borderTop="1px solid"
          borderColor="line"
          fontSize="13px"
          data-testid="dead-job"
        >
          <Box w="170px">
            <b>{WORDS[j.kind]}</b>
          </Box>
          <Box flex="1" color="quiet">
            asked for by {j.who} <Time iso={j.madeAt} />; tried {j.attempts} times. Nothing was changed.
          </Box>
          <Act h="26px" onClick={() => void onAct(call('retryJob', { params: { id: j.id } }))}>
            Try once more
          </Act>
        </Flex>
      ))}
    </Box>
  );
}
