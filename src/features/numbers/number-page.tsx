'use client';

import { ActLink } from '@/ui/controls';
import { CourseView, CourseWaits } from '@/ui/course-view';
import { Later } from '@/ui/later';
import { ObjectPage } from '@/workbench/object-page';
import type { ObjectPageData } from '@/workbench/form-data';
import { tracePath } from '@/workbench/paths';

export function NumberPage({ data }: { data: ObjectPageData }) {
  return (
    <ObjectPage
      data={data}
      listPath="/numbers"
      acts={<ActLink href={tracePath('outside', String(data.object.e164))}>Ask from outside</ActLink>}
      top={() => (
        <Later of={data.around} waiting={<CourseWaits />}>
          {({ course }) => (course ? <CourseView course={course} /> : null)}
        </Later>
      )}
      parts={[
        { title: 'Number', fields: ['e164', 'state', 'activeFrom', 'site', 'trunk'] },
        { title: 'Where it leads', fields: ['belongsTo'], wide: true },
        { title: 'Why', fields: ['note'], wide: true },
      ]}
    />
  );
}
