'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { call } from '@/workbench/api';
import { Act, Labelled, TextBox } from '@/ui/controls';
import { useFocusNote } from '@/ui/workspace';
import { ObjectPage } from '@/workbench/object-page';
import { Picture } from '@/workbench/picture';
import type { ObjectPageData } from '@/workbench/form-data';
import { ChannelCells } from './channel-cells';
import { useRefresh } from '@/ui/refresh';

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
          <Box mt="14px">
            <Picture around={data.around} />
          </Box>
        </Box>
      )}
      parts={[
        {
          title: 'Whose line it is and where it ends',
          fields: ['name', 'kind', 'site', 'enabled', ...(isdn ? [] : ['host']), ...(registers ? ['account'] : [])],
        },
        ...(registers && data.canEdit
          ? [
              {
                title: 'How it signs in',
                draw: () => <PasswordPart id={data.object.id!} set={data.object.password !== null} />,
              },
            ]
          : []),
        { title: 'How many calls it carries', fields: ['channels', 'keptForIncoming', 'keptForEmergency'] },
        { title: 'What it delivers with calls in', fields: ['deliveredLength', 'deliveredForm', 'deliveredHead'] },
        { title: 'Where calls go that no number or route takes', fields: ['otherwise', 'overflowTo'] },
        {
          title: 'What it wants with calls out',
          fields: ['writes', 'carrierPrefix', ...(isdn ? ['isdnNumberType'] : []), 'ownNumber'],
        },
        { title: 'How calls sound', fields: ['codecs', 'transcoding'], rare: true },
        {
          title: 'Forwarded and transferred calls',
          fields: ['showsOriginalCaller', 'diversionMark', ...(isdn ? [] : ['asserts']), 'transit', 'recallSeconds'],
          rare: true,
        },
        { title: 'Timing', fields: ['answerSeconds', ...(isdn ? ['channelChoice'] : [])], rare: true },
        { title: 'Note', fields: ['note'], rare: true },
      ]}
    />
  );
}

function PasswordPart({ id, set }: { id: string; set: boolean }) {
  const refresh = useRefresh();
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
    refresh();
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
