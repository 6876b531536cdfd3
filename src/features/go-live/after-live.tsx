'use client';

import { Box } from '@chakra-ui/react';
import { Link } from '@/ui/link';
import { useAsked } from '@/workbench/use-asked';

/** What is live now, held once more against the promises and the kept rehearsals. */
export function AfterLive({ revision }: { revision: number }) {
  const options = { fresh: true, also: revision };
  const promises = useAsked('promises', { query: { of: 'live' } }, options);
  const rehearsals = useAsked('rehearsals', { query: { of: 'live' } }, options);
  const kept = promises.value?.promises ?? [];
  const tests = rehearsals.value?.tests ?? [];
  const broken = kept.filter((p) => !p.holds);
  const otherwise = tests.filter((t) => !t.went.holds);
  const waiting = !promises.value || !rehearsals.value;
  const wrong = promises.wrong ?? rehearsals.wrong;
  return (
    <Box
      role="status"
      aria-busy={waiting}
      mb="12px"
      border="1px solid"
      borderColor={broken.length + otherwise.length > 0 ? 'brick' : 'pine'}
      rounded="4px"
      bg="raised"
      p="12px"
      data-testid="went-live"
    >
      <b>Revision {revision} is live.</b>{' '}
      {wrong ??
        (waiting
          ? 'Promises and kept rehearsals are being asked of it once more.'
          : `${heldOf(kept.length, broken.length, 'promise', 'promises', 'hold')} ${heldOf(tests.length, otherwise.length, 'kept rehearsal', 'kept rehearsals', 'go as kept')}`)}
      {broken.map((p) => (
        <Box key={p.id} color="brick">
          Broken:{' '}
          <Link href={`/promises/${p.id}`} style={{ textDecoration: 'underline' }}>
            {p.name}
          </Link>
        </Box>
      ))}
      {otherwise.map(({ kept: test }) => (
        <Box key={test.id} color="brick">
          Goes otherwise:{' '}
          <Link href="/rehearsal" style={{ textDecoration: 'underline' }}>
            {test.name}
          </Link>
        </Box>
      ))}
    </Box>
  );
}

function heldOf(all: number, broken: number, one: string, many: string, does: string): string {
  if (all === 0) return `No ${many} are kept.`;
  if (broken === 0) return all === 1 ? `The one ${one} holds.` : `All ${all} ${many} ${does}.`;
  return `Of ${all} ${all === 1 ? one : many}, ${broken} ${broken === 1 ? 'does' : 'do'} not.`;
}
