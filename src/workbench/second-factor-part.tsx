'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { call } from '@/workbench/api';
import { Act, Labelled, TextBox } from '@/ui/controls';
import { Digits } from '@/ui/digits';
import { useRefresh } from '@/ui/refresh';

/** One's own second factor: offered as picture and text, proved by a code before it counts. */
export function SecondFactorPart({ on, onDone }: { on: boolean; onDone?: () => void }) {
  const refresh = useRefresh();
  const [offer, setOffer] = useState<{ secret: string; svg: string } | null>(null);
  const [code, setCode] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const begin = async () => {
    const got = await call('offerSecondFactor');
    if (got.ok) setOffer(got.value);
  };
  const prove = async () => {
    const done = await call('startSecondFactor', { body: { secret: offer!.secret, code: code.replace(/\s/g, '') } });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    if (!done.ok) return;
    setOffer(null);
    setCode('');
    refresh();
    onDone?.();
  };
  const end = async () => {
    await call('endSecondFactor');
    refresh();
  };
  return (
    <Box>
      <Flex gap="10px" align="center" mb="8px">
        {on ? 'On: signing in asks for a code of your authenticator.' : 'Off: name and password are enough.'}
        {on ? <Act onClick={end}>Turn it off</Act> : offer ? null : <Act onClick={begin}>Set up a second factor</Act>}
      </Flex>
      {offer ? (
        <Flex gap="18px" wrap="wrap" border="1px solid" borderColor="line" rounded="4px" bg="raised" p="14px">
          <Box
            w="150px"
            h="150px"
            bg="white"
            role="img"
            aria-label="The secret as a picture for your authenticator"
            dangerouslySetInnerHTML={{ __html: offer.svg }}
          />
          <Box flex="1" minW="240px">
            <Box mb="8px">Let your authenticator read the picture, or type this secret:</Box>
            <Digits whiteSpace="normal" wordBreak="break-all" data-testid="totp-secret">
              {offer.secret}
            </Digits>
            <Box mt="10px" maxW="220px">
              <Labelled title="The code it shows now" htmlFor="totp-code" error={wrong}>
                <Flex gap="8px">
                  <TextBox
                    id="totp-code"
                    inputMode="numeric"
                    autoComplete="one-time-code"
                    fontFamily="mono"
                    value={code}
                    onChange={(e) => setCode(e.target.value)}
                  />
                  <Act look="main" disabled={code.replace(/\s/g, '').length !== 6} onClick={prove}>
                    Turn it on
                  </Act>
                </Flex>
              </Labelled>
            </Box>
          </Box>
        </Flex>
      ) : null}
    </Box>
  );
}
