'use client';

import { ObjectPage } from '@/workbench/object-page';
import type { ObjectPageData } from '@/workbench/form-data';

export function NumberAdditionPage({ data }: { data: ObjectPageData }) {
  return (
    <ObjectPage
      data={data}
      listPath="/numbers"
      parts={[
        { title: 'Numbering addition', fields: ['from', 'to', 'country', 'kind'] },
        { title: 'Why', fields: ['note'], wide: true },
      ]}
    />
  );
}
