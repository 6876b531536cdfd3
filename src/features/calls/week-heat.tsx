'use client';

import { Box } from '@chakra-ui/react';
import { CategoryScale, Chart as ChartJs, LinearScale, Tooltip } from 'chart.js';
import { MatrixController, MatrixElement } from 'chartjs-chart-matrix';
import { useMemo } from 'react';
import { Chart } from 'react-chartjs-2';
import { useDrawnColour } from '@/ui/drawn-colour';

ChartJs.register(MatrixController, MatrixElement, CategoryScale, LinearScale, Tooltip);

const QUARTERS = 96;
const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const two = (n: number) => String(n).padStart(2, '0');
const timeOf = (quarter: number) => `${two(Math.floor(quarter / 4))}:${two((quarter % 4) * 15)}`;

/** The mean week by quarter hours: the more traffic, the darker. */
export default function WeekHeat({ week }: { week: readonly number[] }) {
  const lake = useDrawnColour('lake');
  const ink = useDrawnColour('ink');
  const most = Math.max(...week, Number.EPSILON);
  const data = useMemo(
    () => ({
      datasets: [
        {
          label: 'erlangs',
          data: week.map((v, i) => ({ x: i % QUARTERS, y: Math.floor(i / QUARTERS), v })),
          backgroundColor: week.map((v) => `${lake}${two16(v / most)}`),
          width: ({ chart }: { chart: ChartJs }) => ((chart.chartArea?.width ?? 0) / QUARTERS) * 0.96,
          height: ({ chart }: { chart: ChartJs }) => ((chart.chartArea?.height ?? 0) / DAYS.length) * 0.9,
        },
      ],
    }),
    [week, lake, most],
  );
  return (
    <Box h="200px">
      <Chart
        type="matrix"
        data={data as never}
        role="img"
        aria-label="Traffic of the mean week by quarter hours; the hours stand in the table"
        options={
          {
            animation: false,
            maintainAspectRatio: false,
            plugins: {
              tooltip: {
                callbacks: {
                  title: () => '',
                  label: ({ raw }: { raw: { x: number; y: number; v: number } }) =>
                    `${DAYS[raw.y]} ${timeOf(raw.x)}: ${raw.v.toFixed(2)} erlangs`,
                },
              },
            },
            scales: {
              x: {
                type: 'linear',
                min: -0.5,
                max: QUARTERS - 0.5,
                grid: { display: false },
                afterBuildTicks: (axis: { ticks: { value: number }[] }) => {
                  axis.ticks = Array.from({ length: 13 }, (_, i) => ({ value: i * 8 - (i === 12 ? 0.5 : 0) }));
                },
                ticks: { color: ink, callback: (v: number) => `${two(Math.round(v / 4))}:00` },
              },
              y: {
                type: 'linear',
                reverse: true,
                min: -0.5,
                max: DAYS.length - 0.5,
                grid: { display: false },
                afterBuildTicks: (axis: { ticks: { value: number }[] }) => {
                  axis.ticks = DAYS.map((_, i) => ({ value: i }));
                },
                ticks: { color: ink, callback: (v: number) => DAYS[v] ?? '' },
              },
            },
          } as never
        }
      />
    </Box>
  );
}

/** A share as two figures of a colour's opacity; what is not nothing is seen. */
const two16 = (share: number): string =>
  Math.round(share === 0 ? 8 : 30 + share * 225)
    .toString(16)
    .padStart(2, '0');
