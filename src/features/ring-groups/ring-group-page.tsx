'use client';

import { FieldControl } from '@/workbench/field-control';
import type { ObjectPageData } from '@/workbench/form-data';
import { ObjectPage } from '@/workbench/object-page';
import { CourseHere } from '@/workbench/course-here';
import { RingLine } from './ring-line';

/** What is asked only where members join by stages. */
const STAGES = ['stageSeconds', 'stageMembers', 'stages'];

/** One ring group: whose phones ring when, drawn on a line of time, and what follows. */
export function RingGroupPage({ data }: { data: ObjectPageData }) {
  return (
    <ObjectPage
      data={data}
      listPath="/ring-groups"
      top={(edit) => (
        <>
          <RingLine group={edit.value} options={data.options} />
          <CourseHere around={data.around} kind="ringGroup" id={data.object.id!} />
        </>
      )}
      parts={[
        {
          title: 'Whose phones ring',
          fields: ['members', 'outside', 'order', 'ringSeconds'],
          draw: (edit) =>
            edit.value.order === 'by stages'
              ? data.fields
                  .filter((f) => STAGES.includes(f.field))
                  .map((fact) => <FieldControl key={fact.field} fact={fact} edit={edit} data={data} />)
              : null,
        },
        { title: 'When nobody takes the call', fields: ['noAnswer', 'allBusy'] },
        { title: 'Heard and shown', fields: ['music', 'shownName'] },
        { title: 'Who is passed over, and keys', fields: ['skipBusy', 'keyToTake', 'forwards'], rare: true },
        { title: 'Where it stands', fields: ['digits', 'name', 'site'] },
        { title: 'Note', fields: ['note'], rare: true },
      ]}
    />
  );
}
