'use client';

import { Box } from '@chakra-ui/react';
import { callersWords, type CallersCount } from '@/core/proof/call-words';
import { Link } from '@/ui/link';
import { PaneSection } from '@/ui/workspace';
import { useAsked } from '@/workbench/use-asked';

/** How many groups of calls going live would change, and which promises it would break. */
export function CallsThatChange() {
  const impact = useAsked('impact', { query: { from: 'live', to: 'draft' } }, { keep: true });
  const promises = useAsked('promises', { query: { of: 'draft' } }, { keep: true });
  const groups = impact.value?.groups ?? [];
  const broken = (promises.value?.promises ?? []).filter((p) => !p.holds);
  return (
    <PaneSection title="Calls that change">
      <Box aria-busy={impact.waiting} data-testid="calls-that-change" minH="40px">
        {impact.wrong ?? (!impact.value ? 'Every call is being asked of both plans.' : saying(groups))}{' '}
        {groups.length > 0 ? (
          <Link href="/impact" style={{ textDecoration: 'underline' }}>
            Read the impact
          </Link>
        ) : null}
      </Box>
      {broken.map((p) => (
        <Box key={p.id} color="brick" mt="6px">
          Breaks{p.firm ? ' the firm promise' : ''}{' '}
          <Link href={`/promises/${p.id}`} style={{ textDecoration: 'underline' }}>
            {p.name}
          </Link>
        </Box>
      ))}
    </PaneSection>
  );
}

function saying(groups: readonly CallersCount[]): string {
  if (groups.length === 0) return 'Nothing changes for anyone: every call there can be was asked of live and draft.';
  const most = (of: keyof CallersCount) => Math.max(...groups.map((g) => g[of]));
  const whom = { phones: most('phones'), numbers: most('numbers'), brought: most('brought') };
  const what = groups.length === 1 ? '1 group of calls changes' : `${groups.length} groups of calls change`;
  return `${what}, of up to ${callersWords(whom, ' and ')}.`;
}
