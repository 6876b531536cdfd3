'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { ActLink } from '@/ui/controls';
import { Digits } from '@/ui/digits';
import { ObjectPage } from '../objects/object-page';
import type { ObjectPageData } from '../objects/form-data';
import { tracePath } from '../objects/paths';
import { ForwardingPart, type Forwarding } from './forwarding-part';
import { PasswordOnce } from './password-once';
import { PinPart } from './pin-part';

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

export function OwnNumbers({ numbers }: { numbers: { id: string; e164: string }[] }) {
  return (
    <Flex gap="10px" align="center" wrap="wrap">
      {numbers.length === 0 ? (
        <Box color="quiet">None: callers outside reach it only through something else.</Box>
      ) : null}
      {numbers.map((n) => (
        <chakra.a key={n.id} href={`/numbers/${n.id}`}>
          <Digits>{n.e164}</Digits>
        </chakra.a>
      ))}
    </Flex>
  );
}
