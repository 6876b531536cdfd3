'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useSearchParams } from 'next/navigation';
import { useState } from 'react';
import { Act, TextBox, Wrong } from '@/ui/controls';
import { FormField } from '@/workbench/form-field';
import { useActForm } from '@/workbench/use-act-form';

export function SignIn() {
  const params = useSearchParams();
  const back = params.get('back') ?? '/';
  const [waits, setWaits] = useState(false);
  const go = () => window.location.assign(/^\/[^/\\]/.test(back) ? back : '/');
  const name = useActForm<'signIn', { name: string; password: string }>({
    operation: 'signIn',
    checked: false,
    defaults: { name: '', password: '' },
    input: (body) => ({ body }),
    onMade: (made) => ('waitsForCode' in made && made.waitsForCode ? setWaits(true) : go()),
  });
  const code = useActForm<'signInCode', { code: string }>({
    operation: 'signInCode',
    checked: false,
    defaults: { code: '' },
    input: (t) => ({ body: { code: t.code.replace(/\s/g, '') } }),
    onMade: go,
  });
  const { submit, busy, general } = waits ? code : name;
  return (
    <Flex minH="100dvh" align="center" justify="center" p="16px">
      <title>Sign in · Polydrome</title>
      <Box w="340px">
        <Course />
        <chakra.h1 fontSize="30px" lineHeight="36px" fontWeight={800} letterSpacing="-0.02em" mb="2px">
          poly<chakra.span color="plum">drome</chakra.span>
        </chakra.h1>
        <Box color="quiet" mb="22px">
          Where does this call go, and why?
        </Box>
        <chakra.form onSubmit={(e) => void submit(e)}>
          <Flex direction="column" gap="12px">
            {waits ? (
              <FormField form={code.form} name="code" id="code" title="Code of your authenticator">
                {({ change, ...rest }) => (
                  <TextBox
                    {...rest}
                    inputMode="numeric"
                    autoComplete="one-time-code"
                    fontFamily="mono"
                    required
                    autoFocus
                    onChange={(e) => change(e.target.value)}
                  />
                )}
              </FormField>
            ) : (
              <>
                <FormField form={name.form} name="name" id="name" title="Name">
                  {({ change, ...rest }) => (
                    <TextBox
                      {...rest}
                      autoComplete="username"
                      required
                      autoFocus
                      onChange={(e) => change(e.target.value)}
                    />
                  )}
                </FormField>
                <FormField form={name.form} name="password" id="password" title="Password">
                  {({ change, ...rest }) => (
                    <TextBox
                      {...rest}
                      type="password"
                      autoComplete="current-password"
                      required
                      onChange={(e) => change(e.target.value)}
                    />
                  )}
                </FormField>
              </>
            )}
            {general ? <Wrong>{general}</Wrong> : null}
            <Act look="main" type="submit" disabled={busy} h="34px">
              Sign in
            </Act>
          </Flex>
        </chakra.form>
      </Box>
    </Flex>
  );
}

/** A call's course, as on every screen: one way walked, one left. */
function Course() {
  return (
    <chakra.svg viewBox="0 0 340 64" w="100%" mb="18px" aria-hidden>
      <chakra.path d="M8 40h120q10 0 10-10v-4q0-10 10-10h170" fill="none" stroke="line" color="line" strokeWidth="2" />
      <chakra.path d="M8 40h310" fill="none" color="ink" stroke="currentColor" strokeWidth="3" />
      <chakra.path
        d="M190 40q10 0 10 8v2q0 8 10 8h108"
        fill="none"
        color="ochre"
        stroke="currentColor"
        strokeWidth="2"
        strokeDasharray="7 4"
      />
      <chakra.circle cx="8" cy="40" r="6" color="ink" fill="currentColor" />
      <chakra.circle cx="326" cy="40" r="7" color="pine" fill="currentColor" />
      <chakra.circle cx="326" cy="16" r="5" color="iris" fill="currentColor" />
      <chakra.circle cx="326" cy="58" r="5" color="ochre" fill="currentColor" />
    </chakra.svg>
  );
}
