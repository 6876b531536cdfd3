'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Link } from '@/ui/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Answer } from '@/contract';
import { Act, Wrong } from '@/ui/controls';
import { useKinds } from '@/ui/kinds';
import { call } from '@/workbench/api';

const SEVERITY = {
  error: { colour: 'brick', word: 'error' },
  doubt: { colour: 'saffronText', word: 'doubt' },
  note: { colour: 'quiet', word: 'note' },
} as const;

/** Problems fetched with each further press. */
const AT_ONCE = 100;

/** What is wrong or doubtful, the gravest first: as many as the page brought, more on demand. */
export function Problems({ first }: { first: Answer<'problems'> }) {
  const { pathOf } = useKinds();
  const router = useRouter();
  const [shown, setShown] = useState(first.problems);
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const left = first.count - shown.length;
  const more = async () => {
    setBusy(true);
    const got = await call('problems', { query: { from: shown.length, most: AT_ONCE } });
    setBusy(false);
    setWrong(got.ok ? null : got.errors[0]!.sentence);
    if (!got.ok) return;
    // Somebody edited meanwhile: the list is another one, and so is its count.
    if (got.value.draftVersion === first.draftVersion) setShown([...shown, ...got.value.problems]);
    else router.refresh();
  };
  if (first.count === 0) return <Box color="quiet">Nothing doubtful was found.</Box>;
  return (
    <>
      {shown.map((p, i) => (
        <Flex
          key={i}
          data-testid="problem"
          gap="12px"
          borderTop="1px solid"
          borderColor="line"
          py="6px"
          align="baseline"
        >
          <Box w="44px" fontSize="12px" color={SEVERITY[p.severity].colour} fontWeight={700}>
            {SEVERITY[p.severity].word}
          </Box>
          <Box flex="1" minW={0}>
            {p.sentence} <chakra.span color="quiet">{p.mend}</chakra.span>
          </Box>
          <Box fontSize="13px" flexShrink={0}>
            <Link href={pathOf(p.object.kind, p.object.id) ?? '/'}>Open</Link>
          </Box>
        </Flex>
      ))}
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      {left > 0 ? (
        <Act mt="8px" disabled={busy} onClick={() => void more()}>
          {busy ? 'Fetching …' : `Show the next ${Math.min(AT_ONCE, left)} of ${first.count}`}
        </Act>
      ) : null}
    </>
  );
}
