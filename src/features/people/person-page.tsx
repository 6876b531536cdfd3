'use client';

import { ObjectPage } from '../objects/object-page';
import type { ObjectPageData } from '../objects/form-data';

export function PersonPage({ data }: { data: ObjectPageData }) {
  return (
    <ObjectPage
      data={data}
      listPath="/people"
      parts={[
        { title: 'Person', fields: ['name', 'email', 'site'] },
        { title: 'Why', fields: ['note'], wide: true },
      ]}
    />
  );
}
