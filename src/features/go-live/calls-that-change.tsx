'use client';

import { Box } from '@chakra-ui/react';
import { Link } from '@/ui/link';
import { PaneSection } from '@/ui/workspace';
import { useAsked } from '@/workbench/use-asked';

const some = (n: number, one: string, many: string) => (n === 0 ? '' : `${n} ${n === 1 ? one : many}`);

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

function saying(groups: readonly { phones: number; numbers: number }[]): string {
  if (groups.length === 0) return 'Nothing changes for anyone: every call there can be was asked of live and draft.';
  const most = (of: 'phones' | 'numbers') => Math.max(...groups.map((g) => g[of]));
  const whom = [some(most('phones'), 'phone', 'phones'), some(most('numbers'), 'number', 'numbers')].filter(Boolean);
  return `${some(groups.length, 'group of calls changes', 'groups of calls change')}, of up to ${whom.join(' and ')}.`;
}
