'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import type { ReplayAnswer } from '@/contract/records';

const HEIGHT = 84;
const WIDTH = 760;

/** The days of a replay: how many calls, and how many of them would end elsewhere. */
export function DayBars({ days, hrefOf }: { days: ReplayAnswer['days']; hrefOf: (day: string) => string }) {
  const router = useRouter();
  const most = Math.max(...days.map((d) => d.calls), 1);
  const step = WIDTH / days.length;
  return (
    <Box border="1px solid" borderColor="line" rounded="4px" bg="raised" p="10px 14px" mb="16px">
      <chakra.svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT + 18}`}
        w="100%"
        h="auto"
        maxH="150px"
        display="block"
        role="img"
        aria-label={`By day: ${days.map((d) => `${d.day} ${d.changed} of ${d.calls}`).join(', ')}`}
        fontSize="12px"
      >
        {days.map((d, i) => {
          const [all, changed] = [(d.calls / most) * HEIGHT, (d.changed / most) * HEIGHT];
          return (
            <chakra.g key={d.day} cursor="pointer" onClick={() => router.push(hrefOf(d.day))}>
              <title>{`${d.day}: ${d.changed} of ${d.calls} end elsewhere`}</title>
              <chakra.rect
                x={i * step + 2}
                width={step - 4}
                y={HEIGHT - all}
                height={all}
                color="line"
                fill="currentColor"
              />
              <chakra.rect
                x={i * step + 2}
                width={step - 4}
                y={HEIGHT - changed}
                height={changed}
                color="saffron"
                fill="currentColor"
              />
            </chakra.g>
          );
        })}
        <chakra.text x={0} y={HEIGHT + 14} color="quiet" fill="currentColor">
          {days[0]!.day}
        </chakra.text>
        <chakra.text x={WIDTH} y={HEIGHT + 14} textAnchor="end" color="quiet" fill="currentColor">
          {days.at(-1)!.day}
        </chakra.text>
      </chakra.svg>
    </Box>
  );
}
