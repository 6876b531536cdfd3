'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Suspense, lazy } from 'react';
import type { Input } from '@/contract';
import type { CallTraffic } from '@/contract/call-load';
import { PartTitle, Wrong } from '@/ui/controls';
import { useWriting } from '@/ui/time';
import { Workspace } from '@/ui/workspace';
import { useAsked } from '@/workbench/use-asked';
import type { AboutCalls } from './about';
import { Filters } from './filters';
import { Tabs } from './tabs';
import { said, useFilter, type Filter } from './use-filter';

const WeekHeat = lazy(() => import('./week-heat'));

const LESS = ['person', 'state', 'way', 'end', 'cause'];
const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
const QUARTERS_A_DAY = 96;

/** How many lines stood at once: by quarter hour and weekday, with the busy hour and the most at one time. */
export function TrafficPage({ about, filter: initial }: { about: AboutCalls; filter: Filter }) {
  const { filter, asked, put } = useFilter(initial);
  const traffic = useAsked('callTraffic', { query: said(asked) as Input<'callTraffic'>['query'] }, { keep: true });
  const trunk = about.trunks.find((t) => t.id === asked.trunk)?.label ?? null;
  return (
    <Workspace
      title={trunk ? `Traffic of ${trunk}` : 'Traffic'}
      lead="One erlang is one line in use for all of an hour. Choose a trunk, site, queue or number to see it alone."
    >
      <Tabs about={about} />
      <Filters filter={filter} put={put} choices={about} less={LESS} />
      {traffic.wrong ? <Wrong>{traffic.wrong}</Wrong> : null}
      <Box aria-busy={traffic.waiting} minH="420px">
        {traffic.value ? <Shown traffic={traffic.value} trunk={trunk} /> : null}
      </Box>
    </Workspace>
  );
}

function Shown({ traffic: t, trunk }: { traffic: CallTraffic; trunk: string | null }) {
  const write = useWriting();
  if (t.calls === 0) return <Box color="quiet">No calls fit what is chosen.</Box>;
  const at = (iso: string) => write(iso, { zone: t.zone, weekday: true });
  return (
    <>
      <Flex gap="28px" wrap="wrap" mb="16px" data-testid="traffic-figures">
        <Figure words="busy hour" value={t.busyHour ? `${t.busyHour.from}` : '—'}>
          {t.busyHour ? `${t.busyHour.erlangs.toFixed(2)} erlangs on the mean day` : ''}
        </Figure>
        <Figure words="busiest hour" value={t.busiest ? `${t.busiest.erlangs.toFixed(2)} E` : '—'}>
          {t.busiest ? `from ${write(`${t.busiest.at}:00Z`, { zone: 'UTC', weekday: true })}` : ''}
        </Figure>
        <Figure words="most at once" value={String(t.peak?.calls ?? 0)}>
          {t.peak ? at(t.peak.at) : ''}
        </Figure>
        <Figure words="found no line" value={t.refused.toLocaleString('en')} bad={t.refused > 0}>
          of {t.calls.toLocaleString('en')} calls
        </Figure>
        <Figure words="in all" value={`${t.erlangHours.toFixed(1)} h`}>
          of lines in use
        </Figure>
      </Flex>
      {trunk && t.channels !== null && t.needed ? (
        <Box mb="16px" data-testid="traffic-sizing">
          In its busy hour {trunk} would lose one call of a hundred with{' '}
          <b>
            {t.needed.channels} {t.needed.channels === 1 ? 'channel' : 'channels'}
          </b>
          ; it has {t.channels}, and loses {percent(t.blocking ?? 0)} (Erlang B).
        </Box>
      ) : null}
      <Box border="1px solid" borderColor="line" rounded="4px" bg="raised" p="14px" mb="16px">
        <PartTitle>The mean week, by quarter hours</PartTitle>
        <Suspense fallback={<Box h="200px" />}>
          <WeekHeat week={t.week} />
        </Suspense>
      </Box>
      <PartTitle>Erlangs by hour and weekday</PartTitle>
      <Box overflowX="auto" tabIndex={0} role="region" aria-label="Erlangs by hour and weekday">
        <chakra.table
          fontSize="12px"
          css={{ '& td, & th': { padding: '1px 14px 1px 0', textAlign: 'right', fontWeight: 400 } }}
        >
          <thead>
            <chakra.tr color="quiet">
              <th>Hour</th>
              {DAYS.map((d) => (
                <th key={d}>{d}</th>
              ))}
            </chakra.tr>
          </thead>
          <tbody>
            {Array.from({ length: 24 }, (_, hour) => (
              <chakra.tr key={hour} borderTop="1px solid" borderColor="line">
                <th scope="row">{String(hour).padStart(2, '0')}:00</th>
                {DAYS.map((d, day) => (
                  <td key={d}>{hourOf(t.week, day, hour)}</td>
                ))}
              </chakra.tr>
            ))}
          </tbody>
        </chakra.table>
      </Box>
    </>
  );
}

/** The mean of the four quarters of an hour; nothing where nothing was. */
function hourOf(week: readonly number[], day: number, hour: number): string {
  const first = day * QUARTERS_A_DAY + hour * 4;
  const mean = week.slice(first, first + 4).reduce((a, b) => a + b, 0) / 4;
  return mean === 0 ? '' : mean.toFixed(2);
}

const percent = (share: number): string =>
  share === 0 || share < 0.00005 ? 'next to none' : `${(share * 100).toFixed(share < 0.01 ? 2 : 1)} %`;

function Figure({
  words,
  value,
  bad,
  children,
}: {
  words: string;
  value: string;
  bad?: boolean;
  children: React.ReactNode;
}) {
  return (
    <Box>
      <Box fontSize="12px" color="quiet">
        {words}
      </Box>
      <Box fontSize="24px" lineHeight="30px" fontWeight={700} color={bad ? 'brick' : 'ink'}>
        {value}
      </Box>
      <Box fontSize="13px" color="quiet">
        {children}
      </Box>
    </Box>
  );
}
