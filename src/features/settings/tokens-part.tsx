'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { ApiToken as Token } from '@/contract/access';
import { Act, Wrong } from '@/ui/controls';
import { Digits } from '@/ui/digits';
import { FigureBox } from '@/ui/figure-box';
import { useRefresh } from '@/ui/refresh';
import { Time } from '@/ui/time';
import { call } from '@/workbench/api';
import { useAccount } from '@/workbench/edits';
import { formFields } from '@/workbench/form-fields';
import { useActForm } from '@/workbench/use-act-form';

/** The tokens that scripts sign in with; a new one is shown once. */
export function TokensPart({ tokens, roles }: { tokens: Token[]; roles: { id: string; name: string }[] }) {
  const refresh = useRefresh();
  const account = useAccount();
  const [made, setMade] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const { form, submit, busy, general, clear } = useActForm<'makeToken', { name: string; role: string; days: string }>({
    operation: 'makeToken',
    defaults: { name: '', role: 'auditor', days: '90' },
    input: ({ days, ...t }) => ({ body: { ...t, days: days === '' ? null : Number(days) } }),
    keep: { key: `${account} new token`, about: { title: 'New API token', path: '/settings' } },
    onMade: ({ token }) => {
      setMade(token);
      clear();
      refresh();
    },
  });
  const { field, text, select } = formFields(form, { prefix: 'token' });
  const revoke = async (id: string) => {
    const done = await call('revokeToken', { params: { id } });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    refresh();
  };
  // Tokens of one name are told apart by their place among them.
  const namesakes = (at: number) => {
    const same = tokens.filter((t) => t.name === tokens[at]!.name);
    return same.length > 1 ? `, ${same.indexOf(tokens[at]!) + 1} of ${same.length}` : '';
  };
  return (
    <Box>
      {tokens.length === 0 ? (
        <Box color="quiet" mb="8px">
          No script has a token yet.
        </Box>
      ) : null}
      {tokens.map((t, i) => (
        <Flex
          key={t.id}
          gap="12px"
          align="center"
          minH="36px"
          borderTop="1px solid"
          borderColor="line"
          fontSize="13px"
          wrap="wrap"
          color={t.revokedAt ? 'quiet' : 'ink'}
        >
          <b>{t.name}</b>
          <Box color="quiet">
            {roles.find((r) => r.id === t.role)?.name ?? t.role}, by {t.createdBy}, until{' '}
            {t.expiresAt ? <Time iso={t.expiresAt} dayOnly /> : 'revoked'}, last used{' '}
            {t.lastUsedAt ? <Time iso={t.lastUsedAt} dayOnly /> : 'never'}
          </Box>
          <Box ml="auto">
            {t.revokedAt ? (
              <>
                revoked <Time iso={t.revokedAt} dayOnly />
              </>
            ) : (
              <Act h="24px" look="danger" aria-label={`Revoke ${t.name}${namesakes(i)}`} onClick={() => revoke(t.id)}>
                Revoke
              </Act>
            )}
          </Box>
        </Flex>
      ))}
      <form onSubmit={(e) => void submit(e)}>
        <Flex gap="8px" align="flex-start" mt="12px" wrap="wrap">
          <Box w="200px">{text('name', 'Name', { placeholder: 'nightly report' })}</Box>
          <Box w="150px">
            {select(
              'role',
              'Rights of',
              roles.map((r) => ({ id: r.id, label: r.name })),
            )}
          </Box>
          <Box w="130px">
            {field('days', 'Days', ({ change, onBlur, name: _name, ref: _ref, ...rest }) => (
              <FigureBox {...rest} title="Days" onChange={change} onLeave={onBlur} />
            ))}
          </Box>
          <Act mt="21px" type="submit" disabled={busy}>
            Make token
          </Act>
        </Flex>
      </form>
      {made ? (
        <Box role="status" mt="10px" border="1px solid" borderColor="pine" rounded="4px" p="10px">
          Copy it now; it is not shown again:{' '}
          <Digits whiteSpace="normal" wordBreak="break-all" data-testid="token">
            {made}
          </Digits>
        </Box>
      ) : null}
      {(wrong ?? general) ? (
        <Box mt="8px">
          <Wrong>{wrong ?? general}</Wrong>
        </Box>
      ) : null}
    </Box>
  );
}
