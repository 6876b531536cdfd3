'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { Administrator, RoleFacts } from '@/contract/access';
import type { Right } from '@/contract/rights';
import type { Answer } from '@/contract';
import { call, type ApiResult } from '@/workbench/api';
import { Act, Labelled, PartTitle, SelectBox, TextBox, Wrong } from '@/ui/controls';
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
            templateColumns={{ base: '1fr', md: '1.4fr 1fr 170px auto' }}
            gap={{ base: '4px', md: '12px' }}
            alignItems="center"
            minH="40px"
            borderTop="1px solid"
            borderColor="line"
            fontSize="13px"
            data-testid="administrator"
          >
            <Box color={a.blockedAt ? 'quiet' : 'ink'}>
              <b>{a.name}</b> <chakra.span color="quiet">{a.signIn}</chakra.span>
              {a.blockedAt ? ' · blocked' : ''}
            </Box>
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
            <SelectBox
              aria-label={`Role of ${a.name}`}
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
                    onClick={async () => {
                      const made = await act(call('resetPassword', { params: { id: a.id } }));
                      if (made?.password) setShown({ name: a.name, password: made.password });
                    }}
                  >
                    New password
                  </Act>
                  {a.secondFactor ? (
                    <Act h="26px" onClick={() => void act(call('resetSecondFactor', { params: { id: a.id } }))}>
                      Reset second factor
                    </Act>
                  ) : null}
                  <Act
                    h="26px"
                    look={a.blockedAt ? 'plain' : 'danger'}
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
        <AddAdministrator
          roles={roles}
          onAdd={async (value) => {
            const made = await act(call('addAdministrator', { body: value }));
            if (made?.password) setShown({ name: value.name, password: made.password });
            return made !== null;
          }}
        />
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
  onAdd,
}: {
  roles: RoleFacts[];
  onAdd: (value: { name: string; signIn: string; role: string }) => Promise<boolean>;
}) {
  const [value, setValue] = useState({ name: '', signIn: '', role: 'auditor' });
  return (
    <Flex gap="8px" align="flex-end" mt="12px" wrap="wrap">
      <Box w="200px">
        <Labelled title="Name" htmlFor="admin-name">
          <TextBox id="admin-name" value={value.name} onChange={(e) => setValue({ ...value, name: e.target.value })} />
        </Labelled>
      </Box>
      <Box w="160px">
        <Labelled title="Signs in as" htmlFor="admin-sign-in">
          <TextBox
            id="admin-sign-in"
            autoComplete="off"
            value={value.signIn}
            onChange={(e) => setValue({ ...value, signIn: e.target.value })}
          />
        </Labelled>
      </Box>
      <Box w="170px">
        <Labelled title="Role" htmlFor="admin-role">
          <SelectBox id="admin-role" value={value.role} onChange={(e) => setValue({ ...value, role: e.target.value })}>
            {roles.map((r) => (
              <option key={r.id} value={r.id}>
                {r.name}
              </option>
            ))}
          </SelectBox>
        </Labelled>
      </Box>
      <Act
        look="main"
        disabled={value.name.trim() === '' || value.signIn.trim() === ''}
        onClick={async () => {
          if (await onAdd(value)) setValue({ name: '', signIn: '', role: 'auditor' });
        }}
      >
        Add administrator
      </Act>
    </Flex>
  );
}
