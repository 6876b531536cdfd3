'use client';

import { Box } from '@chakra-ui/react';
import { pinRefusal } from '@/core/plan/pin';
import { OneFieldForm } from '../one-field-form';

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
  pinSet?: boolean;
}) {
  return (
    <Box maxW="380px">
      <OneFieldForm
        operation="pin"
        input={(pin) => ({ params: { id: mailbox }, body: { pin } })}
        id="pin"
        title={pinSet === undefined ? 'New PIN' : pinSet ? 'New PIN (one is set)' : 'PIN (none is set yet)'}
        note={NOTE}
        act="Set PIN now"
        done="The new PIN works now."
        may={may}
        wrong={(pin) => pinRefusal(pin, digits)}
        inputMode="numeric"
        autoComplete="off"
        fontFamily="mono"
        w="140px"
      />
    </Box>
  );
}
