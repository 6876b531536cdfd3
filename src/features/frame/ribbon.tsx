'use client';

import { Box, Flex } from '@chakra-ui/react';
import { usePathname } from 'next/navigation';
import { Suspense, lazy } from 'react';
import { ActLink } from '@/ui/controls';

/** What the draft does to calls is told a while after the page. */
const Effect = lazy(() => import('./effect').then((m) => ({ default: m.Effect })));

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
      {mayAsk ? (
        <Suspense fallback={null}>
          <Effect />
        </Suspense>
      ) : null}
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
