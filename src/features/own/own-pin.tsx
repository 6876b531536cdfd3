'use client';

import { Box } from '@chakra-ui/react';
import { pinRefusal } from '@/core/plan/pin';
import { OneFieldForm } from '@/workbench/one-field-form';

/** The PIN by which one hears messages by telephone. */
export const OwnPin = ({ mailbox, set }: { mailbox: string; set: boolean }) => (
  <Box mt="16px" maxW="420px">
    <OneFieldForm
      operation="ownPin"
      input={(pin) => ({ params: { id: mailbox }, body: { pin } })}
      id={`pin-${mailbox}`}
      title={
        set ? 'New PIN for hearing messages by telephone' : 'PIN for hearing messages by telephone (none is set yet)'
      }
      act="Set PIN"
      done="The new PIN works now."
      wrong={(pin) => pinRefusal(pin, null)}
      inputMode="numeric"
      autoComplete="off"
      fontFamily="mono"
      w="140px"
    />
  </Box>
);
