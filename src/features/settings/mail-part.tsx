'use client';

import { Box, Flex, Grid } from '@chakra-ui/react';
import { useState } from 'react';
import type { Mail, MailSettings } from '@/contract/mail';
import { Act, Wrong } from '@/ui/controls';
import { useRefresh } from '@/ui/refresh';
import { Time } from '@/ui/time';
import { useAccount } from '@/workbench/edits';
import { formFields } from '@/workbench/form-fields';
import { OneFieldForm } from '@/workbench/one-field-form';
import { useActForm } from '@/workbench/use-act-form';

interface Typed {
  host: string;
  port: string;
  security: MailSettings['security'];
  user: string;
  password: string;
  sender: string;
  pages: string;
}

const SECURITY = [
  { id: 'starttls', label: 'TLS after the greeting (STARTTLS)' },
  { id: 'tls', label: 'TLS from the first octet' },
  { id: 'none', label: 'none: only inside a network of your own' },
];

/** By which server mail goes out, a trial, and what became of the last mails. */
export function MailPart({ settings, mails }: { settings: MailSettings | null; mails: Mail[] }) {
  const refresh = useRefresh();
  const account = useAccount();
  const [said, setSaid] = useState(false);
  const { form, submit, busy, general, clear } = useActForm<'setMailSettings', Typed>({
    operation: 'setMailSettings',
    defaults: {
      host: settings?.host ?? '',
      port: String(settings?.port ?? 587),
      security: settings?.security ?? 'starttls',
      user: settings?.user ?? '',
      password: '',
      sender: settings?.sender ?? '',
      pages: settings?.pages ?? '',
    },
    input: ({ port, password, ...t }) => ({
      body: { ...t, port: Number(port), password: password === '' ? null : password },
    }),
    keep: { key: `${account} mail server`, about: { title: 'Mail server', path: '/settings' } },
    secrets: ['password'],
    onMade: () => {
      setSaid(true);
      clear();
      refresh();
    },
  });
  const { text, select } = formFields(form, {
    prefix: 'mail',
    beneath: true,
    notes: { pages: 'Links in mails lead there. Example: https://phones.lanternfold.example' },
  });
  return (
    <Box>
      <Box color="quiet" fontSize="13px" mb="8px">
        Notices of messages and invitations go out by this server.{' '}
        {settings ? null : 'None is set: no mail goes out, and nothing waits for one.'}
      </Box>
      <form
        noValidate
        onSubmit={(e) => {
          setSaid(false);
          void submit(e);
        }}
      >
        <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} gap="10px 14px">
          {text('host', 'Mail server')}
          {text('port', 'Port', { inputMode: 'numeric' })}
          {select('security', 'Security', SECURITY)}
          {text('sender', 'Sender', { inputMode: 'email' })}
          {text('user', 'User (empty: no sign-in)', { autoComplete: 'off' })}
          {text('password', settings?.hasPassword ? 'Password (one is set; empty keeps it)' : 'Password', {
            type: 'password',
            autoComplete: 'new-password',
          })}
          {text('pages', 'Address of these pages', { inputMode: 'url' })}
        </Grid>
        {general ? <Wrong>{general}</Wrong> : null}
        <Flex gap="10px" align="center" mt="10px">
          <Act type="submit" disabled={busy}>
            Save mail server
          </Act>
          {said ? (
            <Box role="status" color="pine" fontSize="13px">
              Mail goes out by it from now on.
            </Box>
          ) : null}
        </Flex>
      </form>
      {settings ? (
        <Box mt="14px">
          <OneFieldForm
            operation="tryMail"
            input={(to) => ({ body: { to } })}
            id="mail-trial"
            title="Send a trial to"
            act="Send trial"
            done="The server took it."
            inputMode="email"
            w="240px"
          />
        </Box>
      ) : null}
      {mails.length > 0 ? <LastMails mails={mails} /> : null}
    </Box>
  );
}

const STATES: Record<Mail['state'], string> = {
  waiting: 'waits',
  sent: 'sent',
  failed: 'not taken',
  dropped: 'not sent',
};

function LastMails({ mails }: { mails: Mail[] }) {
  return (
    <Box mt="14px" overflowX="auto">
      <Grid
        templateColumns="auto minmax(120px,1fr) minmax(140px,2fr) auto"
        columnGap="12px"
        fontSize="13px"
        role="table"
        aria-label="Last mails"
      >
        {mails.map((m) => (
          <Box key={m.id} display="contents" role="row">
            <Cell quiet>
              <Time iso={m.sentAt ?? m.madeAt} />
            </Cell>
            <Cell>{m.to}</Cell>
            <Cell>{m.subject}</Cell>
            <Cell>
              <Box as="span" color={m.state === 'failed' ? 'brick' : undefined} title={m.said}>
                {STATES[m.state]}
                {m.state === 'waiting' && m.said ? `: ${m.said}` : ''}
                {m.state === 'failed' ? `: ${m.said}` : ''}
              </Box>
            </Cell>
          </Box>
        ))}
      </Grid>
    </Box>
  );
}

const Cell = ({ children, quiet }: { children: React.ReactNode; quiet?: boolean }) => (
  <Box
    role="cell"
    py="5px"
    borderTop="1px solid"
    borderColor="line"
    color={quiet ? 'quiet' : undefined}
    overflow="hidden"
    textOverflow="ellipsis"
  >
    {children}
  </Box>
);
