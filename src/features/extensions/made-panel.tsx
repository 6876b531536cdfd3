'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { Act, ActLink } from '@/ui/controls';
import { PasswordOnce } from '@/workbench/extension/password-once';

/** What was made, its password once, and what is likely next. */
export function MadePanel({
  made,
  onNext,
}: {
  made: { id: string; digits: string; name: string };
  onNext: () => void;
}) {
  const router = useRouter();
  return (
    <Box
      role="status"
      maxW="560px"
      border="1px solid"
      borderColor="pine"
      rounded="4px"
      bg="raised"
      p="16px"
      data-testid="extension-made"
    >
      <Box fontWeight={700} mb="6px">
        {made.digits} {made.name} is in the draft.
      </Box>
      <Box mb="12px" color="quiet">
        Its phone signs in with the digits and this password:
      </Box>
      <PasswordOnce extension={made.id} />
      <Flex gap="8px" mt="16px" wrap="wrap">
        <Act
          look="main"
          autoFocus
          onClick={() => {
            router.replace(`/extensions/new?like=${made.id}`);
            onNext();
          }}
        >
          Another like this
        </Act>
        <ActLink href={`/extensions/${made.id}`}>Open {made.digits}</ActLink>
        <ActLink href={`/trace?${new URLSearchParams({ from: made.digits, dial: '112' })}`}>
          Ask where its emergency calls go
        </ActLink>
      </Flex>
    </Box>
  );
}
