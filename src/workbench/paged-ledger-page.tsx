'use client';

import { Flex } from '@chakra-ui/react';
import { useState, type ReactNode } from 'react';
import type { LedgerPage, LedgerRow } from '@/contract/plan';
import type { LedgerKind } from '@/core/plan';
import type { BulkOptions } from './bulk-panel';
import { Act, Empty } from '@/ui/controls';
import type { Column } from '@/ui/ledger-state';
import { PagedLedger, type Chosen, type Facet } from './paged-ledger';
import { Workspace } from '@/ui/workspace';
import { AddPanel } from './add-panel';
import type { LedgerPageData } from './ledger-page';
import { useKinds } from '@/ui/kinds';

/** What a page with a long ledger is given by the server. */
export interface PagedLedgerData {
  kind: LedgerKind;
  first: LedgerPage;
  pageRows: number;
  facets: Facet[];
  canEdit: boolean;
  mayBulk: boolean;
  account: string;
  add: LedgerPageData['add'];
  bulk: BulkOptions;
}

interface Props {
  title: string;
  word: string;
  data: PagedLedgerData;
  columns: (Omit<Column<LedgerRow>, 'text' | 'cell'> & { cell?: (row: LedgerRow) => ReactNode })[];
  empty: ReactNode;
  lead?: ReactNode;
  pane?: (row: LedgerRow | null) => ReactNode;
  /** at the top, before the button that adds */
  acts?: ReactNode;
  addHref?: string;
  likeHref?: (row: LedgerRow) => string;
  /** acts on the rows that are chosen, and what they open above the ledger */
  chosenActs?: (chosen: Chosen, clear: () => void) => ReactNode;
  above?: ReactNode;
  /** cells that take longer than the rows, by id */
  late?: (ids: string[]) => Promise<Record<string, Record<string, string>> | null>;
}

/** A ledger of any length of one kind of object, with its way to add one and what can be done with many. */
export function PagedLedgerPage(props: Props) {
  const { title, word, data, columns, empty, lead, pane, acts, addHref, likeHref, chosenActs, above, late } = props;
  const { pathOf } = useKinds();
  const [adding, setAdding] = useState(false);
  const [row, setRow] = useState<LedgerRow | null>(null);
  const addAct =
    !data.canEdit || addHref || adding ? null : (
      <Act look="main" onClick={() => setAdding(true)}>
        Add {word}
      </Act>
    );
  return (
    <Workspace
      title={title}
      count={String(data.first.of)}
      lead={lead}
      acts={
        <>
          {acts}
          {addAct}
        </>
      }
      pane={pane?.(row)}
    >
      {adding ? (
        <AddPanel kind={data.kind} account={data.account} {...data.add} onClose={() => setAdding(false)} />
      ) : null}
      {above}
      <PagedLedger
        name={title}
        kind={data.kind}
        late={late}
        first={data.first}
        pageRows={data.pageRows}
        facets={data.facets}
        columns={columns.map((c) => ({ ...c, text: (r: LedgerRow) => r.cells[c.key] ?? '' }))}
        idOf={(r) => r.id}
        hrefOf={(r) => pathOf(data.kind, r.id)!}
        markOf={(r) => r.mark}
        onRow={pane ? setRow : undefined}
        addHref={data.canEdit ? addHref : undefined}
        likeHref={data.canEdit ? likeHref : undefined}
        acts={data.canEdit && data.mayBulk ? chosenActs : undefined}
        empty={
          <Empty
            act={
              <Flex gap="8px">
                {acts}
                {addAct}
              </Flex>
            }
          >
            {empty}
          </Empty>
        }
      />
    </Workspace>
  );
}
