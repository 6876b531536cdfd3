'use client';

import type { ObjectPageData } from '@/workbench/form-data';
import { ObjectPage } from '@/workbench/object-page';
import { Picture } from '@/workbench/picture';

export function InboundRoutePage({ data }: { data: ObjectPageData }) {
  return (
    <ObjectPage
      data={data}
      listPath="/inbound"
      top={() => <Picture around={data.around} course />}
      parts={[
        { title: 'Which calls it takes', fields: ['numbers', 'calledMap'] },
        { title: 'Where they go', fields: ['leadsTo', 'dialledExtension'] },
        { title: 'Only from some callers', fields: ['callingMap', 'callingWithheld', 'trunk'], rare: true },
        { title: 'Name and note', fields: ['name', 'note'], rare: true },
      ]}
    />
  );
}
