'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { call } from '../api';
import { Act, TextBox } from '@/ui/controls';
import { Digits } from '@/ui/digits';

/** Shows a SIP password when asked; each showing is recorded on the server. */
export function PasswordOnce({ extension, mayMake = false }: { extension: string; mayMake?: boolean }) {
  const [password, setPassword] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [setting, setSetting] = useState(false);
  const [wanted, setWanted] = useState('');
  const get = async (make: boolean, own: string | null = null) => {
    const got = await call('sipPassword', { params: { id: extension }, body: { make, password: own } });
    if (got.ok) setSetting(false);
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
        <Flex gap="8px" mt="8px">
          <TextBox
            aria-label="SIP password to set"
            autoComplete="off"
            fontFamily="mono"
            w="260px"
            placeholder="12 to 64 letters, digits and signs"
            value={wanted}
            onChange={(e) => setWanted(e.target.value)}
          />
          <Act disabled={wanted.length < 12} onClick={() => get(false, wanted)}>
            Set password
          </Act>
        </Flex>
      ) : null}
      <Box fontSize="12px" color="quiet" mt="4px">
        {wrong ?? 'Each showing is recorded with your name.'}
      </Box>
    </Box>
  );
}
