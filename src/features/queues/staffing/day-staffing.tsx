'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Suspense, lazy } from 'react';
import { shiftsFor } from '@/core/load/staffing';
import { PartTitle } from '@/ui/controls';
import { QUARTERS_A_DAY } from './asked';
import { quarterClock } from './quarter-clock';
import type { Sizing } from './use-sizing';

const StaffingChart = lazy(() => import('./staffing-chart'));

/** The day by quarter hours: calls that come and agents that are enough, and shifts that bring them. */
export function DayStaffing({ sizing, shiftQuarters }: { sizing: Sizing; shiftQuarters: number }) {
  const { asked, slots } = sizing;
  // Of a day that was stopped half-way no shifts are told.
  const whole = asked.arrivals.every((a, q) => a === 0 || slots.has(q));
  const needed = Array.from({ length: QUARTERS_A_DAY }, (_, q) => slots.get(q)?.agents ?? 0);
  const lacking = [...slots].filter(([, s]) => s.agents === null).map(([q]) => q);
  const shifts = whole ? shiftsFor(needed, shiftQuarters) : [];
  const people = shifts.reduce((sum, s) => sum + s.people, 0);
  const most = Math.max(...needed);
  return (
    <Box as="section" aria-label="The day" mb="18px">
      <PartTitle>
        Agents that are enough: {(asked.target.share * 100).toFixed(0)} % answered within {asked.law.withinSeconds} s
      </PartTitle>
      <Box border="1px solid" borderColor="line" rounded="4px" bg="raised" p="14px" mb="10px" maxW="980px">
        <Suspense fallback={<Box h="220px" />}>
          <StaffingChart arrivals={asked.arrivals} needed={needed} known={[...slots.keys()]} />
        </Suspense>
      </Box>
      {lacking.length > 0 ? (
        <Box color="brick" mb="8px">
          Not even the most that were tried are enough at {lacking.map(quarterClock).join(', ')}.
        </Box>
      ) : null}
      {people > 0 ? (
        <Box mb="10px" data-testid="shifts">
          At most <b>{most}</b> {most === 1 ? 'agent' : 'agents'} at once. Shifts of {shiftQuarters / 4} hours that
          bring them, with as few people as there can be (<b>{people}</b>):
          <Flex gap="6px 14px" wrap="wrap" mt="6px">
            {shifts.map((s) => (
              <chakra.span key={s.slot} border="1px solid" borderColor="line" rounded="4px" px="8px" py="2px">
                {s.people} × {quarterClock(s.slot)} to {quarterClock(Math.min(QUARTERS_A_DAY, s.slot + shiftQuarters))}
              </chakra.span>
            ))}
          </Flex>
        </Box>
      ) : null}
      <chakra.details fontSize="13px">
        <chakra.summary cursor="pointer" color="quiet">
          As a table
        </chakra.summary>
        <chakra.table
          css={{ '& td, & th': { padding: '1px 18px 1px 0', textAlign: 'right', fontWeight: 400 } }}
          mt="6px"
        >
          <thead>
            <chakra.tr color="quiet">
              <th>From</th>
              <th>Calls an hour</th>
              <th>Agents</th>
              <th>Answered in time</th>
            </chakra.tr>
          </thead>
          <tbody>
            {[...slots]
              .sort(([a], [b]) => a - b)
              .map(([q, s]) => (
                <tr key={q}>
                  <th scope="row">{quarterClock(q)}</th>
                  <td>{asked.arrivals[q]!.toFixed(1)}</td>
                  <td>{s.agents ?? 'not enough'}</td>
                  <td>{(s.serviceLevel * 100).toFixed(0)} %</td>
                </tr>
              ))}
          </tbody>
        </chakra.table>
      </chakra.details>
    </Box>
  );
}
