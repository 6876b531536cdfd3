'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useMemo } from 'react';
import type { Answer, Input } from '@/contract';
import { Act, Wrong } from '@/ui/controls';
import { useKinds } from '@/ui/kinds';
import { Link } from '@/ui/link';
import { call } from '@/workbench/api';
import { ProblemActs } from '@/workbench/problem-acts';
import { SEVERITY } from '@/workbench/severity';
import { useGrown } from '@/workbench/use-grown';

type Kind = Answer<'problems'>['types'][number];
type Problem = Kind['first'];

type Query = Input<'problems'>['query'];

/** Problems of one type fetched with each further press. */
const AT_ONCE = 100;
/** So many of one type stand each for itself. */
const FEW = 2;

/** What is wrong or doubtful, the gravest first; what is seen on many objects is one row that unfolds. */
export function Problems({
  found,
  muted = false,
  mayEdit,
}: {
  found: Answer<'problems'>;
  muted?: boolean;
  mayEdit: boolean;
}) {
  if (found.types.length === 0) return <Box color="quiet">Nothing doubtful was found.</Box>;
  return found.types.map((t) => {
    const brought = found.problems.filter((p) => p.type === t.type && p.severity === t.severity);
    return t.count <= FEW && brought.length === t.count ? (
      brought.map((p, i) => <Row key={`${t.type} ${i}`} problem={p} mayEdit={mayEdit} />)
    ) : (
      <Group key={`${t.severity} ${t.type}`} of={t} muted={muted} mayEdit={mayEdit} />
    );
  });
}

function Row({ problem: p, mayEdit, aside }: { problem: Problem; mayEdit: boolean; aside?: React.ReactNode }) {
  const { pathOf } = useKinds();
  return (
    <Flex data-testid="problem" gap="12px" borderTop="1px solid" borderColor="line" py="6px" align="baseline">
      <Box w="44px" fontSize="12px" color={SEVERITY[p.severity].colour} fontWeight={700}>
        {SEVERITY[p.severity].word}
      </Box>
      <Box flex="1" minW={0}>
        {p.sentence} <chakra.span color="quiet">{p.mend}</chakra.span>
        {mayEdit ? <ProblemActs problem={p} /> : null}
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
function Group({ of: t, muted, mayEdit }: { of: Kind; muted: boolean; mayEdit: boolean }) {
  // The first comes with the page, but not as the first page of the list: that is fetched when it is asked for.
  const none = useMemo(() => ({ of: t, problems: [] as Problem[] }), [t]);
  const { pages, more, busy, wrong } = useGrown(
    'problems',
    none,
    (page, all) => {
      const fetched = all.reduce((n, p) => n + p.problems.length, 0);
      return page !== none && page.problems.length === 0 ? null : fetched < t.count ? String(fetched) : null;
    },
    async (from) => {
      const got = await call('problems', {
        query: { type: t.type, severity: t.severity, muted: String(muted), from: Number(from), most: AT_ONCE } as Query,
      });
      return got.ok ? { ok: true, value: { of: t, problems: got.value.problems } } : got;
    },
  );
  const shown = pages.flatMap((p) => p.problems).filter((p) => p.severity === t.severity);
  const left = t.count - Math.max(1, shown.length);
  return (
    <>
      <Row
        problem={shown[0] ?? t.first}
        mayEdit={mayEdit}
        aside={
          <Box fontSize="13px">
            {shown.length === 0 ? (
              <Act
                look="text"
                h="20px"
                ml="-5px"
                disabled={busy}
                onClick={() => more?.()}
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
          <Row problem={p} mayEdit={mayEdit} />
        </Box>
      ))}
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      {shown.length > 0 && more && left > 0 ? (
        <Act mt="6px" mb="6px" disabled={busy} onClick={more}>
          {busy ? 'Fetching …' : `Show the next ${Math.min(AT_ONCE, left)}`}
        </Act>
      ) : null}
    </>
  );
}
