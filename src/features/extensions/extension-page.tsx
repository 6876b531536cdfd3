'use client';

import { Box } from '@chakra-ui/react';
import { ActLink } from '@/ui/controls';
import { ObjectPage } from '@/workbench/object-page';
import type { ObjectPageData } from '@/workbench/form-data';
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
      parts={[
        { title: 'Extension', fields: ['digits', 'name', 'kind', 'site', 'person', 'class'] },
        { title: 'Own numbers', draw: () => <OwnNumbers numbers={numbers} /> },
        { title: 'Shown outside', fields: ['outgoingNumber', 'withholdNumber'] },
        { title: 'Calls in', fields: ['lines', 'callWaiting', 'rejectsWithheld'] },
        { title: 'When nobody answers', fields: ['ringSeconds', 'mailbox', 'reachPlan'] },
        ...(o.mailbox
          ? [
              {
                title: 'Mailbox PIN',
                draw: () => (
                  <PinPart
                    mailbox={o.mailbox!}
                    digits={o.digits}
                    may={may('resetPin')}
                    account={data.account}
                    pinSet={pinSet}
                  />
                ),
              },
            ]
          : []),
        {
          title: 'Forwarding, at once',
          draw: () => <ForwardingPart extension={o.id} forwarding={forwarding} may={may('setForwarding')} />,
        },
        ...(o.kind === 'virtual'
          ? []
          : [
              {
                title: 'Phone',
                fields: ['place', 'emergencyCallback'],
                draw: () =>
                  may('seeSecrets') ? (
                    <Box mt="12px">
                      <PasswordOnce extension={o.id} mayMake={data.canEdit} />
                    </Box>
                  ) : null,
              },
            ]),
        { title: 'Why', fields: ['note'], wide: true },
      ]}
    />
  );
}
