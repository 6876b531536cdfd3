'use client';

import { Flex } from '@chakra-ui/react';
import { useState, type ReactNode } from 'react';
import type { LedgerRow } from '@/contract/plan';
import type { FieldFacts, ObjectKind } from '@/core/plan';
import { Act, Empty } from '@/ui/controls';
import { useKinds } from '@/ui/kinds';
import type { Column } from '@/ui/ledger-state';
import { Workspace } from '@/ui/workspace';
import { AddPanel } from './add-panel';
import type { Option } from './form-data';
import type { LimitUse } from './limit-lines';

/** What the form that adds one is given by the server. */
export interface Adding {
  facts: FieldFacts[];
  limits: LimitUse[];
  options: Record<string, Option[]>;
  long: readonly string[];
  defaults: Record<string, unknown>;
}

/** What a page chooses of its ledger, long or short. */
export interface LedgerProps {
  title: string;
  word: string;
  columns: (Omit<Column<LedgerRow>, 'text' | 'cell'> & { cell?: (row: LedgerRow) => ReactNode })[];
  empty: ReactNode;
  lead?: ReactNode;
  pane?: (row: LedgerRow | null) => ReactNode;
  /** at the top, before the button that adds */
  acts?: ReactNode;
  /** after the ledger */
  below?: ReactNode;
  addHref?: string;
  likeHref?: (row: LedgerRow) => string;
}

/** What both kinds of ledger take alike. */
export interface LedgerFace {
  name: string;
  columns: Column<LedgerRow>[];
  idOf: (row: LedgerRow) => string;
  hrefOf: (row: LedgerRow) => string;
  markOf: (row: LedgerRow) => LedgerRow['mark'];
  onRow?: (row: LedgerRow | null) => void;
  addHref?: string;
  onAdd?: () => void;
  likeHref?: (row: LedgerRow) => string;
  empty: ReactNode;
}

interface Props extends LedgerProps {
  kind: ObjectKind;
  data: { canEdit: boolean; account: string; add: Adding };
  count: number;
  above?: ReactNode;
  children: (face: LedgerFace) => ReactNode;
}

/** The page around a ledger of one kind of object: its head, its way to add one, what stands beside the row at hand. */
export function LedgerFrame(props: Props) {
  const {
    kind,
    title,
    word,
    data,
    count,
    columns,
    empty,
    lead,
    pane,
    acts,
    addHref,
    likeHref,
    above,
    below,
    children,
  } = props;
  const { pathOf } = useKinds();
  const [adding, setAdding] = useState(false);
  const [row, setRow] = useState<LedgerRow | null>(null);
  const allActs = (
    <>
      {acts}
      {!data.canEdit || addHref || adding ? null : (
        <Act look="main" onClick={() => setAdding(true)}>
          Add {word}
        </Act>
      )}
    </>
  );
  return (
    <Workspace title={title} count={String(count)} lead={lead} acts={allActs} pane={pane?.(row)}>
      {adding ? <AddPanel kind={kind} account={data.account} {...data.add} onClose={() => setAdding(false)} /> : null}
      {above}
      {children({
        name: title,
        columns: columns.map((c) => ({ ...c, text: (r: LedgerRow) => r.cells[c.key] ?? '' })),
        idOf: (r) => r.id,
        hrefOf: (r) => pathOf(kind, r.id)!,
        markOf: (r) => r.mark,
        onRow: pane ? setRow : undefined,
        addHref: data.canEdit ? addHref : undefined,
        onAdd: data.canEdit && !addHref ? () => setAdding(true) : undefined,
        likeHref: data.canEdit ? likeHref : undefined,
        empty: <Empty act={<Flex gap="8px">{allActs}</Flex>}>{empty}</Empty>,
      })}
      {below}
    </Workspace>
  );
}
