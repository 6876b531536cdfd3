'use client';

import { useAccount } from '@/workbench/edits';
import { formFields } from '@/workbench/form-fields';
import { useActForm } from '@/workbench/use-act-form';
import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { Administrator, RoleFacts } from '@/contract/access';
import type { Right } from '@/contract/rights';
import type { Answer } from '@/contract';
import { call, type ApiResult } from '@/workbench/api';
import { Act, PartTitle, SelectBox, Wrong } from '@/ui/controls';
import { Digits } from '@/ui/digits';
import { PaneSection, Workspace } from '@/ui/workspace';
import type { Option } from '@/workbench/form-data';
import { DeadJobs } from './dead-jobs';
import { RolesPart } from './roles-part';
import { useRefresh } from '@/ui/refresh';
import { Time } from '@/ui/time';

interface Props {
  me: string;
  administrators: Administrator[];
  roles: RoleFacts[];
  dead: Answer<'deadJobs'>['jobs'];
  rights: { right: Right; words: string; unlimited: boolean }[];
  areas: Option[];
  sites: Option[];
}

/** Who administers, with which role; and the roles, made of rights per area and site. */
export function AdministratorsPage({ me, administrators, roles, dead, rights, areas, sites }: Props) {
  const refresh = useRefresh();
  const [wrong, setWrong] = useState<string | null>(null);
  const [shown, setShown] = useState<{ name: string; password: string } | null>(null);
  /** Waits for what was asked, says what went wrong, and draws anew. */
  const act = async <T,>(asked: Promise<ApiResult<T>>): Promise<T | null> => {
    const done = await asked;
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    refresh();
    return done.ok ? done.value : null;
  };
  // Of namesakes also what they sign in as.
  const calledOf = (a: { name: string; signIn: string }) =>
    administrators.filter((x) => x.name === a.name).length > 1 ? `${a.name}, ${a.signIn}` : a.name;
  return (
    <Workspace
      title="Administrators and roles"
      lead="Everything here acts at once and is recorded."
      pane={
        <PaneSection title="How it works">
          A role is a set of rights, each in all areas and at all sites or in some. Every page and every request to the
          API is checked against it. Four roles come ready; make your own for everything between.
        </PaneSection>
      }
    >
      <Box maxW="900px">
        {wrong ? (
          <Box mb="12px">
            <Wrong>{wrong}</Wrong>
          </Box>
        ) : null}
        {shown ? (
          <Box role="status" border="1px solid" borderColor="pine" rounded="4px" p="10px" mb="12px">
            {shown.name} signs in with this password and changes it then; it is not shown again:{' '}
            <Digits data-testid="made-password">{shown.password}</Digits>
          </Box>
        ) : null}
        <PartTitle>Administrators</PartTitle>
        {administrators.map((a) => (
          <Grid
            key={a.id}
            templateColumns={{ base: '1fr', md: 'minmax(0, 1fr) 170px 196px' }}
            gap={{ base: '4px', md: '12px' }}
            alignItems="center"
            py="7px"
            borderTop="1px solid"
            borderColor="line"
            fontSize="13px"
            data-testid="administrator"
          >
            <Box color={a.blockedAt ? 'quiet' : 'ink'}>
              <b>{a.name}</b> <chakra.span color="quiet">{a.signIn}</chakra.span>
              {a.blockedAt ? ' · blocked' : ''}
              <Box color="quiet">
                {a.secondFactor ? 'second factor' : 'password only'}
                {a.lastSeen ? (
                  <>
                    , seen <Time iso={a.lastSeen} dayOnly />
                  </>
                ) : (
                  ', never here'
                )}
              </Box>
            </Box>
            <SelectBox
              aria-label={`Role of ${calledOf(a)}`}
              value={a.role}
              onChange={(e) =>
                void act(call('changeAdministrator', { params: { id: a.id }, body: { role: e.target.value } }))
              }
            >
              {roles.map((r) => (
                <option key={r.id} value={r.id}>
                  {r.name}
                </option>
              ))}
            </SelectBox>
            <Flex gap="6px">
              {a.id === me ? (
                <chakra.span color="quiet">you</chakra.span>
              ) : (
                <>
                  <Act
                    h="26px"
                    aria-label={`New password for ${calledOf(a)}`}
                    onClick={async () => {
                      const made = await act(call('resetPassword', { params: { id: a.id } }));
                      if (made?.password) setShown({ name: a.name, password: made.password });
                    }}
                  >
                    New password
                  </Act>
                  {a.secondFactor ? (
                    <Act
                      h="26px"
                      aria-label={`Reset second factor of ${calledOf(a)}`}
                      onClick={() => void act(call('resetSecondFactor', { params: { id: a.id } }))}
                    >
                      Reset second factor
                    </Act>
                  ) : null}
                  <Act
                    h="26px"
                    look={a.blockedAt ? 'plain' : 'danger'}
                    aria-label={`${a.blockedAt ? 'Open again' : 'Block'} ${calledOf(a)}`}
                    onClick={() =>
                      void act(call('changeAdministrator', { params: { id: a.id }, body: { blocked: !a.blockedAt } }))
                    }
                  >
                    {a.blockedAt ? 'Open again' : 'Block'}
                  </Act>
                </>
              )}
            </Flex>
          </Grid>
        ))}
        <AddAdministrator roles={roles} onMade={setShown} />
        <Box mt="28px">
          <RolesPart roles={roles} rights={rights} areas={areas} sites={sites} onAct={act} />
        </Box>
        <DeadJobs jobs={dead} onAct={act} />
      </Box>
    </Workspace>
  );
}

function AddAdministrator({
  roles,
  onMade,
}: {
  roles: RoleFacts[];
  onMade: (made: { name: string; password: string }) => void;
}) {
  const refresh = useRefresh();
  const account = useAccount();
  const { form, submit, busy, general, clear } = useActForm<
    'addAdministrator',
    { name: string; signIn: string; role: string }
  >({
    operation: 'addAdministrator',
    defaults: { name: '', signIn: '', role: 'auditor' },
    input: (body) => ({ body }),
    unsaid: (t) => [
      ...(t.name.trim() === '' ? [{ field: 'name' as const, sentence: 'Say who it is.' }] : []),
      ...(t.signIn.trim() === '' ? [{ field: 'signIn' as const, sentence: 'Say what they sign in as.' }] : []),
    ],
    keep: {
      key: `${account} new administrator`,
      about: { title: 'New administrator', path: '/administrators' },
    },
    onMade: ({ password }, { name }) => {
      onMade({ name, password });
      clear();
      refresh();
    },
  });
  const { text, select } = formFields(form, { prefix: 'admin' });
  return (
    <form noValidate onSubmit={(e) => void submit(e)}>
      <Flex gap="8px" align="flex-start" mt="12px" wrap="wrap">
        <Box w="200px">{text('name', 'Name')}</Box>
        <Box w="160px">{text('signIn', 'Signs in as', { autoComplete: 'off' })}</Box>
        <Box w="170px">
          {select(
            'role',
            'Role',
            roles.map((r) => ({ id: r.id, label: r.name })),
          )}
        </Box>
        <Act mt="21px" look="main" type="submit" disabled={busy}>
          Add administrator
        </Act>
      </Flex>
      {general ? <Wrong>{general}</Wrong> : null}
    </form>
  );
}
