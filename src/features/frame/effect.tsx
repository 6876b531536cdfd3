'use client';

import { Box, Flex } from '@chakra-ui/react';
import { Link } from '@/ui/link';
import { useSettled } from '@/ui/settled';
import { useDraftVersion } from '@/workbench/edits';
import { useAsked } from '@/workbench/use-asked';

/** For so long the draft stands still before every call is asked again. */
const STILL_MS = 2500;

/** What the draft does to calls: how many kinds of them change, and which promises it breaks. Asked when the hands rest. */
export function Effect() {
  const version = useDraftVersion();
  const still = useSettled(version, STILL_MS) === version;
  const { value } = useAsked('effect', still ? {} : null);
  const look = { whiteSpace: 'nowrap', textDecoration: 'underline', color: 'inherit' } as const;
  if (!value) return null;
  const { groups, broken } = value;
  const [first] = broken;
  const many =
    groups === null ? 'its impact' : groups === 1 ? '1 kind of calls changes' : `${groups} kinds of calls change`;
  return (
    <Flex display={{ base: 'none', md: 'flex' }} gap="14px" minW={0} overflow="hidden" data-testid="effect">
      {groups === 0 ? (
        <Box whiteSpace="nowrap">no call changes</Box>
      ) : (
        <Link href="/impact" style={look}>
          {many}
        </Link>
      )}
      {first ? (
        <Link
          href={broken.length === 1 ? `/promises/${first.id}` : '/promises'}
          style={{ ...look, fontWeight: 700, overflow: 'hidden', textOverflow: 'ellipsis' }}
        >
          {broken.length === 1 ? `broken promise: ${first.name}` : `${broken.length} promises are broken`}
        </Link>
      ) : null}
    </Flex>
  );
}
