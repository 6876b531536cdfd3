'use client';

import { ActLink } from '@/ui/controls';
import type { ObjectPageData } from '@/workbench/form-data';
import { ObjectPage } from '@/workbench/object-page';
import { Picture } from '@/workbench/picture';

export function RungPage({ data }: { data: ObjectPageData }) {
  const ladder = `/outbound?ladder=${String(data.object.ladder)}`;
  const fixed = data.object.show === 'fixed';
  return (
    <ObjectPage
      data={data}
      listPath={ladder}
      acts={<ActLink href={ladder}>Its ladder</ActLink>}
      top={() => <Picture around={data.around} />}
      parts={[
        { title: 'Which digits it takes', fields: ['name', 'map'] },
        { title: 'Where these calls leave', fields: ['trunks'] },
        { title: 'What is made of the digits', fields: ['strip', 'prepend', 'reading', 'asDialled'] },
        { title: 'What the called side sees', fields: ['show', ...(fixed ? ['fixedNumber'] : [])] },
        { title: 'Only at some times', fields: ['hours'], rare: true },
        { title: 'Only for some phones', fields: ['forPeople', 'forTeams', 'forSites'], rare: true },
        { title: 'Refused to some phones', fields: ['notForPeople', 'notForTeams', 'notForSites'], rare: true },
        { title: 'Note', fields: ['note'], rare: true },
      ]}
    />
  );
}
