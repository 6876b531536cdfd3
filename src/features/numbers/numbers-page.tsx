'use client';

import { Flex, chakra } from '@chakra-ui/react';
import { Glyph } from '@/ui/glyph';
import type { EndKind } from '@/ui/ends';
import { LedgerPage, type LedgerPageData } from '../objects/ledger-page';

export function NumbersPage({ data }: { data: LedgerPageData }) {
  return (
    <LedgerPage
      kind="number"
      title="Numbers"
      word="number"
      data={data}
      lead="Bought numbers, and where a caller from outside lands in the draft right now."
      empty="Numbers are what a carrier sold you. Add one, say which trunk it comes by, and what it belongs to."
      columns={[
        { key: 'e164', title: 'Number', width: '148px', mono: true },
        { key: 'number', title: 'National', width: '140px', mono: true, optional: true },
        { key: 'state', title: 'State', width: '90px' },
        { key: 'site', title: 'Site', width: 'minmax(100px, 1fr)' },
        { key: 'trunk', title: 'Trunk', width: 'minmax(100px, 1fr)' },
        {
          key: 'lands',
          title: 'Lands now',
          width: 'minmax(170px, 1.8fr)',
          cell: (r) => (
            <Flex as="span" gap="7px" align="center">
              <Glyph kind={r.cells.landsKind as EndKind} />
              <chakra.span
                color={r.cells.landsKind === 'refused' ? 'quiet' : 'ink'}
                overflow="hidden"
                textOverflow="ellipsis"
              >
                {r.cells.lands}
              </chakra.span>
            </Flex>
          ),
        },
        {
          key: 'then',
          title: 'Then',
          width: 'minmax(120px, 1fr)',
          cell: (r) => <chakra.span color="quiet">{r.cells.then}</chakra.span>,
        },
        { key: 'note', title: 'Note', width: 'minmax(120px, 1fr)', optional: true },
      ]}
    />
  );
}
