'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { CODECS } from '@/core/plan/facts/codecs';
import { call } from '@/workbench/api';
import { Act, Labelled, TextBox, TickBox } from '@/ui/controls';
import { useFocusNote } from '@/ui/workspace';
import type { ObjectEdit } from '@/workbench/edits';
import { ObjectPage } from '@/workbench/object-page';
import type { ObjectPageData } from '@/workbench/form-data';
import { ChannelCells } from './channel-cells';

export function TrunkPage({ data }: { data: ObjectPageData }) {
  const isdn = data.object.kind === 'isdn';
  const registers = data.object.kind === 'sip-registration';
  return (
    <ObjectPage
      data={data}
      listPath="/trunks"
      top={(edit) => (
        <Box>
          <ChannelCells
            channels={Number(edit.value.channels) || 0}
            kept={Number(edit.value.keptForIncoming) || 0}
            emergency={Number(edit.value.keptForEmergency) || 0}
          />
          <Flex gap="16px" mt="6px" fontSize="12px" color="quiet">
            <span>□ free for calls out</span>
            <Box as="span" color="lake">
              ■ kept for calls in
            </Box>
            <Box as="span" color="brick">
              ■ kept for emergency calls
            </Box>
          </Flex>
        </Box>
      )}
      parts={[
        {
          title: 'Carrier',
          fields: ['name', 'kind', 'site', 'enabled', ...(isdn ? [] : ['host']), ...(registers ? ['account'] : [])],
        },
        ...(registers && data.canEdit
          ? [
              {
                title: 'Password',
                draw: () => <PasswordPart id={data.object.id!} set={data.object.password !== null} />,
              },
            ]
          : []),
        {
          title: 'Channels',
          fields: [
            'channels',
            'keptForIncoming',
            'keptForEmergency',
            'answerSeconds',
            ...(isdn ? ['channelChoice'] : []),
          ],
        },
        { title: 'Codecs', fields: ['transcoding'], draw: (edit) => <Codecs edit={edit} disabled={!data.canEdit} /> },
        {
          title: 'Calls in: what it delivers',
          fields: ['deliveredLength', 'deliveredForm', 'deliveredHead', 'otherwise', 'overflowTo'],
        },
        {
          title: 'Calls out: what it wants',
          fields: ['writes', 'carrierPrefix', ...(isdn ? ['isdnNumberType'] : []), 'ownNumber', 'transit'],
        },
        {
          title: 'Forwarded and transferred calls',
          fields: ['showsOriginalCaller', 'diversionMark', ...(isdn ? [] : ['asserts']), 'recallSeconds'],
        },
        { title: 'Why', fields: ['note'], wide: true },
      ]}
    />
  );
}

function PasswordPart({ id, set }: { id: string; set: boolean }) {
  const router = useRouter();
  const [password, setPassword] = useState('');
  const [said, setSaid] = useState<string | null>(null);
  const note = useFocusNote(
    'Password',
    'From the carrier’s letter. Kept encrypted; it stands in no plan, answer or history.',
  );
  const put = async () => {
    const done = await call('trunkPassword', { params: { id }, body: { password } });
    setSaid(done.ok ? 'The new password is in the draft.' : done.errors[0]!.sentence);
    if (done.ok) setPassword('');
    router.refresh();
  };
  return (
    <Box maxW="380px">
      <Labelled
        title={set ? 'New password (one is set)' : 'Password (none is set)'}
        htmlFor="trunk-password"
        hint={said}
      >
        <Flex gap="8px">
          <TextBox
            id="trunk-password"
            type="password"
            autoComplete="new-password"
            value={password}
            {...note}
            onChange={(e) => setPassword(e.target.value)}
          />
          <Act disabled={password === ''} onClick={put}>
            Set password
          </Act>
        </Flex>
      </Labelled>
    </Box>
  );
}

/** Codecs in order of preference: those taken first, in the order they were ticked. */
function Codecs({ edit, disabled }: { edit: ObjectEdit; disabled: boolean }) {
  const taken = edit.value.codecs as string[];
  const note = useFocusNote(
    'Codecs',
    'What the far end accepts, best first. Example: G.711A, then G.722. Two sides without a common codec can’t talk.',
  );
  return (
    <Box>
      <Flex gap="16px" wrap="wrap">
        {CODECS.map((c) => (
          <Flex as="label" key={c} gap="6px" align="center">
            <TickBox
              type="checkbox"
              disabled={disabled}
              checked={taken.includes(c)}
              {...note}
              onChange={() => edit.choose('codecs', taken.includes(c) ? taken.filter((x) => x !== c) : [...taken, c])}
            />
            {c}
            {taken.includes(c) && taken.length > 1 ? (
              <Box as="span" color="quiet" fontSize="12px">
                {taken.indexOf(c) + 1}
              </Box>
            ) : null}
          </Flex>
        ))}
      </Flex>
      {edit.errorOf('codecs') ? (
        <Box role="alert" color="brick" fontSize="13px">
          {edit.errorOf('codecs')}
        </Box>
      ) : null}
    </Box>
  );
}
