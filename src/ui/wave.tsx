'use client';

import { chakra } from '@chakra-ui/react';

const WIDTH = 240;

/** A sound as its highest samples, part by part; what was heard of it (0 to 1) stands out. */
export function Wave({ peaks, heard, height }: { peaks: readonly number[]; heard: number; height: number }) {
  return (
    <svg viewBox={`0 0 ${WIDTH} ${height}`} width="100%" height={height} preserveAspectRatio="none" aria-hidden>
      {peaks.map((p, i) => {
        const h = Math.max(1, p * (height - 2));
        return (
          <chakra.rect
            key={i}
            x={(i * WIDTH) / peaks.length}
            y={(height - h) / 2}
            width={(0.6 * WIDTH) / peaks.length}
            height={h}
            fill={i / peaks.length < heard ? 'plum' : 'fieldLine'}
          />
        );
      })}
    </svg>
  );
}
