'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { CallLed, OneCall } from '@/contract/records';
import { Act, ActLink, PartTitle } from '@/ui/controls';
import { Link } from '@/ui/link';
import { useWriting } from '@/ui/time';
import { PaneSection, Workspace } from '@/ui/workspace';
import { rehearsalPath, tracePath } from '@/workbench/paths';
import { End, Fact, Step } from '@/workbench/trace-parts';
import type { AboutCalls } from './about';
import { BlockAct } from './block-act';
import { Party, duration } from './party';
import { Timeline } from './timeline';
import { RecordingOf } from './recording';
import { callsPath } from './use-filter';

/** One call: what happened, what the plan of its time says of it, and what the draft would do. */
export function CallPage({ call, about }: { call: OneCall; about: AboutCalls }) {
  const write = useWriting();
  const { row, zone } = call;
  const at = `${write(row.started, { zone })}:${row.started.slice(17, 19)}`;
  return (
    <Workspace
      title={`${row.from.label} called ${row.to.label}`}
      lead={`${at}, ${zone} · over after ${duration(call.endedAt)}`}
      acts={
        <>
          {call.mayBlock ? (
            <BlockAct number={callerOf(call)} shown={row.from.label} reason={`Called ${row.to.label}`} />
          ) : null}
          {call.question ? (
            <>
              <ActLink href={tracePath(call.question.from, call.question.dial, call.question.at)}>Trace it</ActLink>
              <ActLink href={rehearsalPath(call.question.from, call.question.dial, call.question.at)}>
                Rehearse it
              </ActLink>
            </>
          ) : null}
        </>
      }
      pane={<Pane call={call} about={about} />}
    >
      <Timeline call={call} />
      <Compared call={call} />
    </Workspace>
  );
}

/** The caller as the list of blocked callers takes it. */
const callerOf = (call: OneCall): string => call.question?.from.replace(/^outside:/, '') ?? call.calling ?? '';

/** The fact beside the plan of its time and the draft; the steps of one of them beneath. */
function Compared({ call }: { call: OneCall }) {
  const [which, setWhich] = useState<'before' | 'draft'>('before');
  const then = call.revision === null ? 'the oldest revision' : `revision ${call.revision}, live then`;
  const { row } = call;
  const shown = call[which];
  return (
    <>
      <Grid templateColumns={{ base: '1fr', md: 'repeat(3, 1fr)' }} gap="12px" mb="18px" data-testid="call-compared">
        <Column title="What happened">
          {row.end ? (
            <chakra.b>
              <Party party={row.end} link />
            </chakra.b>
          ) : (
            <End outcome={row.outcome} lands={null} />
          )}
          <Box color="quiet" mt="2px">
            {row.answeredBy
              ? `answered by ${row.answeredBy.label} after ${duration(row.waited)}`
              : row.answered
                ? `taken after ${duration(row.waited)}`
                : `not answered, given up after ${duration(row.waited)}`}
          </Box>
        </Column>
        <LedColumn title={`By ${then}`} led={call.before} />
        <LedColumn title="In the draft" led={call.draft} />
      </Grid>
      {call.before.trace || call.draft.trace ? (
        <Box data-testid="call-steps">
          <PartTitle
            aside={
              <Flex role="group" aria-label="Which plan" gap="4px">
                {(['before', 'draft'] as const).map((w) => (
                  <Act
                    key={w}
                    h="26px"
                    aria-pressed={which === w}
                    bg={which === w ? (w === 'draft' ? 'saffron' : 'plumTint') : undefined}
                    color={which === w && w === 'draft' ? 'saffronInk' : undefined}
                    onClick={() => setWhich(w)}
                  >
                    {w === 'before' ? 'then' : 'draft'}
                  </Act>
                ))}
              </Flex>
            }
          >
            Why, step by step
          </PartTitle>
          {shown.trace?.steps.map((s, i) => (
            <Step
              key={`${which} ${i}`}
              step={s}
              everyRule={
                call.question
                  ? `${tracePath(call.question.from, call.question.dial, call.question.at)}&every=rule`
                  : '#'
              }
            />
          ))}
          {shown.refused ? <Box color="quiet">{shown.refused}</Box> : null}
        </Box>
      ) : null}
    </>
  );
}

function Column({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <Box border="1px solid" borderColor="line" rounded="4px" bg="raised" p="12px" fontSize="13px" minW={0}>
      <PartTitle>{title}</PartTitle>
      {children}
    </Box>
  );
}

function LedColumn({ title, led }: { title: string; led: CallLed }) {
  const { trace, difference, refused } = led;
  return (
    <Column title={title}>
      {trace ? <End outcome={trace.outcome} lands={trace.lands} /> : <Box color="quiet">{refused}</Box>}
      {trace ? (
        difference ? (
          <Box mt="6px" borderLeft="3px solid" borderColor="saffron" pl="8px" data-testid="first-difference">
            {difference.what}, at {duration(difference.atSeconds)}: was <b>{difference.was}</b>, by this plan{' '}
            <b>{difference.willBe}</b>.
          </Box>
        ) : (
          <Box color="quiet" mt="2px">
            as it happened
          </Box>
        )
      ) : null}
    </Column>
  );
}

const ENDED_BY: Record<string, string> = { caller: 'the caller', called: 'the called side', exchange: 'the exchange' };

function Pane({ call, about }: { call: OneCall; about: AboutCalls }) {
  const { row } = call;
  const fact = (name: string, value: string | number | null | undefined) =>
    value === null || value === undefined || value === '' ? null : <Fact name={name} value={String(value)} />;
  return (
    <>
      <PaneSection title="The parties">
        <Party party={row.from} link />
        {fact('calling', call.calling ?? (row.way === 'in' ? 'withheld' : null))}
        <Box h="6px" />
        <Party party={row.to} link />
        {fact('came as', call.called)}
        {fact('shown', call.shown)}
        {fact('sent on to', call.transferredTo)}
      </PaneSection>
      <PaneSection title="The line">
        {row.trunk ? <Party party={row.trunk} link /> : 'No trunk.'}
        {fact('channel', call.channel)}
        {fact('codec', call.codec)}
        {fact('cause', row.cause === null ? null : `Q.850 ${row.cause}${call.sip ? `, SIP ${call.sip}` : ''}`)}
        {fact('ended by', call.endedBy && ENDED_BY[call.endedBy])}
        {call.site ? <Party party={call.site} link /> : null}
      </PaneSection>
      {row.queue ? (
        <PaneSection title="The queue">
          <Party party={row.queue} link />
        </PaneSection>
      ) : null}
      {row.way !== 'inside' && about.seesNumbers && !row.erased ? (
        <PaneSection title="Other calls">
          <Link href={callsPath({ number: row.way === 'in' ? row.from.label : row.to.label })}>
            With {row.way === 'in' ? row.from.label : row.to.label}
          </Link>
        </PaneSection>
      ) : null}
      {call.recorded ? (
        <PaneSection title="Recording">
          <RecordingOf call={call} />
        </PaneSection>
      ) : null}
      {row.erased ? (
        <PaneSection title="Erased">
          Who called and who was called was erased. Moments, trunk and end stay, since lines are sized by them.
        </PaneSection>
      ) : null}
    </>
  );
}
