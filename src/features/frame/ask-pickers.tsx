'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { Act, Labelled, TextBox } from '@/ui/controls';
import { tracePath } from '@/workbench/paths';

/** The same question built with three fields, for those who don't type lines. */
export function Pickers({ onAsk, onClose }: { onAsk: (path: string) => void; onClose: () => void }) {
  const [from, setFrom] = useState('');
  const [dial, setDial] = useState('');
  const [when, setWhen] = useState('now');
  return (
    <chakra.form
      position="absolute"
      top="40px"
      left={0}
      right={0}
      bg="raised"
      border="1px solid"
      borderColor="fieldLine"
      rounded="4px"
      zIndex={25}
      boxShadow="lg"
      p="14px"
      onSubmit={(e) => {
        e.preventDefault();
        onAsk(tracePath(from, dial, when));
      }}
    >
      <Flex gap="12px" align="flex-end" wrap="wrap">
        <Box flex="1" minW="150px">
          <Labelled title="Who calls: an extension, a name, an outside number" htmlFor="pick-from">
            <TextBox
              id="pick-from"
              required
              autoFocus
              value={from}
              onChange={(e) => setFrom(e.target.value)}
              placeholder="2104"
            />
          </Labelled>
        </Box>
        <Box flex="1" minW="150px">
          <Labelled title="What is dialled" htmlFor="pick-dial">
            <TextBox
              id="pick-dial"
              required
              value={dial}
              onChange={(e) => setDial(e.target.value)}
              placeholder="9 01632 960150"
            />
          </Labelled>
        </Box>
        <Box w="150px">
          <Labelled title="When" htmlFor="pick-when">
            <TextBox id="pick-when" list="pick-whens" value={when} onChange={(e) => setWhen(e.target.value)} />
            <datalist id="pick-whens">
              {['now', 'fri 17:10', 'sun 12:30', 'tomorrow 08:00', '24 dec 08:00'].map((w) => (
                <option key={w} value={w} />
              ))}
            </datalist>
          </Labelled>
        </Box>
        <Act look="main" type="submit">
          Trace this call
        </Act>
        <Act onClick={onClose}>Close</Act>
      </Flex>
    </chakra.form>
  );
}
