'use client';

import { ObjectPage } from '@/workbench/object-page';
import type { ObjectPageData } from '@/workbench/form-data';
import { PinPart } from '@/workbench/extension/pin-part';

export function MailboxPage({ data }: { data: ObjectPageData }) {
  return (
    <ObjectPage
      data={data}
      listPath="/mailboxes"
      parts={[
        { title: 'Mailbox', fields: ['name', 'site', 'on', 'owners'] },
        { title: 'Mail', fields: ['email', 'attachSound', 'afterMail'] },
        { title: 'Greetings', fields: ['greeting', 'greetingBusy', 'greetingAway'] },
        {
          title: 'Playback and size',
          fields: ['announceNumber', 'announceTime', 'mostMessages', 'longestMessageSeconds'],
        },
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
