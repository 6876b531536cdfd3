'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { Act, Labelled, PartTitle, TextBox, TickBox } from '@/ui/controls';
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
            onClick={() =>
              setOpen({ id: r.ready ? null : r.id, name: r.ready ? `${r.name}, own` : r.name, grants: [...r.grants] })
            }
          >
            {r.ready ? 'Copy' : 'Change'}
          </Act>
          {r.ready ? null : (
            <Act h="26px" look="danger" onClick={() => void onAct(call('deleteRole', { params: { id: r.id } }))}>
              Delete
            </Act>
          )}
        </Flex>
      ))}
      {open ? (
        <RoleForm
          key={open.id ?? open.name}
          first={open}
          rights={rights}
          areas={areas}
          sites={sites}
          onSave={async (value) => {
            const done = await onAct(
              open.id
                ? call('changeRole', { params: { id: open.id }, body: value })
                : call('makeRole', { body: value }),
            );
            if (done) setOpen(null);
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
  first,
  rights,
  areas,
  sites,
  onSave,
  onClose,
}: {
  first: { name: string; grants: Grant[] };
  rights: Props['rights'];
  areas: Option[];
  sites: Option[];
  onSave: (value: { name: string; grants: Grant[] }) => Promise<void>;
  onClose: () => void;
}) {
  const [name, setName] = useState(first.name);
  const [grants, setGrants] = useState(first.grants);
  const put = (right: string, grant: Grant | null) =>
    setGrants([...grants.filter((g) => g.right !== right), ...(grant ? [grant] : [])]);
  const toggled = <T extends string>(list: 'all' | readonly T[], id: T): 'all' | T[] => {
    const now = list === 'all' ? [] : [...list];
    const next = now.includes(id) ? now.filter((x) => x !== id) : [...now, id];
    return next.length === 0 ? 'all' : next;
  };
  return (
    <Box border="1px dashed" borderColor="plum" rounded="4px" p="14px" mt="10px" role="form" aria-label="Role">
      <Box maxW="260px" mb="12px">
        <Labelled title="Name" htmlFor="role-name">
          <TextBox id="role-name" value={name} onChange={(e) => setName(e.target.value)} />
        </Labelled>
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
        <Act
          look="main"
          disabled={name.trim() === '' || grants.length === 0}
          onClick={() => void onSave({ name, grants })}
        >
          Save role
        </Act>
        <Act onClick={onClose}>Cancel</Act>
      </Flex>
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
