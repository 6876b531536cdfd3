'use client';

import { Box, Flex } from '@chakra-ui/react';
import { OneFieldForm } from '../one-field-form';
import { useState } from 'react';
import { call } from '../api';
import { Act } from '@/ui/controls';
import { Digits } from '@/ui/digits';

/** Shows a SIP password when asked; each showing is recorded on the server. */
export function PasswordOnce({ extension, mayMake = false }: { extension: string; mayMake?: boolean }) {
  const [password, setPassword] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [setting, setSetting] = useState(false);
  const get = async (make: boolean) => {
    const got = await call('sipPassword', { params: { id: extension }, body: { make, password: null } });
    setPassword(got.ok ? got.value.password : null);
    setWrong(got.ok ? null : got.errors[0]!.sentence);
  };
  return (
    <Box>
      <Flex gap="8px" align="center" wrap="wrap">
        {password ? (
          <Digits
            border="1px solid"
            borderColor="line"
            rounded="3px"
            px="8px"
            lineHeight="28px"
            data-testid="sip-password"
          >
            {password}
          </Digits>
        ) : (
          <Act onClick={() => get(false)}>Show SIP password</Act>
        )}
        {password ? (
          <>
            <Act onClick={() => void navigator.clipboard.writeText(password)}>Copy</Act>
            <Act onClick={() => setPassword(null)}>Hide</Act>
          </>
        ) : null}
        {mayMake ? (
          <>
            <Act onClick={() => get(true)}>Make a new one</Act>
            <Act aria-expanded={setting} onClick={() => setSetting(!setting)}>
              Set one…
            </Act>
          </>
        ) : null}
      </Flex>
      {setting ? (
        <Box mt="8px">
          <OneFieldForm
            operation="sipPassword"
            input={(wanted) => ({ params: { id: extension }, body: { make: false, password: wanted } })}
            id="sip-password-to-set"
            title="SIP password to set"
            act="Set password"
            done="It is in the draft."
            wrong={(wanted) => (wanted.length < 12 ? 'It takes 12 to 64 letters, digits and signs.' : null)}
            onDone={() => setPassword(null)}
            autoComplete="off"
            fontFamily="mono"
            w="260px"
          />
        </Box>
      ) : null}
      <Box fontSize="12px" color="quiet" mt="4px">
        {wrong ?? 'Each showing is recorded with your name.'}
      </Box>
    </Box>
  );
}
