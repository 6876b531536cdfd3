'use client';

import { ActLink } from '@/ui/controls';
import type { ObjectPageData } from '@/workbench/form-data';
import { ObjectPage } from '@/workbench/object-page';
import { tracePath } from '@/workbench/paths';
import { Picture } from '@/workbench/picture';

export function NumberPage({ data }: { data: ObjectPageData }) {
  return (
    <ObjectPage
      data={data}
      listPath="/numbers"
      acts={<ActLink href={tracePath('outside', String(data.object.e164))}>Ask from outside</ActLink>}
      top={() => <Picture around={data.around} course />}
      parts={[
        { title: 'Where its callers go', fields: ['belongsTo'] },
        { title: 'Whose it is and how it arrives', fields: ['site', 'trunk', 'state', 'activeFrom'] },
        { title: 'Number and note', fields: ['e164', 'note'], rare: true },
      ]}
    />
  );
}
