'use client';

import { ActLink } from '@/ui/controls';
import { ObjectPage } from '@/workbench/object-page';
import type { ObjectPageData } from '@/workbench/form-data';

export function RungPage({ data }: { data: ObjectPageData }) {
  const ladder = `/outbound?ladder=${String(data.object.ladder)}`;
  const fixed = data.object.show === 'fixed';
  return (
    <ObjectPage
      data={data}
      listPath={ladder}
      acts={<ActLink href={ladder}>Its ladder</ActLink>}
      parts={[
        { title: 'What it takes', fields: ['name', 'map'] },
        { title: 'How the digits are read', fields: ['strip', 'prepend', 'reading', 'asDialled'] },
        { title: 'Where it leaves', fields: ['trunks'] },
        { title: 'What is shown', fields: ['show', ...(fixed ? ['fixedNumber'] : [])] },
        { title: 'When', fields: ['hours'] },
        { title: 'Who', fields: ['forPeople', 'forTeams', 'forSites', 'notForPeople', 'notForTeams', 'notForSites'] },
        { title: 'Why', fields: ['note'], wide: true },
      ]}
    />
  );
}
