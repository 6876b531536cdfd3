'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { pinRefusal } from '@/core/plan/pin';
import { call } from '../api';
import { Act, Labelled, TextBox } from '@/ui/controls';
import { useFocusNote } from '@/ui/workspace';

const NOTE =
  'What the owner enters to hear messages: digits only, four or more, not the extension, no run, no repeat. It acts at once, without going live.';

/** Sets a mailbox PIN; it acts at once. */
export function PinPart({
  mailbox,
  digits,
  may,
  pinSet,
}: {
  mailbox: string;
  digits: string | null;
  may: boolean;
  account: string;
  pinSet?: boolean;
}) {
  const [pin, setPin] = useState('');
  const [said, setSaid] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const note = useFocusNote('PIN', NOTE);
  const weak = pin === '' ? null : pinRefusal(pin, digits);
  const set = async () => {
    const done = await call('pin', { params: { id: mailbox }, body: { pin } });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    setSaid(done.ok ? 'The new PIN works now.' : null);
    if (done.ok) setPin('');
  };
  return (
    <Box maxW="380px">
      <Labelled
        title={pinSet === undefined ? 'New PIN' : pinSet ? 'New PIN (one is set)' : 'PIN (none is set yet)'}
        htmlFor="pin"
        error={weak ?? wrong}
      >
        <Flex gap="8px">
          <TextBox
            id="pin"
            inputMode="numeric"
            autoComplete="off"
            fontFamily="mono"
            w="140px"
            disabled={!may}
            value={pin}
            {...note}
            onChange={(e) => setPin(e.target.value)}
          />
          <Act disabled={!may || pin === '' || weak !== null} onClick={set}>
            Set PIN now
          </Act>
        </Flex>
      </Labelled>
      {said ? (
        <Box role="status" color="pine" fontSize="13px" mt="3px">
          {said}
        </Box>
      ) : null}
    </Box>
  );
}
