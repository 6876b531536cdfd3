'use client';

import { Box, Flex } from '@chakra-ui/react';
import { usePathname } from 'next/navigation';
import { useSettled } from '@/ui/settled';
import { Link } from '@/ui/link';
import { useDraftVersion } from '@/workbench/edits';
import { useAsked } from '@/workbench/use-asked';
import { ActLink } from '@/ui/controls';

export interface RibbonData {
  edits: number;
  /** how many of the edited objects each person touched last, the reader as "you" first */
  by: { name: string; count: number }[];
}

/** There only while draft and live differ. */
export function Ribbon({ data, mayGoLive, mayAsk }: { data: RibbonData; mayGoLive: boolean; mayAsk: boolean }) {
  const path = usePathname();
  if (data.edits === 0) return null;
  const who = data.by.map((b) => `${b.name} ${b.count}`).join(', ');
  return (
    <Flex
      role="status"
      aria-label="Draft"
      data-testid="ribbon"
      h="40px"
      flexShrink={0}
      align="center"
      gap="14px"
      px="16px"
      bg="saffron"
      color="saffronInk"
      fontSize="13px"
    >
      <Box fontWeight={700}>Draft</Box>
      <Box overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
        {data.edits} {data.edits === 1 ? 'edit' : 'edits'}
        {who ? ` (${who})` : ''} not live yet
      </Box>
      {mayAsk ? <Effect /> : null}
      <Flex ml="auto" gap="12px" align="center">
        {path === '/go-live' ? null : (
          <ActLink href="/go-live" bg="saffronInk" borderColor="saffronInk" color="white" fontWeight={700}>
            {mayGoLive ? 'Read and go live…' : 'Read the edits'}
          </ActLink>
        )}
      </Flex>
    </Flex>
  );
}

/** For so long the draft stands still before every call is asked again. */
const STILL_MS = 2500;

/** What the draft does to calls: how many kinds of them change, and which promises it breaks. Asked when the hands rest. */
function Effect() {
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
    <Flex gap="14px" minW={0} overflow="hidden" data-testid="effect">
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
