'use client';

import { PinPart } from '@/workbench/extension/pin-part';
import type { ObjectPageData } from '@/workbench/form-data';
import { ObjectPage } from '@/workbench/object-page';
import { Picture } from '@/workbench/picture';

/** A mailbox: who hears what is left in it, and what callers hear before they leave it. */
export function MailboxPage({ data }: { data: ObjectPageData }) {
  return (
    <ObjectPage
      data={data}
      listPath="/mailboxes"
      top={() => <Picture around={data.around} />}
      parts={[
        { title: 'Who listens, and how they are told', fields: ['owners', 'email', 'attachSound', 'afterMail'] },
        { title: 'What callers hear', fields: ['on', 'greeting', 'greetingBusy', 'greetingAway'] },
        {
          title: 'How it is opened',
          draw: () => <PinPart mailbox={data.object.id!} digits={null} may={data.rights.includes('resetPin')} />,
        },
        { title: 'What is said before a message', fields: ['announceNumber', 'announceTime'], rare: true },
        { title: 'How much it holds', fields: ['mostMessages', 'longestMessageSeconds'], rare: true },
        { title: 'Name, place and note', fields: ['name', 'site', 'note'], rare: true },
      ]}
    />
  );
}
