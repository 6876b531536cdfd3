'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { call } from '@/workbench/api';
import { Act } from '@/ui/controls';
import { Digits } from '@/ui/digits';
import { useRefresh } from '@/ui/refresh';
import { OneFieldForm } from './one-field-form';

/** One's own second factor: offered as picture and text, proved by a code before it counts. */
export function SecondFactorPart({ on, onDone }: { on: boolean; onDone?: () => void }) {
  const refresh = useRefresh();
  const [offer, setOffer] = useState<{ secret: string; svg: string } | null>(null);
  const begin = async () => {
    const got = await call('offerSecondFactor');
    if (got.ok) setOffer(got.value);
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
            <Box mt="10px">
              <OneFieldForm
                operation="startSecondFactor"
                input={(code) => ({ body: { secret: offer.secret, code: code.replace(/\s/g, '') } })}
                id="totp-code"
                title="The code it shows now"
                act="Turn it on"
                done=""
                inputMode="numeric"
                autoComplete="one-time-code"
                fontFamily="mono"
                w="120px"
                onDone={() => {
                  setOffer(null);
                  onDone?.();
                }}
              />
            </Box>
          </Box>
        </Flex>
      ) : null}
    </Box>
  );
}
