'use client';

import { ActLink } from '@/ui/controls';
import type { ObjectPageData } from '@/workbench/form-data';
import { CallPageLink } from '@/workbench/call-page-link';
import { ObjectPage } from '@/workbench/object-page';
import { CourseHere } from '@/workbench/course-here';
import { WaitLine } from './wait-line';

/** One queue: what its callers meet second by second, who takes their calls, and where they go when nobody does. */
export function QueuePage({ data, introSeconds }: { data: ObjectPageData; introSeconds: number | null }) {
  return (
    <ObjectPage
      data={data}
      listPath="/queues"
      acts={
        <>
          <ActLink href={`/queues/board?queue=${data.object.id}`}>Board</ActLink>
          <ActLink href={`/queues/${data.object.id}/staffing`}>Staffing</ActLink>
        </>
      }
      top={(edit) => (
        <>
          <WaitLine queue={edit.value} introSeconds={introSeconds} options={data.options} />
          <CourseHere around={data.around} kind="queue" id={data.object.id!} />
        </>
      )}
      parts={[
        { title: 'Who takes its calls', fields: ['agents', 'permanentAgents'] },
        { title: 'How calls are offered', fields: ['strategy', 'ringSeconds', 'wrapUpSeconds', 'pausesAfter'] },
        {
          title: 'Further levels, and other queues',
          fields: ['secondAgents', 'secondAfterSeconds', 'thirdAgents', 'thirdAfterSeconds', 'priority'],
          rare: true,
        },
        { title: 'When callers are let in', fields: ['hours', 'closed', 'closingEmpties'] },
        {
          title: 'What callers hear while they wait',
          fields: ['intro', 'introFirst', 'music', 'announceEverySeconds', 'language'],
        },
        {
          title: 'When nobody is free',
          fields: ['longestWaitSeconds', 'waitedTooLong', 'mostWaiting', 'full', 'nobodySignedIn'],
        },
        { title: 'Keys while waiting', fields: ['callbackKey', 'callbackAfterSeconds', 'exitKey', 'exitTo'] },
        {
          title: 'Who is told what goes wrong',
          fields: ['managers', 'tellsAbandoned', 'tellsWaitSeconds', 'tellsNobody', 'answerWithinSeconds'],
          rare: true,
        },
        {
          title: 'A page for callers',
          fields: ['callPage'],
          draw: () => <CallPageLink page={data.object.callPage} />,
          rare: true,
        },
        { title: 'Where it stands', fields: ['digits', 'name', 'site'] },
        { title: 'Recording', fields: ['recorded', 'consent'], rare: true },
        { title: 'Note', fields: ['note'], rare: true },
      ]}
    />
  );
}
