'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Link } from '@/ui/link';
import { useKeptThings, writeKept, type KeptThing } from '@/ui/kept';
import { Act } from '@/ui/controls';
import { Time } from '@/ui/time';

/** What the reader typed in this browser that is in no draft: each leads to where it was typed, or is thrown away. */
export function TypedList({ account }: { account: string }) {
  const things = useKeptThings(account);
  return things.map((t) => <TypedRow key={t.key} thing={t} />);
}

function TypedRow({ thing: t }: { thing: KeptThing }) {
  return (
    <Flex gap="8px" align="baseline" borderTop="1px solid" borderColor="line" py="6px" data-testid="typed-not-in-draft">
      <Box w="8px" h="8px" border="2px solid" borderColor="saffron" rounded="2px" flexShrink={0} />
      <Box minW={0} flex="1" overflowWrap="anywhere">
        <Link href={t.path}>{t.title}</Link>
        {t.fields && t.fields.length > 0 ? <chakra.span color="quiet"> {t.fields.join(', ')}</chakra.span> : null}
        <Box color="quiet" fontSize="12px">
          <Time iso={t.at} />
        </Box>
      </Box>
      <Act h="24px" aria-label={`Throw away what was typed: ${t.title}`} onClick={() => writeKept(t.key, null, null)}>
        Throw away
      </Act>
    </Flex>
  );
}
