'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Glyph } from '@/ui/glyph';

/** What a caller hears who presses nothing: the greeting, the time to choose, so many times, then the end. */
export function SilenceLine({
  greetingSeconds,
  chooseSeconds,
  tries,
  end,
}: {
  greetingSeconds: number;
  chooseSeconds: number;
  tries: number;
  end: { kind: string; label: string };
}) {
  const round = Math.max(0.1, greetingSeconds + chooseSeconds);
  const share = (seconds: number) => `${(100 * seconds) / round}%`;
  const whole = Math.round(round * tries * 10) / 10;
  return (
    <Box
      role="img"
      aria-label={`Greeting ${greetingSeconds} s, ${chooseSeconds} s to choose, ${tries} times; after ${whole} s: ${end.label}`}
    >
      <Flex align="center" gap="8px">
        <Flex flex="1" h="12px" minW={0}>
          <Box w={share(greetingSeconds)} bg="plum" roundedLeft="3px" />
          <Box w={share(chooseSeconds)} bg="plumTint" border="1px solid" borderColor="plum" roundedRight="3px" />
        </Flex>
        <chakra.span fontSize="13px" flexShrink={0}>
          × {tries}
        </chakra.span>
        <Box w="22px" borderTop="2px solid" borderColor="fieldLine" flexShrink={0} />
        <Glyph kind={end.kind} />
      </Flex>
      <Flex fontSize="12px" color="quiet" gap="10px" mt="3px" wrap="wrap">
        <span>greeting {greetingSeconds} s</span>
        <span>choose in {chooseSeconds} s</span>
        <chakra.span ml="auto" color="ink">
          after {whole} s {end.label}
        </chakra.span>
      </Flex>
    </Box>
  );
}
