'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { call } from './api';
import { Act, Labelled, TextBox } from '@/ui/controls';

/** Changes one's own password. */
export function PasswordPart({ onDone }: { onDone?: () => void }) {
  const [old, setOld] = useState('');
  const [password, setPassword] = useState('');
  const [errors, setErrors] = useState<{ path: string; sentence: string }[]>([]);
  const [said, setSaid] = useState(false);
  const change = async () => {
    const done = await call('ownPassword', { body: { old, password } });
    setErrors(done.ok ? [] : done.errors);
    setSaid(done.ok);
    if (!done.ok) return;
    setOld('');
    setPassword('');
    onDone?.();
  };
  const errorOf = (path: string) => errors.find((e) => e.path === path)?.sentence ?? null;
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        void change();
      }}
    >
      <Flex gap="12px" align="flex-start" wrap="wrap">
        <Box w="220px">
          <Labelled title="Present password" htmlFor="old-password" error={errorOf('old')}>
            <TextBox
              id="old-password"
              type="password"
              autoComplete="current-password"
              value={old}
              onChange={(e) => setOld(e.target.value)}
            />
          </Labelled>
        </Box>
        <Box w="220px">
          <Labelled title="New password, 12 characters or more" htmlFor="new-password" error={errorOf('password')}>
            <TextBox
              id="new-password"
              type="password"
              autoComplete="new-password"
              value={password}
              onChange={(e) => setPassword(e.target.value)}
            />
          </Labelled>
        </Box>
        <Act mt="21px" type="submit" disabled={old === '' || password === ''}>
          Change password
        </Act>
      </Flex>
      {said ? (
        <Box role="status" color="pine" mt="4px">
          The new password holds from now on.
        </Box>
      ) : null}
    </form>
  );
}
