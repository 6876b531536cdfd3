'use client';

import { CourseView, CourseWaits } from '@/ui/course-view';
import { Later } from '@/ui/later';
import { ObjectPage } from '@/workbench/object-page';
import type { ObjectPageData } from '@/workbench/form-data';

export function InboundRoutePage({ data }: { data: ObjectPageData }) {
  return (
    <ObjectPage
      data={data}
      listPath="/inbound"
      top={() => (
        <Later of={data.around} waiting={<CourseWaits />}>
          {({ course }) => (course ? <CourseView course={course} /> : null)}
        </Later>
      )}
      parts={[
        { title: 'What it takes', fields: ['name', 'numbers', 'calledMap', 'trunk'] },
        { title: 'Who calls', fields: ['callingMap', 'callingWithheld'] },
        { title: 'Where it leads', fields: ['leadsTo', 'dialledExtension'] },
        { title: 'Why', fields: ['note'], wide: true },
      ]}
    />
  );
}
