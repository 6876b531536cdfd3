'use client';

import type { LedgerRow } from '@/contract/plan';
import type { ObjectKind } from '@/core/plan';
import { isSheetKind, type SheetKind } from '@/core/plan/facts/sheet-kinds';
import { ActLink } from '@/ui/controls';
import { Ledger } from '@/ui/ledger';
import type { BulkOptions } from './bulk-fields';
import { useBulk } from './use-bulk';
import { LedgerFrame, type Adding, type LedgerProps } from './ledger-frame';

export type { LedgerRow };

export interface LedgerPageData {
  rows: LedgerRow[];
  canEdit: boolean;
  mayBulk: boolean;
  account: string;
  add: Adding;
  /** what many of them may be set to at once; null: nothing */
  bulk: BulkOptions | null;
}

type Props = LedgerProps & { kind: ObjectKind; data: LedgerPageData };

/** A ledger of one kind of object with its way to add one. */
export function LedgerPage(props: Props) {
  const { kind, data } = props;
  return isSheetKind(kind) && data.bulk && data.canEdit && data.mayBulk ? (
    <ManyLedger {...props} kind={kind} bulk={data.bulk} />
  ) : (
    <LedgerFrame {...props} count={data.rows.length}>
      {(face) => <Ledger {...face} rows={data.rows} />}
    </LedgerFrame>
  );
}

/** The same for a kind of which there can be many: edited together, and as a sheet. */
function ManyLedger({ bulk, ...props }: Props & { kind: SheetKind; bulk: BulkOptions }) {
  const { kind, data, acts } = props;
  const { chosenActs, above } = useBulk(kind, bulk);
  return (
    <LedgerFrame
      {...props}
      count={data.rows.length}
      above={above}
      acts={
        <>
          {acts}
          <ActLink href={`/import/${kind}`}>Import or export</ActLink>
        </>
      }
    >
      {(face) => (
        <Ledger
          {...face}
          rows={data.rows}
          acts={(ids) => chosenActs({ ids, filter: '', facets: {}, count: ids.length })}
        />
      )}
    </LedgerFrame>
  );
}
