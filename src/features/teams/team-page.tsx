'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { call } from '@/workbench/api';
import { Act, Wrong } from '@/ui/controls';
import { ObjectPage } from '@/workbench/object-page';
import type { ObjectPageData, Option } from '@/workbench/form-data';
import { Picture } from '@/workbench/picture';
import { RefPicker } from '@/workbench/ref-picker';
import { useRefresh } from '@/ui/refresh';

interface Member {
  id: string;
  name: string;
  site: string;
  digits: string;
}

export function TeamPage({
  data,
  members,
  people,
  many,
  mayEditPeople,
}: {
  data: ObjectPageData;
  members: Member[];
  people: Option[];
  many: boolean;
  mayEditPeople: boolean;
}) {
  return (
    <ObjectPage
      data={data}
      listPath="/teams"
      top={() => <Picture around={data.around} />}
      parts={[
        {
          title: `Who is in it: ${members.length}`,
          draw: () => (
            <Members team={data.object.id!} members={members} people={people} many={many} may={mayEditPeople} />
          ),
        },
        { title: 'Name and note', fields: ['name', 'note'] },
      ]}
    />
  );
}

/** Who is in the team; each is put in or taken out as an edit of their own. */
function Members({
  team,
  members,
  people,
  many,
  may,
}: {
  team: string;
  members: Member[];
  people: Option[];
  many: boolean;
  may: boolean;
}) {
  const refresh = useRefresh();
  const [wrong, setWrong] = useState<string | null>(null);
  const change = async (person: string, into: boolean) => {
    const done = await call('teamMember', { params: { id: team, person }, body: { member: into } });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    refresh();
  };
  return (
    <Box maxW="560px">
      {members.map((m) => (
        <Flex key={m.id} minH="32px" py="3px" align="center" gap="12px" borderBottom="1px solid" borderColor="line">
          <chakra.a href={`/people/${m.id}`} flex="1" color="ink">
            {m.name}
          </chakra.a>
          <chakra.span fontFamily="mono" fontSize="13px">
            {m.digits}
          </chakra.span>
          <chakra.span color="quiet" w={{ base: '84px', md: '130px' }}>
            {m.site}
          </chakra.span>
          {may ? (
            <Act h="24px" aria-label={`Take ${m.name} out`} onClick={() => void change(m.id, false)}>
              Take out
            </Act>
          ) : null}
        </Flex>
      ))}
      {may ? (
        <Box mt="8px" maxW="300px">
          <RefPicker
            aria-label="Put somebody in"
            value={null}
            nullable
            placeholder="put somebody in"
            options={people.filter((p) => !members.some((m) => m.id === p.id))}
            search={many ? 'person' : undefined}
            onChange={(id) => id && void change(id, true)}
          />
        </Box>
      ) : null}
      {wrong ? <Wrong>{wrong}</Wrong> : null}
    </Box>
  );
}
