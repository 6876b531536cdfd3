'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Suspense, lazy } from 'react';
import { Link } from '@/ui/link';
import type { PaneLine } from '@/core/analysis';
import { callersWords } from '@/core/proof/call-words';
import { endOf } from '@/ui/ends';
import { Glyph } from '@/ui/glyph';
import { Later } from '@/ui/later';
import { PaneSection } from '@/ui/workspace';
import { useKinds } from '@/ui/kinds';
import type { Around } from './form-data';
import { SEVERITY } from './severity';
import { sayShare } from './call-groups';
import { pathOfCall } from './paths';
import { useAsked } from './use-asked';

/** What can be done about problems comes after the page: most objects have none. */
const ProblemActs = lazy(() => import('./problem-acts').then((m) => ({ default: m.ProblemActs })));

/** Problems, reached by, leads to, what the draft changes, doubts: computed in the draft for the open object. */
export function ConsequencesPane({ around, mayEdit }: { around: Promise<Around>; mayEdit: boolean }) {
  return <Later of={around}>{(known) => <Known around={known} mayEdit={mayEdit} />}</Later>;
}

/** Promises that would hold without the edit of an object. */
function PromisesBroken({ id }: { id: string }) {
  const { value } = useAsked('promises', { query: { of: 'draft' } }, { keep: true });
  const broken = (value?.promises ?? []).filter((p) => p.brokenBy.some((e) => e.id === id));
  return broken.map((p) => (
    <Box key={p.id} color="brick" mt="6px" data-testid="promise-broken-here">
      Breaks{p.firm ? ' the firm promise' : ' the promise'}{' '}
      <Link href={`/promises/${p.id}`} style={{ textDecoration: 'underline' }}>
        {p.name}
      </Link>
    </Box>
  ));
}

function Known({ around, mayEdit }: { around: Around; mayEdit: boolean }) {
  const { reachedBy, leadsTo, changes, asked, doubts, problems } = around;
  return (
    <>
      {problems.length > 0 ? (
        <PaneSection title="Problems here">
          {problems.map((p, i) => (
            <Box key={i} mb="6px" data-testid="problem-here">
              <chakra.b color={SEVERITY[p.severity].colour}>{SEVERITY[p.severity].word}</chakra.b> {p.sentence}{' '}
              <chakra.span color="quiet">{p.mend}</chakra.span>
              {mayEdit ? (
                <Suspense fallback={null}>
                  <ProblemActs problem={p} />
                </Suspense>
              ) : null}
            </Box>
          ))}
        </PaneSection>
      ) : null}
      <PaneSection title="Reached by">
        {reachedBy.length === 0 ? (
          <Quiet>Nothing refers to it.</Quiet>
        ) : (
          reachedBy.map((l, i) => <Line key={i} line={l} />)
        )}
        {around.isPlace ? (
          <Box mt="6px">
            <Link href={`/reach?to=${encodeURIComponent(around.of)}`} style={{ textDecoration: 'underline' }}>
              Who can end up here?
            </Link>
          </Box>
        ) : null}
      </PaneSection>
      {leadsTo.length > 0 ? (
        <PaneSection title="Leads to">
          {leadsTo.map((l, i) => (
            <Line key={i} line={l} />
          ))}
        </PaneSection>
      ) : null}
      <PaneSection title="This edit changes">
        <Changed changes={changes} asked={asked} />
        {asked === 'not edited' ? null : <PromisesBroken id={around.of} />}
      </PaneSection>
      {doubts.length > 0 ? (
        <PaneSection title="Doubts here">
          {doubts.map((d, i) => (
            <Box key={i} color="saffronText" mb="6px">
              {d}
            </Box>
          ))}
        </PaneSection>
      ) : null}
    </>
  );
}

/** Groups of calls that are told one by one; of more, how many there are. */
const MOST_TOLD = 6;

/** Every call that the edit of the object changes, in groups, each with one that opens as a trace. */
function Changed({ changes, asked }: Pick<Around, 'changes' | 'asked'>) {
  if (asked === 'not edited') return <Quiet>Not edited: live has it as it stands here.</Quiet>;
  if (asked === 'too many')
    return (
      <Quiet>
        It may concern every call of a large plan.{' '}
        <Link href="/impact" style={{ textDecoration: 'underline' }}>
          Read the impact
        </Link>
      </Quiet>
    );
  if (changes.length === 0) return <Quiet>Nothing for anyone: every call there can be ends as it did.</Quiet>;
  return (
    <>
      {changes.slice(0, MOST_TOLD).map((c, i) => (
        <Box key={i} mb="10px" data-testid="changed-calls">
          <Box color="quiet">
            {callersWords(c)}, {sayShare(c.share)}, such as{' '}
            <Link href={pathOfCall(c.asked, { of: 'draft', beside: 'live' })} style={{ textDecoration: 'underline' }}>
              {c.call}
            </Link>
          </Box>
          <Flex gap="6px" align="center" mt="2px">
            <Glyph kind={endOf(c.was)} />
            <chakra.span textDecoration="line-through" color="quiet" minW={0} overflowWrap="anywhere">
              {c.was.lands?.label ?? c.was.outcome} {c.was.detail}
            </chakra.span>
          </Flex>
          <Flex gap="6px" align="center">
            <Glyph kind={endOf(c.willBe)} />
            <chakra.b minW={0} overflowWrap="anywhere">
              {c.willBe.lands?.label ?? c.willBe.outcome} <chakra.span fontWeight={400}>{c.willBe.detail}</chakra.span>
            </chakra.b>
          </Flex>
          {c.aspects.includes('end') ? null : <Box color="quiet">differs in: {c.aspects.join(', ')}</Box>}
        </Box>
      ))}
      {changes.length > MOST_TOLD ? <Quiet>and {changes.length - MOST_TOLD} more groups of calls.</Quiet> : null}
    </>
  );
}

function Line({ line }: { line: PaneLine }) {
  const { pathOf } = useKinds();
  const href = line.object ? pathOf(line.object.kind, line.object.id) : null;
  return (
    <Flex gap="8px" align="flex-start" mb="5px">
      <Box pt="2px">
        <Glyph kind={line.kind} />
      </Box>
      <Box minW={0} overflowWrap="anywhere">
        {href ? (
          <Link href={href}>
            <chakra.span color="ink" textDecoration="underline" textDecorationColor="var(--chakra-colors-line)">
              {line.label}
            </chakra.span>
          </Link>
        ) : (
          line.label
        )}
        {line.detail ? <chakra.span color="quiet"> {line.detail}</chakra.span> : null}
      </Box>
    </Flex>
  );
}

function Quiet({ children }: { children: React.ReactNode }) {
  return <Box color="quiet">{children}</Box>;
}
