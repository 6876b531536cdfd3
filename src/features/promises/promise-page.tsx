'use client';

import { Box } from '@chakra-ui/react';
import { NAMES_ENDS, type PromiseMust } from '@/core/plan/facts/promises';
import type { ObjectPageData } from '@/workbench/form-data';
import { ObjectPage } from '@/workbench/object-page';
import { VerdictPart } from './verdict';

/** One promise: the sentence that its fields make, and whether it holds. */
export function PromisePage({ data, says }: { data: ObjectPageData; says: string }) {
  const { from, must, when } = data.object as unknown as { from: string; must: PromiseMust; when: string };
  const phones = from === 'phones';
  return (
    <ObjectPage
      data={data}
      listPath="/promises"
      top={() => (
        <>
          <Box fontSize="17px" mb="12px" maxW="760px" data-testid="sentence">
            {says}
          </Box>
          <VerdictPart id={String(data.object.id)} />
        </>
      )}
      parts={[
        {
          title: 'Whose calls',
          fields: phones
            ? ['from', 'fromSites', 'fromClasses', 'fromTeams', 'fromPhones']
            : ['from', 'fromNumbers', 'fromTrunks', 'fromSites'],
        },
        ...(phones ? [{ title: 'What is dialled', fields: ['dialKinds', 'dialMap'] }] : []),
        {
          title: 'What must be so',
          fields: [
            'must',
            ...(NAMES_ENDS.has(must) ? ['ends', 'places'] : []),
            ...(must === 'rings somebody within' ? ['seconds'] : []),
            'trunksDown',
            'firm',
          ],
        },
        { title: 'When', fields: ['when', ...(when === 'always' ? [] : ['hours']), 'weekly'] },
        { title: 'Name and note', fields: ['name', 'note'], rare: true },
      ]}
    />
  );
}
