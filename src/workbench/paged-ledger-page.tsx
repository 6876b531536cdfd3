'use client';

import type { ReactNode } from 'react';
import type { LedgerPage } from '@/contract/plan';
import type { LedgerKind } from '@/core/plan';
import type { BulkOptions } from './bulk-fields';
import { LedgerFrame, type Adding, type LedgerProps } from './ledger-frame';
import { PagedLedger, type Chosen, type Facet } from './paged-ledger';

/** What a page with a long ledger is given by the server. */
export interface PagedLedgerData {
  kind: LedgerKind;
  first: LedgerPage;
  pageRows: number;
  facets: Facet[];
  canEdit: boolean;
  mayBulk: boolean;
  account: string;
  add: Adding;
  bulk: BulkOptions;
}

interface Props extends LedgerProps {
  data: PagedLedgerData;
  /** acts on the rows that are chosen, and what they open above the ledger */
  chosenActs?: (chosen: Chosen, clear: () => void) => ReactNode;
  above?: ReactNode;
  /** cells that take longer than the rows, by id */
  late?: (ids: string[]) => Promise<Record<string, Record<string, string>> | null>;
}

/** A ledger of any length of one kind of object, with its way to add one and what can be done with many. */
export function PagedLedgerPage({ data, chosenActs, late, ...props }: Props) {
  return (
    <LedgerFrame {...props} kind={data.kind} data={data} count={data.first.of}>
      {(face) => (
        <PagedLedger
          {...face}
          kind={data.kind}
          late={late}
          first={data.first}
          pageRows={data.pageRows}
          facets={data.facets}
          acts={data.canEdit && data.mayBulk ? chosenActs : undefined}
        />
      )}
    </LedgerFrame>
  );
}
