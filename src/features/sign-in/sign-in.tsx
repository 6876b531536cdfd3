'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useSearchParams } from 'next/navigation';
import { useState } from 'react';
import { call } from '@/workbench/api';
import { Act, Labelled, TextBox, Wrong } from '@/ui/controls';

export function SignIn() {
  const params = useSearchParams();
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const [code, setCode] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const back = params.get('back') ?? '/';

  const submit = async () => {
    setBusy(true);
    const done =
      code === null
        ? await call('signIn', { body: { name, password } })
        : await call('signInCode', { body: { code: code.replace(/\s/g, '') } });
    setBusy(false);
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    if (!done.ok) return;
    if ('waitsForCode' in done.value && done.value.waitsForCode) return setCode('');
    window.location.assign(/^\/[^/\\]/.test(back) ? back : '/');
  };

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
        <chakra.form
          onSubmit={(e) => {
            e.preventDefault();
            void submit();
          }}
        >
          <Flex direction="column" gap="12px">
            {code === null ? (
              <>
                <Labelled title="Name" htmlFor="name">
                  <TextBox
                    id="name"
                    name="username"
                    autoComplete="username"
                    required
                    autoFocus
                    value={name}
                    onChange={(e) => setName(e.target.value)}
                  />
                </Labelled>
                <Labelled title="Password" htmlFor="password">
                  <TextBox
                    id="password"
                    name="password"
                    type="password"
                    autoComplete="current-password"
                    required
                    value={password}
                    onChange={(e) => setPassword(e.target.value)}
                  />
                </Labelled>
              </>
            ) : (
              <Labelled title="Code of your authenticator" htmlFor="code">
                <TextBox
                  id="code"
                  inputMode="numeric"
                  autoComplete="one-time-code"
                  fontFamily="mono"
                  required
                  autoFocus
                  value={code}
                  onChange={(e) => setCode(e.target.value)}
                />
              </Labelled>
            )}
            {wrong ? <Wrong>{wrong}</Wrong> : null}
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
