'use client';

import { Box } from '@chakra-ui/react';
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart as ChartJs,
  LineController,
  LineElement,
  LinearScale,
  PointElement,
  Tooltip,
} from 'chart.js';
import { useMemo } from 'react';
import { Chart } from 'react-chartjs-2';
import { useDrawnColour } from '@/ui/drawn-colour';
import { quarterClock } from './quarter-clock';

ChartJs.register(
  BarController,
  BarElement,
  CategoryScale,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
);

/** Calls an hour as bars and agents as steps over them, by quarter hour. What is not worked out yet has no step. */
export default function StaffingChart({
  arrivals,
  needed,
  known,
}: {
  arrivals: readonly number[];
  needed: readonly number[];
  known: readonly number[];
}) {
  const [ink, line, lake, plum] = [
    useDrawnColour('ink'),
    useDrawnColour('line'),
    useDrawnColour('lake'),
    useDrawnColour('plum'),
  ];
  // Only the hours of the day in which calls come, with a quarter on either side.
  const [first, last] = useMemo(() => {
    const used = arrivals.flatMap((a, q) => (a > 0 ? [q] : []));
    return [Math.max(0, (used[0] ?? 0) - 1), Math.min(arrivals.length - 1, (used.at(-1) ?? 95) + 1)];
  }, [arrivals]);
  const data = useMemo(() => {
    const quarters = Array.from({ length: last - first + 1 }, (_, i) => first + i);
    return {
      labels: quarters.map(quarterClock),
      datasets: [
        {
          type: 'line' as const,
          label: 'agents that are enough',
          data: quarters.map((q) => (known.includes(q) || arrivals[q] === 0 ? needed[q]! : null)),
          borderColor: plum,
          backgroundColor: plum,
          borderWidth: 2,
          pointRadius: 0,
          stepped: 'middle' as const,
          yAxisID: 'agents',
        },
        {
          type: 'bar' as const,
          label: 'calls an hour',
          data: quarters.map((q) => arrivals[q]!),
          backgroundColor: `${lake}55`,
          borderColor: lake,
          borderWidth: 1,
          barPercentage: 1,
          categoryPercentage: 0.92,
          yAxisID: 'calls',
        },
      ],
    };
  }, [arrivals, needed, known, first, last, lake, plum]);
  const axis = (text: string, colour: string, grid: boolean, position: 'left' | 'right') => ({
    position,
    beginAtZero: true,
    title: { display: true, text, color: colour },
    grid: { color: line, drawOnChartArea: grid },
    ticks: { color: ink, font: { size: 11 }, precision: 0 },
  });
  return (
    <Box h="220px">
      <Chart
        type="bar"
        data={data as never}
        aria-label="Calls an hour and agents by quarter hour; the table beneath says the same"
        role="img"
        options={{
          animation: false,
          maintainAspectRatio: false,
          interaction: { mode: 'index', intersect: false },
          plugins: { legend: { display: false } },
          scales: {
            x: {
              grid: { display: false },
              ticks: { color: ink, font: { size: 11 }, maxRotation: 0, autoSkipPadding: 14 },
            },
            agents: { ...axis('agents', plum, true, 'left'), suggestedMax: 2 },
            calls: axis('calls an hour', lake, false, 'right'),
          },
        }}
      />
    </Box>
  );
}
