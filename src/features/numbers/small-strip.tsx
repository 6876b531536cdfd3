'use client';

import { Flex, chakra } from '@chakra-ui/react';
import { LOOK_FACTS } from '@/ui/ends';
import { useKinds } from '@/ui/kinds';

interface Strip {
  minutes: number;
  stretches: [at: number, kind: string, label: string][];
}

/** Where callers of a number end through this week, from Monday to Sunday, as one small bar. */
export function SmallStrip({ text, words }: { text: string; words: string }) {
  const { lookOf } = useKinds();
  const { minutes, stretches } = JSON.parse(text) as Strip;
  return (
    <Flex
      h="14px"
      w="100%"
      rounded="2px"
      overflow="hidden"
      border="1px solid"
      borderColor="line"
      role="img"
      aria-label={words}
      title={words}
    >
      {stretches.map(([at, kind], i) => {
        const { colour, dash } = LOOK_FACTS[lookOf(kind)];
        return (
          <chakra.span
            key={at}
            h="100%"
            bg={colour}
            opacity={dash === '' ? 1 : 0.7}
            style={{ width: `${(((stretches[i + 1]?.[0] ?? minutes) - at) / minutes) * 100}%` }}
          />
        );
      })}
    </Flex>
  );
}
