'use client';

import { useState, type ReactNode } from 'react';
import type { LedgerRow } from '@/contract/plan';
import type { FieldFacts, ObjectKind } from '@/core/plan';
import { Act, Empty } from '@/ui/controls';
import { Ledger } from '@/ui/ledger';
import type { Column } from '@/ui/ledger-state';
import { Workspace } from '@/ui/workspace';
import { AddPanel } from './add-panel';
import type { LimitUse } from './limit-lines';
import type { Option } from './form-data';
import { useKinds } from '@/ui/kinds';

export type { LedgerRow };

export interface LedgerPageData {
  rows: LedgerRow[];
  canEdit: boolean;
  account: string;
  add: {
    facts: FieldFacts[];
    limits: LimitUse[];
    options: Record<string, Option[]>;
    long: readonly string[];
    defaults: Record<string, unknown>;
  };
}

interface Props {
  kind: ObjectKind;
  title: string;
  word: string;
  data: LedgerPageData;
  columns: (Omit<Column<LedgerRow>, 'text' | 'cell'> & { cell?: (row: LedgerRow) => ReactNode })[];
  empty: ReactNode;
  lead?: ReactNode;
  pane?: (row: LedgerRow | null) => ReactNode;
  acts?: ReactNode;
  addHref?: string;
  likeHref?: (row: LedgerRow) => string;
}

/** A ledger of one kind of object with its way to add one. */
export function LedgerPage({ kind, title, word, data, columns, empty, lead, pane, acts, addHref, likeHref }: Props) {
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
      count={String(data.rows.length)}
      lead={lead}
      acts={
        <>
          {acts}
          {addAct}
        </>
      }
      pane={pane?.(row)}
    >
      {adding ? <AddPanel kind={kind} account={data.account} {...data.add} onClose={() => setAdding(false)} /> : null}
      <Ledger
        name={title}
        rows={data.rows}
        columns={columns.map((c) => ({ ...c, text: (r: LedgerRow) => r.cells[c.key] ?? '' }))}
        idOf={(r) => r.id}
        hrefOf={(r) => pathOf(kind, r.id)!}
        markOf={(r) => r.mark}
        onRow={pane ? setRow : undefined}
        addHref={data.canEdit ? addHref : undefined}
        likeHref={data.canEdit ? likeHref : undefined}
        empty={<Empty act={addAct}>{empty}</Empty>}
      />
    </Workspace>
  );
}
