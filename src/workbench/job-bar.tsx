'use client';

import { Box, Flex } from '@chakra-ui/react';
import { call } from './api';
import { Act } from '@/ui/controls';
import type { JobFacts } from './use-job';

/** How far long work is, at what, and Stop. */
export function JobBar({ job, what }: { job: JobFacts<unknown> | null; what: string }) {
  if (job && job.state !== 'waiting' && job.state !== 'running') return null;
  const share = job && job.total > 0 ? Math.min(1, job.done / job.total) : 0;
  return (
    <Box border="1px solid" borderColor="line" rounded="4px" bg="raised" p="12px" mb="14px" data-testid="job-bar">
      <Flex gap="12px" align="center" mb="8px">
        <Box flex="1" role="status">
          {what}
          {job?.doing ? `: ${job.doing}` : ''}
          {job && job.total > 1 ? ` · ${job.done} of ${job.total}` : ''}
        </Box>
        {job ? <Act onClick={() => void call('stopJob', { params: { id: job.id } })}>Stop</Act> : null}
      </Flex>
      <Box
        h="6px"
        bg="line"
        rounded="3px"
        overflow="hidden"
        role="progressbar"
        aria-label={what}
        aria-valuenow={Math.round(share * 100)}
        aria-valuemin={0}
        aria-valuemax={100}
      >
        <Box h="100%" bg="plum.solid" w={`${share * 100}%`} transition="width 0.2s" />
      </Box>
    </Box>
  );
}
