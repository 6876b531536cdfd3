'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Suspense, lazy } from 'react';
import type { Input } from '@/contract';
import { PartTitle, Wrong } from '@/ui/controls';
import { Workspace } from '@/ui/workspace';
import { useAsked } from '@/workbench/use-asked';
import type { AboutCalls } from './about';
import { Filters } from './filters';
import { Tabs } from './tabs';
import { callsPath, said, useFilter, type Filter } from './use-filter';

/** Drawing comes with the first chart. */
const ChartView = lazy(() => import('./chart-view'));

interface Kind {
  by: string;
  title: string;
  lying?: boolean;
  /** what a bar's value chooses calls by; null: nothing can be chosen by it */
  key: string | null;
}

const CHARTS: Kind[] = [
  { by: 'hour', title: 'By hour of the day', key: 'hour' },
  { by: 'weekday', title: 'By day of the week', key: 'weekday' },
  { by: 'day', title: 'Day by day', key: 'day' },
  { by: 'wait', title: 'Time until somebody took it, or the caller gave up', key: 'wait' },
  { by: 'end', title: 'Where they ended', lying: true, key: 'end' },
  { by: 'number', title: 'By called number', lying: true, key: 'number' },
  { by: 'trunk', title: 'By trunk', lying: true, key: 'trunk' },
  { by: 'queue', title: 'By queue', lying: true, key: 'queue' },
  { by: 'cause', title: 'By cause of the end (Q.850)', lying: true, key: 'cause' },
];

/** How many calls, by time, place, line and cause. */
export function ChartsPage({ about, filter: initial }: { about: AboutCalls; filter: Filter }) {
  const { filter, asked, put } = useFilter(initial);
  return (
    <Workspace
      title="Calls in charts"
      lead={`${asked.from || asked.to ? 'The days chosen' : 'The last four weeks'}, by the clock of ${about.zone}. Any bar opens its calls.`}
    >
      <Tabs about={about} />
      <Filters filter={filter} put={put} choices={about} />
      <Legend />
      {CHARTS.map((c) => (
        <OneChart key={c.by} kind={c} filter={asked} />
      ))}
    </Workspace>
  );
}

const LEGEND = [
  { title: 'taken by somebody or something', colour: 'pine', css: { background: 'currentColor' } },
  {
    title: 'missed: nobody took a caller from outside',
    colour: 'brick',
    css: { background: 'repeating-linear-gradient(-45deg, currentColor 0 3px, transparent 3px 6px)' },
  },
  {
    title: 'all else: given up, refused, failed',
    colour: 'grey',
    css: { background: 'radial-gradient(currentColor 40%, transparent 45%) 0 0 / 6px 6px' },
  },
];

const Legend = () => (
  <Flex gap="18px" wrap="wrap" mb="14px" fontSize="13px">
    {LEGEND.map((l) => (
      <Flex key={l.title} gap="8px" align="center">
        <chakra.span
          w="22px"
          h="12px"
          border="1px solid"
          borderColor="currentColor"
          color={l.colour}
          css={l.css}
          aria-hidden
        />
        {l.title}
      </Flex>
    ))}
  </Flex>
);

function OneChart({ kind: { by, title, lying, key }, filter }: { kind: Kind; filter: Filter }) {
  const query = said(filter) as Input<'callCounts'>['query'];
  const counts = useAsked('callCounts', { params: { by }, query } as Input<'callCounts'>, { keep: true });
  const hrefOf = (value: string): string | null => {
    if (key === null || value === '') return null;
    return callsPath(key === 'day' ? { ...filter, from: value, to: value } : { ...filter, [key]: value });
  };
  if (counts.value && counts.value.bars.length === 0) return null;
  return (
    <Box
      as="section"
      border="1px solid"
      borderColor="line"
      rounded="4px"
      bg="raised"
      p="14px"
      mb="14px"
      data-chart={by}
    >
      <PartTitle>{title}</PartTitle>
      {counts.wrong ? <Wrong>{counts.wrong}</Wrong> : null}
      <Box minH={lying ? '120px' : '220px'} aria-busy={counts.waiting}>
        {counts.value ? (
          <Suspense fallback={null}>
            <ChartView title={title} counts={counts.value} lying={lying} hrefOf={hrefOf} />
          </Suspense>
        ) : null}
      </Box>
    </Box>
  );
}
