'use client';

import { Box } from '@chakra-ui/react';
import { SERVICE_TARGETS } from '@/core/plan/facts/services';
import type { PlaceName } from '@/core/plan/facts/places';
import type { ObjectPageData } from '@/workbench/form-data';
import { ObjectPage, type Part } from '@/workbench/object-page';
import { Picture } from '@/workbench/picture';
import { WeekStrip } from '@/workbench/week-strip';

/** What each kind of place does, field by field; a service code asks only for what its service acts on. */
const DOES: Record<Exclude<PlaceName, 'codes'>, string[]> = {
  'park-places': ['returnSeconds', 'returnTo'],
  'page-groups': ['members'],
  conferences: ['mostMembers'],
  directories: ['scope', 'prompt', 'digitSeconds', 'chooseSeconds', 'tries', 'otherwise'],
  announcements: ['prompt', 'leadsTo'],
  faxes: ['email'],
  'outside-numbers': ['dial', 'class'],
  tones: ['tone'],
};

/** One place of the number space: what it does, its digits, what leads there. */
export function PlacePage({ name, data }: { name: PlaceName; data: ObjectPageData }) {
  const target = name === 'codes' ? SERVICE_TARGETS[data.object.service as keyof typeof SERVICE_TARGETS] : undefined;
  const does =
    name === 'codes'
      ? ['service', ...(target ? [target] : []), ...(data.object.service === 'pick up' ? ['phones'] : [])]
      : DOES[name];
  const parts: Part[] = [
    { title: 'What it does', fields: does },
    { title: 'Where it stands', fields: ['digits', 'name', 'site'] },
    { title: 'Note', fields: ['note'], rare: true },
  ];
  return (
    <ObjectPage
      data={data}
      listPath={`/places/${name}`}
      top={() => (
        <>
          <Picture around={data.around} />
          {name === 'codes' || name === 'tones' ? null : (
            <Box maxW="760px">
              <WeekStrip kind={data.kind} id={String(data.object.id)} title="calls that come here" />
            </Box>
          )}
        </>
      )}
      parts={parts}
    />
  );
}
