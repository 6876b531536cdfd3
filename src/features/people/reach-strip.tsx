'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { PartTitle } from '@/ui/controls';
import { Glyph } from '@/ui/glyph';

export interface Reach {
  name: string;
  steps: { rings: string; outside: boolean; together: boolean; seconds: number }[];
  end: string | null;
}

/** How a call looks for somebody: who rings, how long, and then what, from left to right. */
export function ReachStrip({
  extension,
  reach,
  mailbox,
}: {
  extension: Record<string, unknown>;
  reach: Reach | null;
  mailbox: string | null;
}) {
  const steps = reach
    ? reach.steps
    : [
        {
          rings: `${String(extension.digits)} rings`,
          outside: false,
          together: false,
          seconds: Number(extension.ringSeconds),
        },
      ];
  const end = reach ? reach.end : mailbox;
  return (
    <Box>
      <PartTitle>{reach ? `Found by “${reach.name}”` : 'A call'}</PartTitle>
      <Flex align="center" wrap="wrap" rowGap="6px">
        {steps.map((s, i) => (
          <Flex key={i} align="center">
            {i > 0 ? <Line text={s.together ? 'together with' : 'then'} /> : null}
            <End kind={s.outside ? 'outside' : 'extension'} text={s.rings} aside={`${s.seconds} s`} />
          </Flex>
        ))}
        <Line text="nobody answers" />
        {end ? (
          <End kind="mailbox" text={end} aside="" />
        ) : (
          <End kind="tone" text="hears that nobody answers" aside="" />
        )}
      </Flex>
    </Box>
  );
}

function Line({ text }: { text: string }) {
  return (
    <Flex direction="column" align="center" mx="6px" minW="70px">
      <chakra.span fontSize="11px" color="quiet" lineHeight="14px">
        {text}
      </chakra.span>
      <Box h="2px" w="100%" bg="ink" />
    </Flex>
  );
}

function End({ kind, text, aside }: { kind: string; text: string; aside: string }) {
  return (
    <Flex gap="7px" align="center" border="1px solid" borderColor="line" rounded="4px" px="9px" h="30px" bg="paper">
      <Glyph kind={kind} />
      {text}
      {aside ? <chakra.span color="quiet">{aside}</chakra.span> : null}
    </Flex>
  );
}
