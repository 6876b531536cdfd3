'use client';

import { ActLink } from '@/ui/controls';
import { AskHere } from '@/workbench/ask-here';
import type { ObjectPageData } from '@/workbench/form-data';
import { NoticesHere, useNotice } from '@/workbench/notices-here';
import { CallsLinks } from '@/workbench/calls-links';
import { ObjectPage } from '@/workbench/object-page';
import { tracePath } from '@/workbench/paths';
import { CourseHere } from '@/workbench/course-here';

export function NumberPage({ data, zone }: { data: ObjectPageData; zone: string | null }) {
  const { id, e164 } = data.object as { id: string; e164: string };
  const notice = useNotice(
    { kind: 'number', id, label: data.label, zone },
    data.account,
    data.rights.includes('actNow'),
  );
  return (
    <ObjectPage
      data={data}
      listPath="/numbers"
      acts={
        <>
          {notice.act}
          <CallsLinks rights={data.rights} filter={{ number: e164 }} />
          <ActLink href={`/book?number=${id}`}>Call-flow book</ActLink>
          <ActLink href={tracePath('outside', e164)}>Ask from outside</ActLink>
        </>
      }
      top={() => (
        <>
          {notice.panel}
          <NoticesHere id={id} />
          <CourseHere around={data.around} kind="number" id={id} week={{}} />
          <AskHere dial={e164} />
        </>
      )}
      parts={[
        { title: 'Where its callers go', fields: ['belongsTo'] },
        { title: 'Whose it is and how it arrives', fields: ['site', 'trunk', 'state', 'activeFrom'] },
        { title: 'Number and note', fields: ['e164', 'note'], rare: true },
      ]}
    />
  );
}
