'use client';

import { PinPart } from '@/workbench/extension/pin-part';
import { MessagesPart } from '@/workbench/messages/messages-part';
import { nameIn, type ObjectPageData } from '@/workbench/form-data';
import { ObjectPage } from '@/workbench/object-page';
import { Picture } from '@/workbench/picture';

/** A mailbox: who hears what is left in it, and what callers hear before they leave it. */
export function MailboxPage({ data }: { data: ObjectPageData }) {
  const nameOf = nameIn(data.options.person);
  const owners = (data.object.owners as string[]).map((id) => nameOf(id) ?? 'somebody');
  return (
    <ObjectPage
      data={data}
      listPath="/mailboxes"
      top={() => <Picture around={data.around} />}
      parts={[
        { title: 'Messages', draw: () => <MessagesPart mailbox={data.object.id!} owners={owners} /> },
        { title: 'Who listens, and how they are told', fields: ['owners', 'email', 'attachSound', 'afterMail'] },
        { title: 'What callers hear', fields: ['on', 'greeting', 'greetingBusy', 'greetingAway', 'exitKey', 'exitTo'] },
        {
          title: 'How it is opened',
          draw: () => <PinPart mailbox={data.object.id!} digits={null} may={data.rights.includes('resetPin')} />,
        },
        { title: 'What is said before a message', fields: ['announceNumber', 'announceTime'], rare: true },
        { title: 'How much it holds', fields: ['mostMessages', 'full', 'longestMessageSeconds'], rare: true },
        { title: 'Name, place and note', fields: ['name', 'site', 'note'], rare: true },
      ]}
    />
  );
}
