'use client';

import { Flex, Toast, Toaster, createToaster } from '@chakra-ui/react';
import { Act } from './controls';

const toaster = createToaster({ placement: 'bottom', offsets: '52px', max: 4, pauseOnPageIdle: true });

/** Says something that was done, for a few seconds; it can be put away. */
export function say(sentence: string): void {
  toaster.create({ description: sentence, duration: 6000, closable: true });
}

/** Where such words stand: above the ribbon, read out by screen readers. */
export function Toasts() {
  return (
    <Toaster toaster={toaster}>
      {(toast) => (
        <Toast.Root
          bg="ink"
          color="paper"
          rounded="4px"
          px="14px"
          py="8px"
          w="auto"
          maxW="min(560px, 92vw)"
          shadow="none"
        >
          <Flex gap="12px" align="center" fontSize="13px">
            <Toast.Description color="paper">{toast.description}</Toast.Description>
            <Act look="text" color="paper" h="20px" onClick={() => toaster.dismiss(toast.id)}>
              Close
            </Act>
          </Flex>
        </Toast.Root>
      )}
    </Toaster>
  );
}
