'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useKinds } from '@/ui/kinds';
import { Link } from '@/ui/link';
import { useState } from 'react';
import { useProblemCount } from './problem-walk';

export type RailCounts = Partial<Record<string, number>>;

interface Place {
  href: string;
  title: string;
  count?: string;
  right?: string;
}

const GROUPS: { title: string; places: Place[] }[] = [
  {
    title: 'Who',
    places: [
      { href: '/people', title: 'People', count: 'person' },
      { href: '/extensions', title: 'Extensions', count: 'extension' },
      { href: '/teams', title: 'Teams', count: 'team' },
      { href: '/reach-plans', title: 'Reach plans', count: 'reachPlan' },
    ],
  },
  {
    title: 'In',
    places: [
      { href: '/numbers', title: 'Numbers', count: 'number' },
      { href: '/inbound', title: 'Inbound', count: 'inboundRoute' },
      { href: '/hours', title: 'Hours', count: 'hours' },
      { href: '/holidays', title: 'Holidays', count: 'holidays' },
      { href: '/time-switches', title: 'Time switches', count: 'timeSwitch' },
      { href: '/attendants', title: 'Attendants', count: 'attendant' },
      { href: '/prompts', title: 'Prompts', count: 'prompt' },
      { href: '/ring-groups', title: 'Ring groups', count: 'ringGroup' },
      { href: '/queues', title: 'Queues', count: 'queue' },
      { href: '/mailboxes', title: 'Mailboxes', count: 'mailbox' },
      { href: '/places', title: 'Other places' },
      { href: '/blocked', title: 'Blocked callers' },
    ],
  },
  {
    title: 'Out',
    places: [
      { href: '/outbound', title: 'Outbound', count: 'rung' },
      { href: '/trunks', title: 'Trunks', count: 'trunk' },
      { href: '/classes', title: 'Classes', count: 'class' },
      { href: '/sites', title: 'Sites', count: 'site' },
    ],
  },
  {
    title: 'Check',
    places: [
      { href: '/trace', title: 'Trace' },
      { href: '/rehearsal', title: 'Rehearsal' },
      { href: '/atlas', title: 'Atlas' },
      { href: '/problems', title: 'Problems', count: 'problem' },
      { href: '/promises', title: 'Promises', count: 'promise' },
      { href: '/reach', title: 'Reach' },
      { href: '/impact', title: 'Impact' },
      { href: '/drills', title: 'Drills' },
      { href: '/calls', title: 'Calls', right: 'seeCalls' },
      { href: '/go-live', title: 'Draft edits', count: 'edits' },
      { href: '/revisions', title: 'Revisions', count: 'revision' },
      { href: '/history', title: 'History' },
    ],
  },
];

const within = (path: string, href: string) => path === href || path.startsWith(`${href}/`);

/** The places, in the order of the work; only the group in use is unfolded. */
export function Rail({
  counts,
  path: address,
  rights,
  typed,
  open,
  onGo,
}: {
  counts: RailCounts;
  path: string;
  rights: readonly string[];
  /** how many things were typed here that are in no draft */
  typed: number;
  open: boolean;
  onGo: () => void;
}) {
  const { pathOf } = useKinds();
  // The sheet of a kind belongs where its objects are; time rules belong to inbound routes.
  const sheet = /^\/import\/(\w+)/.exec(address)?.[1];
  const path = sheet ? (pathOf(sheet, 'sheet') ?? '/inbound') : address;
  const inUse = GROUPS.find((g) => g.places.some((p) => within(path, p.href)))?.title ?? null;
  const [unfolded, setUnfolded] = useState<string | null>(null);
  const problem = useProblemCount();
  const counted = problem === undefined ? counts : { ...counts, problem };
  return (
    <Flex
      as="nav"
      aria-label="Places"
      direction="column"
      w="168px"
      flexShrink={0}
      borderRight="1px solid"
      borderColor="line"
      py="10px"
      overflowY="auto"
      bg="paper"
      display={{ base: open ? 'flex' : 'none', md: 'flex' }}
      position={{ base: 'absolute', md: 'static' }}
      top="52px"
      bottom={0}
      zIndex={15}
    >
      <PlaceLink
        place={{ href: '/', title: 'Today' }}
        active={path === '/'}
        counts={counts}
        typed={typed}
        onGo={onGo}
      />
      {GROUPS.map((g) => {
        const shown = g.title === inUse || g.title === unfolded;
        return (
          <Box key={g.title}>
            <chakra.button
              type="button"
              w="100%"
              textAlign="left"
              px="16px"
              h="32px"
              fontSize="11px"
              fontWeight={700}
              letterSpacing="0.1em"
              textTransform="uppercase"
              color={g.title === inUse ? 'ink' : 'quiet'}
              aria-expanded={shown}
              onClick={() => setUnfolded(unfolded === g.title ? null : g.title)}
            >
              {g.title}
            </chakra.button>
            {shown
              ? g.places
                  .filter((p) => !p.right || rights.includes(p.right))
                  .map((p) => (
                    <PlaceLink key={p.href} place={p} active={within(path, p.href)} counts={counted} onGo={onGo} />
                  ))
              : null}
          </Box>
        );
      })}
      <Box mt="auto">
        <PlaceLink
          place={{ href: '/settings', title: 'Settings' }}
          active={within(path, '/settings')}
          counts={counts}
          onGo={onGo}
        />
      </Box>
    </Flex>
  );
}

function PlaceLink({
  place,
  active,
  counts,
  typed = 0,
  onGo,
}: {
  place: Place;
  active: boolean;
  counts: RailCounts;
  typed?: number;
  onGo: () => void;
}) {
  const count = place.count ? counts[place.count] : undefined;
  return (
    <Flex
      asChild
      align="center"
      h="28px"
      px="16px"
      borderLeft="3px solid"
      borderColor={active ? 'plum' : 'transparent'}
      bg={active ? 'plumTint' : undefined}
      fontWeight={active ? 700 : 400}
      color="ink"
      textDecoration="none"
      fontSize="14px"
    >
      <Link href={place.href} aria-current={active ? 'page' : undefined} onClick={onGo}>
        {place.title}
        {typed > 0 ? (
          <Box
            as="span"
            ml="auto"
            border="2px solid"
            borderColor="saffron"
            rounded="3px"
            px="4px"
            fontSize="11px"
            lineHeight="14px"
            data-testid="typed-mark"
            title={`${typed} typed here, not in the draft`}
          >
            <Box as="span" srOnly>
              typed here, not in the draft:{' '}
            </Box>
            {typed}
          </Box>
        ) : null}
        {count !== undefined ? (
          <Box as="span" ml="auto" fontSize="12px" color="quiet" fontWeight={400}>
            {count}
          </Box>
        ) : null}
      </Link>
    </Flex>
  );
}
