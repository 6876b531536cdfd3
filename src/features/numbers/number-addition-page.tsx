'use client';

import type { ObjectPageData } from '@/workbench/form-data';
import { ObjectPage } from '@/workbench/object-page';

export function NumberAdditionPage({ data }: { data: ObjectPageData }) {
  return (
    <ObjectPage
      data={data}
      listPath="/numbers"
      parts={[
        { title: 'Which numbers it adds', fields: ['from', 'to', 'country', 'kind'] },
        { title: 'Note', fields: ['note'], rare: true },
      ]}
    />
  );
}
