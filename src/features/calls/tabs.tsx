'use client';

import { Flex } from '@chakra-ui/react';
import { usePathname } from 'next/navigation';
import { Link } from '@/ui/link';

const PAGES = [
  { href: '/calls', title: 'All calls' },
  { href: '/calls/missed', title: 'To call back' },
  { href: '/calls/charts', title: 'Charts' },
  { href: '/calls/traffic', title: 'Traffic' },
  { href: '/calls/replay', title: 'Replay', right: 'mayAsk' },
  { href: '/calls/import', title: 'Bring in a log', right: 'mayKeep' },
] as const;

/** The ways to look at calls. */
export function Tabs({ about }: { about: { mayAsk: boolean; mayKeep: boolean } }) {
  const path = usePathname();
  return (
    <Flex as="nav" aria-label="Calls" gap="4px" mb="14px" borderBottom="1px solid" borderColor="line" wrap="wrap">
      {PAGES.filter((p) => !('right' in p) || about[p.right]).map((p) => (
        <Flex
          key={p.href}
          asChild
          align="center"
          h="32px"
          px="10px"
          mb="-1px"
          borderBottom="3px solid"
          borderColor={path === p.href ? 'plum' : 'transparent'}
          fontWeight={path === p.href ? 700 : 400}
          color="ink"
          textDecoration="none"
        >
          <Link href={p.href} aria-current={path === p.href ? 'page' : undefined}>
            {p.title}
          </Link>
        </Flex>
      ))}
    </Flex>
  );
}
