'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call } from '@/ui/api';
import { Act, ActLink, Labelled, SelectBox, TextBox } from '@/ui/controls';
import { Digits } from '@/ui/digits';
import { useFocusNote } from '@/ui/workspace';
import { ObjectPage } from '../objects/object-page';
import type { ObjectPageData } from '../objects/form-data';
import { tracePath } from '../objects/paths';
import { PasswordOnce } from './password-once';
import { PinPart } from './pin-part';

interface Props {
  data: ObjectPageData;
  forwarding: { when: string; to: string; since: string }[];
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
        { title: 'Own numbers', draw: () => <Numbers numbers={numbers} /> },
        { title: 'Shown outside', fields: ['outgoingNumber', 'withholdNumber'] },
        { title: 'When nobody answers', fields: ['ringSeconds', 'mailbox'] },
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

function Numbers({ numbers }: { numbers: { id: string; e164: string }[] }) {
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

const WHEN_WORDS: Record<string, string> = {
  always: 'every call',
  busy: 'when busy',
  'no answer': 'when nobody answers',
  unreachable: 'when the phone is off',
};

/** Personal forwarding acts at once: it is no part of the draft. */
function ForwardingPart({
  extension,
  forwarding,
  may,
}: {
  extension: string;
  forwarding: { when: string; to: string; since: string }[];
  may: boolean;
}) {
  const router = useRouter();
  const [when, setWhen] = useState('always');
  const [to, setTo] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const note = useFocusNote(
    'Forward to',
    'Digits as this phone would dial them, outside prefix included. Example: 2105, or 907700900123. Its class must allow forwarding there.',
  );
  const put = async (body: { when: string; to: string | null }) => {
    const done = await call('PUT', `/extensions/${extension}/forwarding`, body);
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    if (done.ok) setTo('');
    router.refresh();
  };
  return (
    <Box>
      {forwarding.length === 0 ? (
        <Box color="quiet" mb="8px">
          Nothing is forwarded.
        </Box>
      ) : null}
      {forwarding.map((f) => (
        <Flex key={f.when} align="center" gap="10px" mb="6px">
          <Box>
            {WHEN_WORDS[f.when]} goes to <Digits>{f.to}</Digits> since {f.since.slice(0, 16).replace('T', ' ')} UTC
          </Box>
          {may ? (
            <Act h="24px" onClick={() => put({ when: f.when, to: null })}>
              End it now
            </Act>
          ) : null}
        </Flex>
      ))}
      {may ? (
        <Flex gap="8px" align="flex-end" wrap="wrap">
          <Box w="190px">
            <Labelled title="Forward" htmlFor="forward-when">
              <SelectBox id="forward-when" value={when} onChange={(e) => setWhen(e.target.value)}>
                {Object.entries(WHEN_WORDS).map(([k, w]) => (
                  <option key={k} value={k}>
                    {w}
                  </option>
                ))}
              </SelectBox>
            </Labelled>
          </Box>
          <Box w="190px">
            <Labelled title="to" htmlFor="forward-to">
              <TextBox
                id="forward-to"
                fontFamily="mono"
                value={to}
                {...note}
                onChange={(e) => setTo(e.target.value.replace(/\s/g, ''))}
              />
            </Labelled>
          </Box>
          <Act disabled={to === ''} onClick={() => put({ when, to })}>
            Forward now
          </Act>
        </Flex>
      ) : null}
      {wrong ? (
        <Box role="alert" color="brick" fontSize="13px" mt="4px">
          {wrong}
        </Box>
      ) : null}
    </Box>
  );
}
