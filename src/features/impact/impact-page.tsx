'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { Answer } from '@/contract';
import { Act, Empty, SelectBox, Wrong } from '@/ui/controls';
import { Link } from '@/ui/link';
import { Workspace } from '@/ui/workspace';
import { CallCell, EndCell, GroupTable, HowMany, sayShare } from '@/workbench/call-groups';
import { LongWait } from '@/workbench/long-wait';
import { useLong } from '@/workbench/use-long';

type Group = Answer<'impact'>['groups'][number];

const keyOf = (edit: Group['edits'][number]) => `${edit.kind} ${edit.id}`;

/** Every kind of call that ends otherwise between two plans, and the edits behind it. */
export function ImpactPage({ from, to }: { from: string; to: string }) {
  const asked = useLong('impact', { query: { from, to } });
  const { value, wrong, waiting } = asked;
  const [edit, setEdit] = useState<string | null>(null);
  const groups = value?.groups ?? [];
  const edits = new Map(groups.flatMap((g) => g.edits.map((e) => [keyOf(e), e.label] as const)));
  const [by, setBy] = useState('');
  const [site, setSite] = useState('');
  const people = [...new Set(groups.flatMap((g) => g.edits.flatMap((e) => e.by ?? [])))].sort();
  const sites = Object.entries(value?.sites ?? {}).filter(([id]) => groups.some((g) => g.sites.includes(id)));
  const shown = groups.filter(
    (g) =>
      (edit === null || g.edits.some((e) => keyOf(e) === edit)) &&
      (by === '' || g.edits.some((e) => e.by === by)) &&
      (site === '' || g.sites.includes(site)),
  );
  const between = `${nameOf(from)} and ${nameOf(to)}`;
  return (
    <Workspace
      title="Impact"
      count={value ? String(groups.length) : undefined}
      lead={`Every call that goes otherwise between ${between}: over all numbers, callers, dialled digits, keys, and times of the next 53 weeks. Nothing is sampled.`}
    >
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      <LongWait asked={asked} doing="Every call is being asked of both plans." />
      <Box aria-busy={waiting} minH="200px">
        {value && groups.length === 0 ? (
          <Empty>
            {value.edits === 0
              ? `There is no difference between ${between}.`
              : `${value.edits} ${value.edits === 1 ? 'object differs' : 'objects differ'}, and nothing changes for anyone: every call there can be was asked of both.`}
          </Empty>
        ) : null}
        {edits.size > 1 ? (
          <Flex role="group" aria-label="Which edits" gap="4px" wrap="wrap" mb="12px">
            {[[null, 'all edits'] as const, ...edits].map(([key, label]) => (
              <Act key={key ?? ''} aria-pressed={edit === key} onClick={() => setEdit(key)}>
                {label}
              </Act>
            ))}
          </Flex>
        ) : null}
        {people.length > 1 || sites.length > 1 ? (
          <Flex gap="8px" wrap="wrap" mb="12px">
            <SelectBox aria-label="Edited by" w="auto" value={by} onChange={(e) => setBy(e.target.value)}>
              <option value="">edited by anybody</option>
              {people.map((p) => (
                <option key={p} value={p}>
                  edited by {p}
                </option>
              ))}
            </SelectBox>
            <SelectBox aria-label="Site" w="auto" value={site} onChange={(e) => setSite(e.target.value)}>
              <option value="">phones and numbers of all sites</option>
              {sites.map(([id, name]) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </SelectBox>
          </Flex>
        ) : null}
        {value && groups.length > 0 && shown.length === 0 ? (
          <Box color="quiet">No call of this choice ends otherwise.</Box>
        ) : null}
        {shown.length > 0 ? (
          <GroupTable
            titles={['Whose calls', 'Was', 'Will be', 'In what', 'For how long', 'Such as', 'Edits behind it']}
          >
            {shown.map((g, i) => (
              <chakra.tr key={i} borderTop="1px solid" borderColor="line">
                <HowMany group={g} />
                <EndCell end={g.was} nothing="nothing there" />
                <EndCell end={g.willBe} nothing="nothing there" />
                <td>{g.aspects.join(', ')}</td>
                <td>{sayShare(g.share)}</td>
                <CallCell call={g.example.call} plans={{ of: to, beside: from }} />
                <td>
                  {g.edits.map((e) => (
                    <Box key={keyOf(e)}>{e.label}</Box>
                  ))}
                </td>
              </chakra.tr>
            ))}
          </GroupTable>
        ) : null}
        <Box mt="14px">
          <Link href="/go-live">Read the edits</Link>
        </Box>
      </Box>
    </Workspace>
  );
}

const nameOf = (of: string): string => (of === 'draft' || of === 'live' ? `the ${of} plan` : `revision ${of}`);
