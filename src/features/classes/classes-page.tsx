'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Link } from '@/ui/link';
import { useState } from 'react';
import { CALL_KIND_WORDS } from '@/core/numbers/kinds';
import type { ClassRight } from '@/core/plan/objects/class';
import { RULED_KINDS } from '@/core/plan/facts/ruled-kinds';
import { Act, Empty } from '@/ui/controls';
import { Workspace } from '@/ui/workspace';
import { AddPanel } from '@/workbench/add-panel';
import type { LedgerPageData } from '@/workbench/ledger-page';

export interface ClassesData extends LedgerPageData {
  classes: { id: string; name: string; rights: Record<string, ClassRight>; users: number; changed: boolean }[];
}

/** All classes beside each other: who may call what. */
export function ClassesPage({ data }: { data: ClassesData }) {
  const [adding, setAdding] = useState(false);
  const act =
    data.canEdit && !adding ? (
      <Act look="main" onClick={() => setAdding(true)}>
        Add class
      </Act>
    ) : null;
  return (
    <Workspace
      title="Classes"
      count={String(data.classes.length)}
      lead="Who may make which kind of call. Emergency calls go out from every phone, whatever its class."
      acts={act}
    >
      {adding ? <AddPanel kind="class" account={data.account} {...data.add} onClose={() => setAdding(false)} /> : null}
      {data.classes.length === 0 ? (
        <Empty act={act}>
          A class says which kinds of call a phone may make. Add one for staff, and one for phones that anybody can pick
          up.
        </Empty>
      ) : (
        <Box overflowX="auto">
          <chakra.table borderCollapse="collapse" fontSize="13px">
            <thead>
              <tr>
                <th />
                {data.classes.map((c) => (
                  <chakra.th
                    key={c.id}
                    px="10px"
                    pb="6px"
                    textAlign="left"
                    fontWeight={700}
                    bg={c.changed ? 'saffronTint' : undefined}
                    borderTop="3px solid"
                    borderColor={c.changed ? 'saffron' : 'transparent'}
                    verticalAlign="bottom"
                  >
                    <Link href={`/classes/${c.id}`}>{c.name}</Link>
                    <Box fontWeight={400} color="quiet" fontSize="12px">
                      {c.users} {c.users === 1 ? 'phone' : 'phones'}
                    </Box>
                  </chakra.th>
                ))}
              </tr>
            </thead>
            <tbody>
              {RULED_KINDS.map((kind) => (
                <chakra.tr key={kind} borderTop="1px solid" borderColor="line">
                  <chakra.th textAlign="left" fontWeight={400} pr="18px" h="32px" whiteSpace="nowrap">
                    {CALL_KIND_WORDS[kind]}
                  </chakra.th>
                  {data.classes.map((c) => (
                    <chakra.td key={c.id} px="10px" bg={c.changed ? 'saffronTint' : undefined}>
                      <RightCell right={c.rights[kind]!} />
                    </chakra.td>
                  ))}
                </chakra.tr>
              ))}
            </tbody>
          </chakra.table>
        </Box>
      )}
    </Workspace>
  );
}

function RightCell({ right }: { right: ClassRight }) {
  if (!right.allow && !right.forward) return <chakra.span color="quiet">no</chakra.span>;
  return (
    <>
      <chakra.span color="pine" fontWeight={700}>
        {right.allow ? 'yes' : ''}
      </chakra.span>
      {right.pin ? ', PIN' : ''}
      {right.forward ? <chakra.span color="iris"> forward</chakra.span> : ''}
    </>
  );
}
