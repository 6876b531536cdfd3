'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import type { CallQueueFigures } from '@/contract/call-load';
import { lawBelow } from '@/core/load/fit';

const WIDTH = 420;
const HEIGHT = 90;

/** How long calls were handled, as bars, with the law that the simulation takes drawn over them; and the patience, with where it is from. */
export function HandlingFit({ figures, patienceTyped }: { figures: CallQueueFigures | null; patienceTyped: boolean }) {
  if (!figures || figures.calls === 0) return null;
  const { handling, handlingBars, patience } = figures;
  const { width, counts } = handlingBars;
  const step = WIDTH / counts.length;
  const expected = handling
    ? counts.map((_, i) => handling.count * (lawBelow(handling, (i + 1) * width) - lawBelow(handling, i * width)))
    : [];
  const most = Math.max(...counts, ...expected, 1);
  const y = (n: number) => HEIGHT - (n / most) * (HEIGHT - 6);
  return (
    <Flex gap="20px" wrap="wrap" align="center" fontSize="13px" data-testid="handling-fit">
      {handling ? (
        <chakra.svg
          viewBox={`0 0 ${WIDTH} ${HEIGHT + 16}`}
          w="420px"
          maxW="100%"
          h="auto"
          role="img"
          aria-label={`Handling times of ${handling.count} calls and the ${handling.law} law with their mean and spread`}
          fontSize="11px"
        >
          {counts.map((n, i) => (
            <chakra.rect
              key={i}
              x={i * step + 1}
              width={step - 2}
              y={y(n)}
              height={HEIGHT - y(n)}
              color="pine"
              fill="currentColor"
              opacity={0.55}
            />
          ))}
          <chakra.polyline
            points={expected.map((n, i) => `${(i + 0.5) * step},${y(n)}`).join(' ')}
            fill="none"
            color="plum"
            stroke="currentColor"
            strokeWidth="2"
          />
          <chakra.text x={0} y={HEIGHT + 13} color="quiet" fill="currentColor">
            0 s
          </chakra.text>
          <chakra.text x={WIDTH} y={HEIGHT + 13} textAnchor="end" color="quiet" fill="currentColor">
            {counts.length * width} s and more
          </chakra.text>
        </chakra.svg>
      ) : null}
      <Box flex="1 1 220px" minW="200px">
        {handling ? (
          <Box>
            {handling.count.toLocaleString('en')} calls were handled in {Math.round(handling.mean)} s on average. The
            line is the {handling.law} law with that mean and spread; it strays {(handling.distance * 100).toFixed(1)} %
            at most from what was measured.
          </Box>
        ) : (
          <Box color="quiet">Too few calls were answered to say how long they take: type it.</Box>
        )}
        <Box mt="6px">
          {patience
            ? `${patience.gaveUp} of ${figures.calls.toLocaleString('en')} callers gave up; from that and all waiting, patience is ${Math.round(patience.mean)} s on average.`
            : 'Nobody gave up: callers are taken to wait as long as it takes.'}
          {patienceTyped ? ' What is typed is taken instead.' : ''}
        </Box>
      </Box>
    </Flex>
  );
}
