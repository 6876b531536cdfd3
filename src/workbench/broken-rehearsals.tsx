'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Link } from '@/ui/link';
import { useAsked } from './use-asked';

/** Rehearsals kept as tests that go otherwise in the draft as it stands, each with the edit that made it so; nothing where all go as they went. */
export function BrokenRehearsals() {
  const asked = useAsked('rehearsals', { query: { of: 'draft' } }, { keep: true, fresh: true });
  const broken = (asked.value?.tests ?? []).filter((t) => !t.went.holds);
  if (broken.length === 0) return null;
  return (
    <Box
      role="status"
      aria-label="Rehearsals that go otherwise"
      border="1px solid"
      borderColor="brick"
      borderLeftWidth="4px"
      rounded="4px"
      px="12px"
      py="7px"
      mb="14px"
      maxW="760px"
      data-testid="broken-rehearsals"
    >
      {broken.map(({ kept, went }) => (
        <Box key={kept.id}>
          <Link href="/rehearsal" style={{ textDecoration: 'underline' }}>
            {kept.name}
          </Link>{' '}
          goes otherwise
          {went.brokenBy ? (
            <chakra.span>
              {' '}
              since {went.brokenBy.by} {went.brokenBy.name}.
            </chakra.span>
          ) : (
            '.'
          )}
        </Box>
      ))}
    </Box>
  );
}
