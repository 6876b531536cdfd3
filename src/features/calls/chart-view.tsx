'use client';

import { Box, Grid, chakra } from '@chakra-ui/react';
import { BarController, BarElement, CategoryScale, Chart, LinearScale, Tooltip, type ChartOptions } from 'chart.js';
import { useRouter } from 'next/navigation';
import { useMemo } from 'react';
import { Bar } from 'react-chartjs-2';
import type { CallCounts } from '@/contract/records';
import { useDrawnColour } from '@/ui/drawn-colour';
import { Link } from '@/ui/link';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip);

/** What became of calls, in the colours of ends, each with a pattern of its own for those who don't see colours. */
const SERIES = [
  { key: 'answered', title: 'taken', colour: 'pine', pattern: 'plain' },
  { key: 'missed', title: 'missed', colour: 'brick', pattern: 'slanted' },
  { key: 'other', title: 'all else', colour: 'grey', pattern: 'dotted' },
] as const;
type Pattern = (typeof SERIES)[number]['pattern'];

const TILE = 8;

/** A filled pattern for a canvas. */
function patternOf(colour: string, ground: string, pattern: Pattern): CanvasPattern | string {
  if (pattern === 'plain') return colour;
  const tile = document.createElement('canvas');
  tile.width = tile.height = TILE;
  const draw = tile.getContext('2d')!;
  draw.fillStyle = ground;
  draw.fillRect(0, 0, TILE, TILE);
  draw.strokeStyle = draw.fillStyle = colour;
  if (pattern === 'slanted') {
    draw.lineWidth = 3;
    draw.beginPath();
    for (const from of [-TILE, 0, TILE]) {
      draw.moveTo(from - 1, TILE + 1);
      draw.lineTo(from + TILE + 1, -1);
    }
    draw.stroke();
  } else {
    draw.fillRect(1, 1, 3, 3);
    draw.fillRect(5, 5, 3, 3);
  }
  return draw.createPattern(tile, 'repeat') ?? colour;
}

interface Props {
  title: string;
  counts: CallCounts;
  /** bars that lie, for names; else they stand */
  lying?: boolean;
  /** the calls of a bar; null: they can't be chosen by it */
  hrefOf: (value: string) => string | null;
}

/** A chart of calls and the table beside it; any bar opens its calls. */
export default function ChartView({ title, counts: { bars }, lying = false, hrefOf }: Props) {
  const router = useRouter();
  const [ink, line, raised] = [useDrawnColour('ink'), useDrawnColour('line'), useDrawnColour('raised')];
  const [pine, brick, grey] = [useDrawnColour('pine'), useDrawnColour('brick'), useDrawnColour('grey')];
  const data = useMemo(() => {
    const colours = { pine, brick, grey };
    return {
      labels: bars.map((b) => b.label),
      datasets: SERIES.map((s) => ({
        label: s.title,
        data: bars.map((b) => b[s.key]),
        backgroundColor: patternOf(colours[s.colour], raised, s.pattern),
        borderColor: colours[s.colour],
        borderWidth: 1,
      })),
    };
  }, [bars, pine, brick, grey, raised]);
  const ticks = { color: ink, font: { size: 11 } };
  const value = { stacked: true, beginAtZero: true, grid: { color: line }, ticks: { ...ticks, precision: 0 } };
  const names = { stacked: true, grid: { display: false }, ticks: { ...ticks, autoSkip: !lying } };
  const options: ChartOptions<'bar'> = {
    indexAxis: lying ? 'y' : 'x',
    animation: false,
    maintainAspectRatio: false,
    scales: lying ? { x: value, y: names } : { x: names, y: value },
    interaction: { mode: 'index', axis: lying ? 'y' : 'x', intersect: false },
    onClick: (_, hit) => {
      const bar = hit[0] && bars[hit[0].index];
      const href = bar && hrefOf(bar.value);
      if (href) router.push(href);
    },
    onHover: (e, hit) => {
      (e.native?.target as HTMLElement).style.cursor =
        hit.length > 0 && hrefOf(bars[hit[0]!.index]!.value) ? 'pointer' : '';
    },
  };
  return (
    <Grid templateColumns={{ base: '1fr', xl: '1fr 300px' }} gap="16px">
      <Box h={lying ? `${Math.max(120, 40 + bars.length * 24)}px` : '220px'} minW={0}>
        <Bar
          data={data}
          options={options}
          aria-label={`${title}, as a chart; the same stands in the table`}
          role="img"
        />
      </Box>
      <Box maxH="260px" overflowY="auto" tabIndex={0} aria-label={`${title}, as a table`} role="region">
        <chakra.table
          w="100%"
          fontSize="12px"
          css={{
            '& td, & th': { padding: '2px 6px 2px 0', textAlign: 'right' },
            '& :is(td, th):first-of-type': { textAlign: 'left', fontWeight: 400 },
          }}
        >
          <thead>
            <chakra.tr color="quiet">
              <th>{title}</th>
              {SERIES.map((s) => (
                <th key={s.key}>{s.title}</th>
              ))}
            </chakra.tr>
          </thead>
          <tbody>
            {bars
              .filter((b) => b.answered + b.missed + b.other > 0)
              .map((b) => {
                const href = hrefOf(b.value);
                return (
                  <chakra.tr key={`${b.value} ${b.label}`} borderTop="1px solid" borderColor="line">
                    <th scope="row">{href ? <Link href={href}>{b.label}</Link> : b.label}</th>
                    {SERIES.map((s) => (
                      <td key={s.key}>{b[s.key].toLocaleString('en')}</td>
                    ))}
                  </chakra.tr>
                );
              })}
          </tbody>
        </chakra.table>
      </Box>
    </Grid>
  );
}
