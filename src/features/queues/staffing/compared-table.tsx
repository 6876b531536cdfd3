'use client';

import { Box, chakra } from '@chakra-ui/react';
import { busiestSlot, type Compared } from '@/core/load/sizing';
import type { Estimate } from '@/core/load/interval';
import { PartTitle } from '@/ui/controls';
import { quarterClock } from './quarter-clock';
import type { Sizing } from './use-sizing';

const percent = (share: number) => `${(share * 100).toFixed(0)} %`;
const seconds = (s: number) => `${s.toFixed(0)} s`;

/** Some agents more and fewer, and every way of offering calls, side by side at the busiest quarter hour, with what the formulas say. */
export function ComparedTable({ sizing }: { sizing: Sizing }) {
  const { compared, formulas, asked } = sizing;
  if (compared.length === 0 && formulas.length === 0) return null;
  const busiest = busiestSlot(asked.arrivals);
  const agentsThere = [...new Set(formulas.map((f) => f.agents))].sort((a, b) => a - b);
  const byAgents = (agents: number) => compared.find((c) => c.agents === agents && c.strategy === asked.strategy);
  const enough = sizing.slots.get(busiest)?.agents ?? null;
  const others = compared.filter((c) => c.strategy !== asked.strategy);
  const own = compared.find((c) => c.strategy === asked.strategy && c.agents === others[0]?.agents);
  return (
    <Box as="section" aria-label="Side by side" mb="18px">
      <PartTitle>
        At the busiest quarter hour, {quarterClock(busiest)}: {asked.arrivals[busiest]!.toFixed(1)} calls an hour
      </PartTitle>
      <Box overflowX="auto" tabIndex={0} role="region" aria-label="More and fewer agents" mb="12px">
        <Table>
          <thead>
            <chakra.tr color="quiet">
              <th>Agents</th>
              <th>Answered within {asked.law.withinSeconds} s</th>
              <th>Mean wait</th>
              <th>Gave up</th>
              <th>In use</th>
              <th>Erlang C says</th>
              <th>Erlang A says</th>
            </chakra.tr>
          </thead>
          <tbody>
            {agentsThere.map((agents) => {
              const one = byAgents(agents);
              const f = formulas.find((x) => x.agents === agents)!;
              return (
                <chakra.tr
                  key={agents}
                  bg={agents === enough ? 'plumTint' : undefined}
                  borderTop="1px solid"
                  borderColor="line"
                >
                  <th scope="row">
                    {agents}
                    {agents === enough ? ' · enough' : ''}
                  </th>
                  <td>
                    {one ? <Interval of={one.result.serviceLevel} target={asked.target.share} write={percent} /> : '…'}
                  </td>
                  <td>{one ? <Interval of={one.result.averageWaitSeconds} write={seconds} /> : '…'}</td>
                  <td>{one ? <Interval of={one.result.abandoned} write={percent} /> : '…'}</td>
                  <td>{one ? percent(one.result.occupancy.mean) : '…'}</td>
                  <td>{percent(f.c.serviceLevel)}</td>
                  <td>{f.a ? percent(f.a.serviceLevel) : '—'}</td>
                </chakra.tr>
              );
            })}
          </tbody>
        </Table>
      </Box>
      <Box fontSize="13px" color="quiet" maxW="760px" mb="14px">
        The line in a bar is the target; after each figure stands its 95 % interval over {asked.law.replications} runs.
        Erlang C takes callers who wait for ever, so it says too little where callers give up; Erlang A lets them give
        up. Both take handling times as exponential and agents who answer at once: the simulation takes them as
        measured, with a longest wait
        {asked.law.longestWaitSeconds === null ? ' of none' : ` of ${asked.law.longestWaitSeconds} s`}, and{' '}
        {asked.law.answerSeconds} s until an agent picks up, which count as waiting.
        {asked.law.levels.map(
          (l) => ` Besides, ${l.agents} of a later level are offered a call after ${l.afterSeconds} s.`,
        )}
      </Box>
      {others.length > 0 ? (
        <>
          <PartTitle>
            Ways to offer calls, with {others[0]!.agents} agents: how much of the time each is in use
          </PartTitle>
          <Box overflowX="auto" tabIndex={0} role="region" aria-label="Ways to offer calls">
            <Table>
              <tbody>
                {[...(own ? [own] : []), ...others].map((c) => (
                  <Strategy key={c.strategy} compared={c} isOwn={c === own} />
                ))}
              </tbody>
            </Table>
          </Box>
        </>
      ) : null}
    </Box>
  );
}

const Table = chakra('table', {
  base: {
    fontSize: '13px',
    '& td, & th': { padding: '3px 18px 3px 0', textAlign: 'left', fontWeight: 400, whiteSpace: 'nowrap' },
  },
});

/** A mean with its interval; with a target drawn as a line on a scale from 0 to 1. */
function Interval({ of, target, write }: { of: Estimate; target?: number; write: (n: number) => string }) {
  const share = (n: number) => `${Math.max(0, Math.min(1, n)) * 100}%`;
  return (
    <chakra.span display="inline-flex" gap="8px" alignItems="center">
      {target === undefined ? null : (
        <chakra.span position="relative" w="90px" h="12px" bg="line" rounded="2px" aria-hidden>
          <chakra.span
            position="absolute"
            top="3px"
            h="6px"
            minW="3px"
            bg="pine"
            style={{ left: share(of.low), width: `calc(${share(of.high)} - ${share(of.low)})` }}
          />
          <chakra.span position="absolute" top="0" h="12px" w="2px" bg="plum" style={{ left: share(target) }} />
        </chakra.span>
      )}
      <b>{write(of.mean)}</b>
      <chakra.span color="quiet">
        {write(Math.max(0, of.low))}–{write(of.high)}
      </chakra.span>
    </chakra.span>
  );
}

/** The use of each agent under one way to offer calls, in their order. */
function Strategy({ compared: { strategy, result }, isOwn }: { compared: Compared; isOwn: boolean }) {
  return (
    <chakra.tr borderTop="1px solid" borderColor="line" bg={isOwn ? 'plumTint' : undefined}>
      <th scope="row">
        {strategy}
        {isOwn ? ' · this queue’s' : ''}
      </th>
      <td>
        <chakra.span
          display="inline-flex"
          gap="2px"
          alignItems="flex-end"
          h="26px"
          role="img"
          aria-label={`In use: ${result.agents.map(percent).join(', ')}`}
        >
          {result.agents.slice(0, 60).map((use, i) => (
            <chakra.span key={i} w="10px" bg="pine" style={{ height: `${Math.max(1, use * 26)}px` }} />
          ))}
        </chakra.span>
      </td>
      <td>
        {percent(Math.min(...result.agents))} to {percent(Math.max(...result.agents))}
      </td>
      <td>answered in time {percent(result.serviceLevel.mean)}</td>
      <td>mean wait {seconds(result.averageWaitSeconds.mean)}</td>
    </chakra.tr>
  );
}
