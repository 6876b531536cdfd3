'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Check } from 'lucide-react';
import type { Work, WorkStep } from '@/core/analysis/order-of-work';
import { ActLink, PartTitle } from '@/ui/controls';
import { Digits } from '@/ui/digits';
import { Glyph } from '@/ui/glyph';
import { Link } from '@/ui/link';
import { tracePath } from '@/workbench/paths';

/** What each step is called, where it is done, and what the link that leads there says. */
const STEPS: Record<WorkStep, { title: string; href: string; act: string; again: string }> = {
  site: { title: 'Site', href: '/sites/new', act: 'Add a site', again: 'Another site' },
  numbers: { title: 'Numbers', href: '/numbers/add', act: 'Add numbers', again: 'More numbers' },
  people: { title: 'People', href: '/people/import', act: 'Import people', again: 'More people' },
  trunk: { title: 'Trunk', href: '/trunks/new', act: 'Add the trunk', again: 'Another trunk' },
  inbound: { title: 'Where calls come in', href: '/inbound', act: 'Lead the main number', again: 'Inbound' },
  outbound: { title: 'What may go out', href: '/outbound', act: 'Add rules', again: 'Outbound' },
  hours: { title: 'Hours', href: '/hours', act: 'Add hours', again: 'Hours' },
  answer: { title: 'Who answers', href: '/mailboxes', act: 'Mailboxes', again: 'Mailboxes' },
  check: { title: 'Check', href: '#problems', act: 'See what is wrong', again: 'Problems' },
  live: { title: 'Go live', href: '/go-live', act: 'Read and go live', again: 'Go live' },
};

/** Where each step of building a system stands; the first that is not done leads. */
export function OrderOfWork({ steps, canEdit }: { steps: Work[]; canEdit: boolean }) {
  const next = steps.find((s) => !s.done && !s.optional);
  return (
    <Box as="section" aria-label="The order of work" mb="26px" data-testid="order-of-work">
      <PartTitle>From nothing to a first call</PartTitle>
      {steps.map((s, i) => {
        const { title, href: usual, act, again } = STEPS[s.step];
        const href = s.number && !s.done ? `/numbers/${s.number}` : usual;
        const leads = s === next;
        return (
          <Flex
            key={s.step}
            data-testid="work-step"
            data-step={s.step}
            data-done={s.done}
            columnGap="12px"
            rowGap="2px"
            wrap={{ base: 'wrap', md: 'nowrap' }}
            align="center"
            borderTop="1px solid"
            borderColor="line"
            py="5px"
            minH="42px"
            bg={leads ? 'plumTint' : undefined}
          >
            <Flex
              w="24px"
              h="24px"
              ml="6px"
              flexShrink={0}
              align="center"
              justify="center"
              rounded="12px"
              border="1px solid"
              borderColor={s.done ? 'pine' : leads ? 'plum' : 'line'}
              color={s.done ? 'pine' : leads ? 'plum' : 'quiet'}
              fontSize="13px"
            >
              {s.done ? <Check size={14} aria-label="done" /> : i + 1}
            </Flex>
            <Box flex={{ base: '1 1 110px', md: '0 0 150px' }} fontWeight={leads ? 700 : 500}>
              {title}
            </Box>
            <Box
              order={{ base: 1, md: 0 }}
              flex={{ base: '1 1 100%', md: '1' }}
              minW={0}
              pl={{ base: '42px', md: 0 }}
              fontSize="13px"
            >
              <Box color={s.done || leads ? 'ink' : 'quiet'}>{s.there}</Box>
              {s.call ? (
                <Flex gap="6px" align="center" color="quiet" wrap="wrap">
                  <Glyph kind={s.call.routed ? 'extension' : 'refused'} />
                  <Link href={tracePath(s.call.from, s.call.dial)} aria-label={`Trace ${s.call.dial}`}>
                    <Digits>{s.call.dial}</Digits>
                  </Link>
                  <chakra.span minW={0} overflowWrap="anywhere">
                    now {s.call.sentence}
                  </chakra.span>
                </Flex>
              ) : null}
            </Box>
            {canEdit ? (
              <ActLink href={href} look={leads ? 'main' : 'plain'} flexShrink={0} mr="6px">
                {s.done ? again : act}
              </ActLink>
            ) : null}
          </Flex>
        );
      })}
    </Box>
  );
}
