'use client';

import { ObjectPage } from '../objects/object-page';
import type { ObjectPageData } from '../objects/form-data';
import { PinPart } from './pin-part';

export function MailboxPage({ data }: { data: ObjectPageData }) {
  return (
    <ObjectPage
      data={data}
      listPath="/mailboxes"
      parts={[
        { title: 'Mailbox', fields: ['name', 'site', 'owner', 'email'] },
        {
          title: 'PIN',
          draw: () => (
            <PinPart
              mailbox={data.object.id!}
              digits={null}
              may={data.rights.includes('resetPin')}
              account={data.account}
            />
          ),
        },
        { title: 'Why', fields: ['note'], wide: true },
      ]}
    />
  );
}
