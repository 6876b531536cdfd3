'use client';

import { Box } from '@chakra-ui/react';
import { ActLink } from '@/ui/controls';
import { CallPageLink } from '@/workbench/call-page-link';
import { ObjectPage } from '@/workbench/object-page';
import type { ObjectPageData } from '@/workbench/form-data';
import { Picture } from '@/workbench/picture';
import { WeekStrip } from '@/workbench/week-strip';
import { tracePath } from '@/workbench/paths';
import { ForwardingPart, type Forwarding } from '@/workbench/extension/forwarding-part';
import { OwnNumbers } from '@/workbench/extension/own-numbers';
import { PasswordOnce } from '@/workbench/extension/password-once';
import { PinPart } from '@/workbench/extension/pin-part';

interface Props {
  data: ObjectPageData;
  forwarding: Forwarding[];
  pinSet: boolean;
  numbers: { id: string; e164: string }[];
}

export function ExtensionPage({ data, forwarding, pinSet, numbers }: Props) {
  const o = data.object as { id: string; digits: string; kind: string; mailbox: string | null };
  const may = (right: string) => data.rights.includes(right);
  return (
    <ObjectPage
      data={data}
      listPath="/extensions"
      acts={
        <>
          <ActLink href={tracePath(o.digits, '112')}>Ask as {o.digits}</ActLink>
          {data.canEdit ? <ActLink href={`/extensions/new?like=${o.id}`}>Another like this</ActLink> : null}
        </>
      }
      top={() => (
        <>
          <Picture around={data.around} />
          <Box maxW="760px" mt="14px">
            <WeekStrip kind="extension" id={o.id} />
          </Box>
        </>
      )}
      parts={[
        { title: 'Whose it is and what is dialled', fields: ['digits', 'name', 'person', 'kind', 'site'] },
        { title: 'What it may dial and shows', fields: ['class', 'outgoingNumber', 'withholdNumber'] },
        { title: 'Its own numbers', draw: () => <OwnNumbers numbers={numbers} /> },
        { title: 'When nobody answers', fields: ['ringSeconds', 'mailbox', 'reachPlan'] },
        {
          title: 'Forwarding, at once',
          draw: () => <ForwardingPart extension={o.id} forwarding={forwarding} may={may('setForwarding')} />,
        },
        ...(o.mailbox
          ? [
              {
                title: 'How its mailbox is opened',
                draw: () => <PinPart mailbox={o.mailbox!} digits={o.digits} may={may('resetPin')} pinSet={pinSet} />,
              },
            ]
          : []),
        { title: 'How many calls at once', fields: ['lines', 'callWaiting', 'rejectsWithheld'], rare: true },
        ...(o.kind === 'virtual'
          ? []
          : [
              {
                title: 'Where its phone stands, and how it signs in',
                fields: ['place', 'emergencyCallback'],
                draw: () => (may('seeSecrets') ? <PasswordOnce extension={o.id} mayMake={data.canEdit} /> : null),
              },
            ]),
        {
          title: 'A page for callers',
          fields: ['callPage'],
          draw: () => <CallPageLink page={data.object.callPage} />,
          rare: true,
        },
        { title: 'Note', fields: ['note'], rare: true },
      ]}
    />
  );
}
