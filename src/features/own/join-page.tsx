'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Act, TextBox, Wrong } from '@/ui/controls';
import { FormField } from '@/workbench/form-field';
import { useActForm } from '@/workbench/use-act-form';

/** Where the link of a welcome mail leads: a password is chosen, and one’s own page opens. */
export function JoinPage({ token, of }: { token: string; of: { name: string; signIn: string } | null }) {
  return (
    <Flex minH="100dvh" align="center" justify="center" p="16px">
      <title>Your telephone · Polydrome</title>
      <chakra.main w="100%" maxW="380px">
        <chakra.h1 fontSize="26px" lineHeight="32px" fontWeight={800} letterSpacing="-0.02em" mb="6px">
          {of ? `Good day, ${of.name}` : 'This link opens nothing'}
        </chakra.h1>
        {of ? (
          <Choose token={token} signIn={of.signIn} />
        ) : (
          <Box>
            It was used already, a newer one was sent, or it is older than a week. Ask your administrator for another,
            or{' '}
            <chakra.a href="/sign-in" textDecoration="underline">
              sign in
            </chakra.a>{' '}
            if you have chosen a password.
          </Box>
        )}
      </chakra.main>
    </Flex>
  );
}

function Choose({ token, signIn }: { token: string; signIn: string }) {
  const { form, submit, busy, general } = useActForm<'join', { password: string }>({
    operation: 'join',
    checked: false,
    defaults: { password: '' },
    input: ({ password }) => ({ body: { token, password } }),
    unsaid: ({ password }) =>
      password === '' ? [{ field: 'password' as const, sentence: 'Choose a password of 12 characters or more.' }] : [],
    onMade: () => window.location.assign('/own'),
  });
  return (
    <form noValidate onSubmit={(e) => void submit(e)}>
      <Box color="quiet" mb="14px">
        This page is yours: where calls find you, your greeting, your messages and who called. You sign in with{' '}
        <b>{signIn}</b> and the password that you choose here.
      </Box>
      <input type="hidden" name="username" autoComplete="username" value={signIn} readOnly />
      <FormField form={form} name="password" title="Password, 12 characters or more" id="join-password">
        {({ change, ...rest }) => (
          <TextBox {...rest} type="password" autoComplete="new-password" onChange={(e) => change(e.target.value)} />
        )}
      </FormField>
      {general ? <Wrong>{general}</Wrong> : null}
      <Act look="main" type="submit" mt="14px" w="100%" h="36px" disabled={busy}>
        Open my page
      </Act>
    </form>
  );
}
