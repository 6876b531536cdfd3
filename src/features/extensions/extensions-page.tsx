'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { ActLink } from '@/ui/controls';
import { PaneSection } from '@/ui/workspace';
import type { LedgerRow } from '@/workbench/ledger-page';
import { PagedLedgerPage, type PagedLedgerData } from '@/workbench/paged-ledger-page';
import { useBulk } from '@/workbench/use-bulk';

export function ExtensionsPage({ data }: { data: PagedLedgerData }) {
  const router = useRouter();
  const many = useBulk('extension', data.bulk);
  return (
    <PagedLedgerPage
      title="Extensions"
      word="extension"
      data={data}
      addHref="/extensions/new"
      likeHref={(r) => `/extensions/new?like=${r.id}`}
      acts={
        data.canEdit ? (
          <ActLink
            look="main"
            href="/extensions/new"
            onClick={(e) => {
              e.preventDefault();
              router.push('/extensions/new');
            }}
          >
            Add extension
          </ActLink>
        ) : null
      }
      {...many}
      empty="An extension is a phone or a person’s number inside: digits to dial, rights, and where calls go when nobody answers."
      columns={[
        { key: 'digits', title: 'Digits', width: '70px', mono: true },
        {
          key: 'name',
          title: 'Name',
          width: 'minmax(150px, 1.6fr)',
          cell: (r) => (
            <>
              {r.cells.name}
              {r.cells.kind !== 'person' ? (
                <chakra.span ml="6px" fontSize="12px" color="quiet">
                  {r.cells.kind}
                </chakra.span>
              ) : null}
            </>
          ),
        },
        { key: 'site', title: 'Site', width: 'minmax(100px, 1fr)' },
        { key: 'number', title: 'Own number', width: '150px', mono: true, optional: true },
        {
          key: 'shows',
          title: 'Shows outside',
          width: '148px',
          cell: (r) => (
            <chakra.span
              color={r.cells.shows!.startsWith('+') ? 'ink' : 'quiet'}
              fontFamily={r.cells.shows!.startsWith('+') ? 'mono' : undefined}
              fontSize="13px"
            >
              {r.cells.shows}
            </chakra.span>
          ),
        },
        { key: 'class', title: 'Class', width: 'minmax(84px, 0.8fr)' },
        {
          key: 'mailbox',
          title: 'Mailbox',
          width: '70px',
          cell: (r) => (r.cells.mailbox ? 'yes' : <chakra.span color="quiet">no</chakra.span>),
        },
        { key: 'rings', title: 'Rings', width: '60px', optional: true },
        { key: 'person', title: 'Person', width: 'minmax(140px, 1fr)', optional: true },
      ]}
      pane={(row) => <RowPane row={row} />}
    />
  );
}

function RowPane({ row }: { row: LedgerRow | null }) {
  if (!row)
    return (
      <PaneSection title="Extensions">
        <Box color="quiet">Point at a row, or move with j and k, to see it here. Enter opens it.</Box>
      </PaneSection>
    );
  const c = row.cells;
  return (
    <>
      <PaneSection title={`${c.digits} ${c.name}`}>
        A {c.kind === 'person' ? 'person’s phone' : `${c.kind} phone`} at <b>{c.site}</b>. Class <b>{c.class}</b>.
      </PaneSection>
      <PaneSection title="Reached by">
        <Box>{c.digits} from any phone</Box>
        {c.number ? (
          <Box fontFamily="mono" fontSize="13px">
            {c.number}
          </Box>
        ) : (
          <Box color="quiet">no number of its own</Box>
        )}
      </PaneSection>
      <PaneSection title="If nobody answers">
        {c.mailbox
          ? `after ${c.rings}, the mailbox of ${c.mailbox}`
          : `after ${c.rings}, the caller hears that nobody answers`}
      </PaneSection>
      <PaneSection title="Shows outside">
        <Box fontFamily={c.shows!.startsWith('+') ? 'mono' : undefined}>{c.shows}</Box>
      </PaneSection>
      {row.mark ? (
        <PaneSection title="Draft">
          {row.mark === 'new' ? 'New: it is not live yet.' : 'Edited: live still has it as it was.'}
        </PaneSection>
      ) : null}
    </>
  );
}
