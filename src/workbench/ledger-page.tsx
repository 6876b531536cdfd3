'use client';

import type { LedgerRow } from '@/contract/plan';
import type { ObjectKind } from '@/core/plan';
import { Ledger } from '@/ui/ledger';
import { LedgerFrame, type Adding, type LedgerProps } from './ledger-frame';

export type { LedgerRow };

export interface LedgerPageData {
  rows: LedgerRow[];
  canEdit: boolean;
  account: string;
  add: Adding;
}

/** A ledger of one kind of object with its way to add one. */
export function LedgerPage(props: LedgerProps & { kind: ObjectKind; data: LedgerPageData }) {
  return (
    <LedgerFrame {...props} count={props.data.rows.length}>
      {(face) => <Ledger {...face} rows={props.data.rows} />}
    </LedgerFrame>
  );
}
