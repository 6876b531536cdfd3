'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { useWatch } from 'react-hook-form';
import { Act, PartTitle, TextBox, TickBox, Wrong } from '@/ui/controls';
import { useRefresh } from '@/ui/refresh';
import { FormField } from '@/workbench/form-field';
import { useAccount } from '@/workbench/edits';
import { useActForm } from '@/workbench/use-act-form';
import type { RoleFacts } from '@/contract/access';
import type { Grant, Right } from '@/contract/rights';
import type { Area } from '@/core/plan/facts/area';
import { call, type ApiResult } from '@/workbench/api';
import type { Option } from '@/workbench/form-data';

interface Props {
  roles: RoleFacts[];
  rights: { right: Right; words: string; unlimited: boolean }[];
  areas: Option[];
  sites: Option[];
  onAct: <T>(asked: Promise<ApiResult<T>>) => Promise<T | null>;
}

/** The roles with their rights, and making one's own. */
export function RolesPart({ roles, rights, areas, sites, onAct }: Props) {
  const refresh = useRefresh();
  const [open, setOpen] = useState<{ id: string | null; name: string; grants: Grant[] } | null>(null);
  const said = (g: Grant) => {
    const names = (list: 'all' | readonly string[], of: Option[]) =>
      list === 'all' ? null : list.map((id) => of.find((o) => o.id === id)?.label.split(':')[0] ?? id).join(', ');
    const where = [names(g.areas, areas), names(g.sites, sites)].filter(Boolean).join(' at ');
    return `${rights.find((r) => r.right === g.right)?.words ?? g.right}${where ? ` (${where})` : ''}`;
  };
  return (
    <>
      <PartTitle>Roles</PartTitle>
      {roles.map((r) => (
        <Flex
          key={r.id}
          gap="12px"
          borderTop="1px solid"
          borderColor="line"
          py="8px"
          fontSize="13px"
          align="flex-start"
        >
          <Box w="140px">
            <b>{r.name}</b>
            {r.ready ? <Box color="quiet">comes ready</Box> : null}
          </Box>
          <Box flex="1" color="quiet">
            {r.grants.map(said).join(' · ')}
          </Box>
          <Act
            h="26px"
            aria-label={`${r.ready ? 'Copy' : 'Change'} ${r.name}`}
            onClick={() =>
              setOpen({ id: r.ready ? null : r.id, name: r.ready ? `${r.name}, own` : r.name, grants: [...r.grants] })
            }
          >
            {r.ready ? 'Copy' : 'Change'}
          </Act>
          {r.ready ? null : (
            <Act
              h="26px"
              look="danger"
              aria-label={`Delete ${r.name}`}
              onClick={() => void onAct(call('deleteRole', { params: { id: r.id } }))}
            >
              Delete
            </Act>
          )}
        </Flex>
      ))}
      {open ? (
        <RoleForm
          key={open.id ?? open.name}
          id={open.id}
          first={{ name: open.name, grants: open.grants }}
          rights={rights}
          areas={areas}
          sites={sites}
          onSaved={() => {
            setOpen(null);
            refresh();
          }}
          onClose={() => setOpen(null)}
        />
      ) : (
        <Act
          mt="10px"
          onClick={() => setOpen({ id: null, name: '', grants: [{ right: 'look', areas: 'all', sites: 'all' }] })}
        >
          Make a role
        </Act>
      )}
    </>
  );
}

function RoleForm({
  id,
  first,
  rights,
  areas,
  sites,
  onSaved,
  onClose,
}: {
  /** null: a new one */
  id: string | null;
  first: { name: string; grants: Grant[] };
  rights: Props['rights'];
  areas: Option[];
  sites: Option[];
  onSaved: () => void;
  onClose: () => void;
}) {
  const account = useAccount();
  const { form, submit, busy, general, clear } = useActForm<'makeRole', { name: string; grants: Grant[] }>({
    operation: 'makeRole',
    defaults: first,
    input: (body) => ({ body }),
    // One that is there already is changed instead.
    send: async ({ body }) => {
      const done = id ? await call('changeRole', { params: { id }, body }) : await call('makeRole', { body });
      return done.ok ? { ok: true, value: { id: id ?? '' } } : done;
    },
    keep: {
      key: `${account} role ${id ?? first.name}`,
      about: { title: first.name === '' ? 'New role' : `Role ${first.name}`, path: '/administrators' },
    },
    onMade: onSaved,
  });
  const grants = useWatch({ control: form.control, name: 'grants' }) as Grant[];
  const put = (right: string, grant: Grant | null) =>
    form.setValue('grants', [...grants.filter((g) => g.right !== right), ...(grant ? [grant] : [])], {
      shouldDirty: true,
    });
  const toggled = <T extends string>(list: 'all' | readonly T[], id: T): 'all' | T[] => {
    const now = list === 'all' ? [] : [...list];
    const next = now.includes(id) ? now.filter((x) => x !== id) : [...now, id];
    return next.length === 0 ? 'all' : next;
  };
  return (
    <Box border="1px dashed" borderColor="plum" rounded="4px" p="14px" mt="10px" role="form" aria-label="Role">
      <Box maxW="260px" mb="12px">
        <FormField form={form} name="name" title="Name" id="role-name">
          {({ change, ...rest }) => <TextBox {...rest} onChange={(e) => change(e.target.value)} />}
        </FormField>
      </Box>
      {rights.map((r) => {
        const grant = grants.find((g) => g.right === r.right) ?? null;
        return (
          <Grid
            key={r.right}
            templateColumns="240px 1fr"
            gap="12px"
            minH="34px"
            borderTop="1px solid"
            borderColor="line"
            py="5px"
          >
            <Flex as="label" gap="8px" align="center" h="24px">
              <TickBox
                type="checkbox"
                checked={grant !== null}
                onChange={(e) => put(r.right, e.target.checked ? { right: r.right, areas: 'all', sites: 'all' } : null)}
              />
              {r.words}
            </Flex>
            {grant && !r.unlimited ? (
              <Flex gap="4px 10px" wrap="wrap" fontSize="12px" align="center">
                <Chips
                  all="all areas"
                  list={grant.areas}
                  options={areas}
                  onToggle={(id) => put(r.right, { ...grant, areas: toggled(grant.areas, id as Area) })}
                />
                <chakra.span color="quiet">at</chakra.span>
                <Chips
                  all="all sites"
                  list={grant.sites}
                  options={sites}
                  onToggle={(id) => put(r.right, { ...grant, sites: toggled(grant.sites, id) })}
                />
              </Flex>
            ) : (
              <Box fontSize="12px" color="quiet" lineHeight="24px">
                {grant ? 'everything, everywhere' : ''}
              </Box>
            )}
          </Grid>
        );
      })}
      <Flex gap="8px" mt="12px">
        <Act look="main" disabled={busy || grants.length === 0} onClick={() => void submit()}>
          Save role
        </Act>
        <Act
          onClick={() => {
            clear();
            onClose();
          }}
        >
          Cancel
        </Act>
      </Flex>
      {general ? <Wrong>{general}</Wrong> : null}
    </Box>
  );
}

/** Which of some are meant; none picked is all of them. */
function Chips({
  all,
  list,
  options,
  onToggle,
}: {
  all: string;
  list: 'all' | readonly string[];
  options: Option[];
  onToggle: (id: string) => void;
}) {
  return (
    <>
      {list === 'all' ? <b>{all}</b> : null}
      {options.map((o) => (
        <Act
          key={o.id}
          h="22px"
          px="7px"
          fontSize="12px"
          aria-pressed={list !== 'all' && list.includes(o.id)}
          borderColor={list !== 'all' && list.includes(o.id) ? 'plum' : 'line'}
          bg={list !== 'all' && list.includes(o.id) ? 'plumTint' : undefined}
          onClick={() => onToggle(o.id)}
        >
          {o.label.split(':')[0]}
        </Act>
      ))}
    </>
  );
}
