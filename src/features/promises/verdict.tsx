'use client';

import { Box } from '@chakra-ui/react';
import type { Answer } from '@/contract';
import { callWords } from '@/core/proof/call-words';
import { useKinds } from '@/ui/kinds';
import { Link } from '@/ui/link';
import { pathOfCall } from '@/workbench/paths';
import { LongWait } from '@/workbench/long-wait';
import { useLong } from '@/workbench/use-long';

export type Verdict = Answer<'promises'>['promises'][number];

/** What became of the promises of the draft, with how far the checking has come. */
export const useVerdicts = () => useLong('promises', { query: { of: 'draft' } });
type Verdicts = ReturnType<typeof useVerdicts>;

/** While all promises are checked: how far that is, and its end. */
export const CheckingAll = ({ verdicts }: { verdicts: Verdicts }) => (
  <LongWait asked={verdicts} doing="Every call is being asked." />
);

/** Whether one promise holds, in a word. */
export function VerdictWord({ id, verdicts: { value, wrong, stopped } }: { id: string; verdicts: Verdicts }) {
  const verdict = value?.promises.find((p) => p.id === id);
  if (!verdict) return <Box color="quiet">{wrong || stopped ? 'not known' : 'being checked'}</Box>;
  return (
    <Box color={verdict.holds ? 'moss' : 'brick'} fontWeight={verdict.holds ? 400 : 700}>
      {verdict.holds ? 'holds' : 'broken'}
    </Box>
  );
}

/** Whether a promise holds, of how many ways of calls; or the call that breaks it. */
export function VerdictPart({ id }: { id: string }) {
  const asked = useVerdicts();
  const { value, wrong, waiting } = asked;
  const verdict = value?.promises.find((p) => p.id === id) ?? null;
  return (
    <Box
      role="status"
      aria-busy={waiting}
      minH="44px"
      border="1px solid"
      borderColor={verdict && !verdict.holds ? 'brick' : 'line'}
      rounded="4px"
      p="10px"
      data-testid="verdict"
    >
      <LongWait asked={asked} doing="Every call is being asked." />
      {verdict ? <Said verdict={verdict} /> : (wrong ?? 'It is being checked over all its calls.')}
    </Box>
  );
}

function Said({ verdict }: { verdict: Verdict }) {
  const { holds, complete, asked, counterexample } = verdict;
  if (holds)
    return (
      <>
        <b>Holds</b> in the draft: {asked} {asked === 1 ? 'way' : 'ways'} of calls were looked at,{' '}
        {complete
          ? 'which stand for all.'
          : 'but some calls can go more ways than are looked at (1,000 each): of those it is not proved.'}
      </>
    );
  return (
    <>
      <b>Broken</b> in the draft. {counterexample ? <CallThatBreaks example={counterexample} /> : null}
      <BrokenBy verdict={verdict} />
    </>
  );
}

/** Which edits broke it, or since which revision it is broken. */
export function BrokenBy({ verdict: { brokenBy, sinceRevision } }: { verdict: Verdict }) {
  const { pathOf } = useKinds();
  if (sinceRevision !== null)
    return (
      <Box color="quiet">
        It is broken in what is live, too, since{' '}
        <Link href={`/revisions/${sinceRevision}`} style={{ textDecoration: 'underline' }}>
          revision {sinceRevision}
        </Link>
        .
      </Box>
    );
  if (brokenBy.length === 0) return null;
  return (
    <Box data-testid="broken-by">
      {brokenBy.length === 1 ? 'The edit behind it: ' : 'The edits behind it: '}
      {brokenBy.slice(0, 6).map((e, i) => (
        <span key={e.id}>
          {i > 0 ? ', ' : ''}
          <Link href={pathOf(e.kind, e.id) ?? '/go-live'} style={{ textDecoration: 'underline' }}>
            {e.label}
          </Link>{' '}
          (by {e.by})
        </span>
      ))}
      {brokenBy.length > 6 ? ` and ${brokenBy.length - 6} more` : ''}. Without it the promise would hold.
    </Box>
  );
}

/** A call that breaks a promise, with the way to look at it. */
export function CallThatBreaks({ example }: { example: NonNullable<Verdict['counterexample']> }) {
  const { call, sentence, phones, numbers } = example;
  const alike = [
    phones > 1 ? `${phones} phones are alike in this` : '',
    numbers > 1 ? `${numbers} numbers are alike in this` : '',
  ].filter(Boolean);
  return (
    <>
      {sentence}{' '}
      <Link href={pathOfCall(call)} style={{ textDecoration: 'underline' }}>
        {callWords(call)}
      </Link>
      {alike.length > 0 ? <Box as="span" color="quiet">{` ${alike.join(', ')}.`}</Box> : null}
    </>
  );
}
