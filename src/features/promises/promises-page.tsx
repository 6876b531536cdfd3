'use client';

import { Box } from '@chakra-ui/react';
import { Link } from '@/ui/link';
import { LedgerPage, type LedgerPageData } from '@/workbench/ledger-page';
import { ReadyMade } from './ready-made';
import { CallThatBreaks, CheckingAll, VerdictWord, useVerdicts, type Verdict } from './verdict';

/** All promises, with what became of each in the draft. */
export function PromisesPage({ data }: { data: LedgerPageData }) {
  const verdicts = useVerdicts();
  return (
    <LedgerPage
      kind="promise"
      title="Promises"
      word="promise"
      data={data}
      lead="What must always be so, checked over every call there can be. A firm one stops going live while it is broken."
      empty="A promise says what must always be so, such as: emergency calls leave at their own site. It is checked over every call there can be, after each edit."
      acts={<CheckingAll verdicts={verdicts} />}
      columns={[
        { key: 'name', title: 'Name', width: 'minmax(180px, 1.1fr)' },
        { key: 'says', title: 'Says', width: 'minmax(220px, 2fr)' },
        { key: 'firm', title: 'Firm', width: '60px' },
        {
          key: 'state',
          title: 'In the draft',
          width: '110px',
          cell: (row) => <VerdictWord id={row.id} verdicts={verdicts} />,
        },
      ]}
      below={
        <>
          <Broken all={verdicts.value?.promises ?? []} />
          {data.canEdit ? <ReadyMade has={data.rows.map((r) => r.cells.name ?? '')} /> : null}
        </>
      }
    />
  );
}

/** Every promise that is broken, with the call that breaks it. */
function Broken({ all }: { all: readonly Verdict[] }) {
  const broken = all.filter((p) => !p.holds);
  if (broken.length === 0) return null;
  return (
    <Box as="section" aria-label="Broken" border="1px solid" borderColor="brick" rounded="4px" p="12px" mt="16px">
      {broken.map((p) => (
        <Box key={p.id} mb="6px">
          <Link href={`/promises/${p.id}`} style={{ textDecoration: 'underline' }}>
            {p.name}
          </Link>
          : {p.counterexample ? <CallThatBreaks example={p.counterexample} /> : 'by a call that is not yours to see.'}
        </Box>
      ))}
    </Box>
  );
}
