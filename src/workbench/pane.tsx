'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Link } from '@/ui/link';
import type { PaneLine } from '@/core/analysis';
import { endOf } from '@/ui/ends';
import { Glyph } from '@/ui/glyph';
import { Later } from '@/ui/later';
import { PaneSection } from '@/ui/workspace';
import { useKinds } from '@/ui/kinds';
import type { Around } from './form-data';
import { SEVERITY } from './severity';
import { Time } from '@/ui/time';

/** Problems, reached by, leads to, what the draft changes, doubts: computed in the draft for the open object. */
export function ConsequencesPane({ around }: { around: Promise<Around> }) {
  return <Later of={around}>{(known) => <Known around={known} />}</Later>;
}

function Known({ around }: { around: Around }) {
  const { reachedBy, leadsTo, changes, compared, doubts, problems } = around;
  return (
    <>
      {problems.length > 0 ? (
        <PaneSection title="Problems here">
          {problems.map((p, i) => (
            <Box key={i} mb="6px" data-testid="problem-here">
              <chakra.b color={SEVERITY[p.severity].colour}>{SEVERITY[p.severity].word}</chakra.b> {p.sentence}{' '}
              <chakra.span color="quiet">{p.mend}</chakra.span>
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
      </PaneSection>
      {leadsTo.length > 0 ? (
        <PaneSection title="Leads to">
          {leadsTo.map((l, i) => (
            <Line key={i} line={l} />
          ))}
        </PaneSection>
      ) : null}
      {compared === 0 ? null : (
        <PaneSection title="This edit changes">
          {changes.length === 0 ? (
            <Quiet>
              {compared === null
                ? 'Not edited: live has it as it stands here.'
                : `No call: ${compared === 1 ? 'the one call' : `each of the ${compared} calls`} tried around it ends where it did. They are a sample.`}
            </Quiet>
          ) : null}
          {changes.slice(0, 6).map((c, i) => (
            <Box key={i} mb="10px">
              <Box color="quiet">
                {c.call}
                {c.at ? (
                  <>
                    , <Time iso={c.at} />
                  </>
                ) : null}
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
                  {c.willBe.lands?.label ?? c.willBe.outcome}{' '}
                  <chakra.span fontWeight={400}>{c.willBe.detail}</chakra.span>
                </chakra.b>
              </Flex>
            </Box>
          ))}
          {changes.length > 6 ? (
            <Quiet>
              and {changes.length - 6} more of {compared} calls tried, a sample
            </Quiet>
          ) : changes.length > 0 ? (
            <Quiet>
              {compared === 1 ? 'One call was' : `${compared} calls were`} tried, a sample of all there are.
            </Quiet>
          ) : null}
        </PaneSection>
      )}
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
