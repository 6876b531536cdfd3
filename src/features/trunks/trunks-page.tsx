'use client';

import { ActLink } from '@/ui/controls';
import { LedgerPage, type LedgerPageData } from '@/workbench/ledger-page';
import { ChannelCells } from './channel-cells';

export function TrunksPage({ data }: { data: LedgerPageData }) {
  return (
    <LedgerPage
      kind="trunk"
      title="Trunks"
      word="trunk"
      data={data}
      addHref="/trunks/new"
      acts={
        data.canEdit ? (
          <ActLink look="main" href="/trunks/new">
            Add trunk
          </ActLink>
        ) : null
      }
      empty="A trunk carries calls to a carrier or to another phone system. The carrier’s letter says what to enter."
      columns={[
        { key: 'name', title: 'Name', width: 'minmax(130px, 1.2fr)' },
        { key: 'kind', title: 'Kind', width: 'minmax(110px, 1fr)' },
        { key: 'site', title: 'Site', width: 'minmax(100px, 1fr)' },
        {
          key: 'channels',
          title: 'Channels',
          width: 'minmax(190px, 1.4fr)',
          cell: (r) => (
            <ChannelCells
              channels={Number(r.cells.channels)}
              kept={Number(r.cells.kept)}
              emergency={Number(r.cells.emergency)}
              small
            />
          ),
        },
        { key: 'numbers', title: 'Numbers', width: '66px' },
        { key: 'delivers', title: 'Delivers', width: 'minmax(130px, 1fr)' },
        { key: 'writes', title: 'Wants', width: '80px' },
        { key: 'enabled', title: 'Enabled', width: '60px', optional: true },
      ]}
    />
  );
}
