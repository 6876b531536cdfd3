'use client';

import { CourseView } from '@/ui/course-view';
import { ObjectPage } from '@/workbench/object-page';
import type { ObjectPageData } from '@/workbench/form-data';

export function InboundRoutePage({ data }: { data: ObjectPageData }) {
  return (
    <ObjectPage
      data={data}
      listPath="/inbound"
      top={() => (data.course ? <CourseView course={data.course} /> : null)}
      parts={[
        { title: 'What it takes', fields: ['name', 'numbers', 'calledMap', 'trunk'] },
        { title: 'Who calls', fields: ['callingMap', 'callingWithheld'] },
        { title: 'Where it leads', fields: ['leadsTo', 'dialledExtension'] },
        { title: 'Why', fields: ['note'], wide: true },
      ]}
    />
  );
}
