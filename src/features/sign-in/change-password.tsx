'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { PasswordPart } from '@/workbench/password-part';

/** Whoever has a password from somebody else sets one of their own before anything else. */
export function ChangePassword() {
  return (
    <Flex minH="100dvh" align="center" justify="center" p="16px">
      <Box w="480px">
        <chakra.h1 fontSize="21px" fontWeight={700} mb="6px">
          Set a password of your own
        </chakra.h1>
        <Box color="quiet" mb="18px">
          The one you signed in with was made by somebody else, who has seen it.
        </Box>
        <PasswordPart onDone={() => window.location.assign('/')} />
      </Box>
    </Flex>
  );
}
