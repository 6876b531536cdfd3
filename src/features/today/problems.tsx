'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { Answer, Input } from '@/contract';
import { Act, Wrong } from '@/ui/controls';
import { useKinds } from '@/ui/kinds';
import { Link } from '@/ui/link';
import { call } from '@/workbench/api';
import { SEVERITY } from '@/workbench/severity';

type Kind = Answer<'problems'>['types'][number];
type Problem = Kind['first'];

/** Problems of one type fetched with each further press. */
const AT_ONCE = 100;
/** So many of one type stand each for itself. */
const FEW = 2;

/** What is wrong or doubtful, the gravest first; what is seen on many objects is one row that unfolds. */
export function Problems({ found }: { found: Answer<'problems'> }) {
  if (found.types.length === 0) return <Box color="quiet">Nothing doubtful was found.</Box>;
  return found.types.map((t) => {
    const brought = found.problems.filter((p) => p.type === t.type && p.severity === t.severity);
    return t.count <= FEW && brought.length === t.count ? (
      brought.map((p, i) => <Row key={`${t.type} ${i}`} problem={p} />)
    ) : (
      <Group key={`${t.severity} ${t.type}`} of={t} />
    );
  });
}

function Row({ problem: p, aside }: { problem: Problem; aside?: React.ReactNode }) {
  const { pathOf } = useKinds();
  return (
    <Flex data-testid="problem" gap="12px" borderTop="1px solid" borderColor="line" py="6px" align="baseline">
      <Box w="44px" fontSize="12px" color={SEVERITY[p.severity].colour} fontWeight={700}>
        {SEVERITY[p.severity].word}
      </Box>
      <Box flex="1" minW={0}>
        {p.sentence} <chakra.span color="quiet">{p.mend}</chakra.span>
        {aside}
      </Box>
      <Box fontSize="13px" flexShrink={0}>
        <Link href={pathOf(p.object.kind, p.object.id) ?? '/'} aria-label={`Open ${p.object.label}`}>
          Open
        </Link>
      </Box>
    </Flex>
  );
}

/** Problems of one type: the first, how many more there are, and those on demand. */
function Group({ of: t }: { of: Kind }) {
  const [shown, setShown] = useState<Problem[]>([]);
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const left = t.count - Math.max(1, shown.length);
  const more = async () => {
    setBusy(true);
    const query = { type: t.type, from: shown.length, most: AT_ONCE } as Input<'problems'>['query'];
    const got = await call('problems', { query });
    setBusy(false);
    setWrong(got.ok ? null : got.errors[0]!.sentence);
    if (got.ok) setShown([...shown, ...got.value.problems.filter((p) => p.severity === t.severity)]);
  };
  return (
    <>
      <Row
        problem={shown[0] ?? t.first}
        aside={
          <Box fontSize="13px">
            {shown.length === 0 ? (
              <Act
                look="text"
                h="20px"
                disabled={busy}
                onClick={() => void more()}
                aria-label={`Show ${left} more like this`}
              >
                {busy ? 'Fetching …' : `and ${left} more like this`}
              </Act>
            ) : null}
          </Box>
        }
      />
      {shown.slice(1).map((p, i) => (
        <Box key={i} pl="18px">
          <Row problem={p} />
        </Box>
      ))}
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      {shown.length > 0 && left > 0 ? (
        <Act mt="6px" mb="6px" disabled={busy} onClick={() => void more()}>
          {busy ? 'Fetching …' : `Show the next ${Math.min(AT_ONCE, left)}`}
        </Act>
      ) : null}
    </>
  );
}
