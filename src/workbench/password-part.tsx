'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { Act, TextBox, Wrong } from '@/ui/controls';
import { FormField } from './form-field';
import { useActForm } from './use-act-form';

/** Changes one's own password. */
export function PasswordPart({ onDone }: { onDone?: () => void }) {
  const [said, setSaid] = useState(false);
  const { form, submit, busy, general, clear } = useActForm<'ownPassword', { old: string; password: string }>({
    operation: 'ownPassword',
    checked: false,
    defaults: { old: '', password: '' },
    input: (body) => ({ body }),
    unsaid: (t) => [
      ...(t.old === '' ? [{ field: 'old' as const, sentence: 'Type the password you have now.' }] : []),
      ...(t.password === '' ? [{ field: 'password' as const, sentence: 'Type the one that is to be.' }] : []),
    ],
    onMade: () => {
      setSaid(true);
      clear();
      onDone?.();
    },
  });
  return (
    <form noValidate onSubmit={(e) => void submit(e)}>
      <Flex gap="12px" align="flex-start" wrap="wrap">
        <Box w="220px">
          <FormField form={form} name="old" title="Present password" id="old-password">
            {({ change, ...rest }) => (
              <TextBox
                {...rest}
                type="password"
                autoComplete="current-password"
                onChange={(e) => change(e.target.value)}
              />
            )}
          </FormField>
        </Box>
        <Box w="220px">
          <FormField form={form} name="password" title="New password, 12 characters or more" id="new-password">
            {({ change, ...rest }) => (
              <TextBox {...rest} type="password" autoComplete="new-password" onChange={(e) => change(e.target.value)} />
            )}
          </FormField>
        </Box>
        <Act mt="21px" type="submit" disabled={busy}>
          Change password
        </Act>
      </Flex>
      {general ? <Wrong>{general}</Wrong> : null}
      {said ? (
        <Box role="status" color="pine" mt="4px">
          The new password holds from now on.
        </Box>
      ) : null}
    </form>
  );
}
