'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { TextBox } from '@/ui/controls';

interface Watched {
  person: string;
  name: string;
  digits: string;
  state: string | null;
}

/** Colleagues whom one may watch, and how they are: those who said so first. */
export function ColleaguesPart({ watched }: { watched: readonly Watched[] }) {
  const [text, setText] = useState('');
  const wanted = text.trim().toLowerCase();
  const found = watched
    .filter((w) => wanted === '' || w.name.toLowerCase().includes(wanted) || w.digits.startsWith(wanted))
    .sort((a, b) => Number(b.state !== null) - Number(a.state !== null) || a.name.localeCompare(b.name))
    .slice(0, 24);
  return (
    <Box>
      <TextBox
        aria-label="Find a colleague"
        placeholder="name or extension"
        maxW="260px"
        mb="8px"
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <Flex gap="6px 18px" wrap="wrap" fontSize="13px">
        {found.map((w) => (
          <Box key={`${w.person} ${w.digits}`} minW="200px">
            <chakra.span fontFamily="mono">{w.digits}</chakra.span> {w.name}
            {w.state ? <chakra.span color="ochre">, {w.state}</chakra.span> : null}
          </Box>
        ))}
      </Flex>
    </Box>
  );
}
