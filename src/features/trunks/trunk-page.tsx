'use client';

import { OneFieldForm } from '@/workbench/one-field-form';
import { Box, Flex } from '@chakra-ui/react';
import { CallsLinks } from '@/workbench/calls-links';
import { ObjectPage } from '@/workbench/object-page';
import { Picture } from '@/workbench/picture';
import type { ObjectPageData } from '@/workbench/form-data';
import { ChannelCells } from './channel-cells';

export function TrunkPage({ data }: { data: ObjectPageData }) {
  const isdn = data.object.kind === 'isdn';
  const registers = data.object.kind === 'sip-registration';
  return (
    <ObjectPage
      data={data}
      listPath="/trunks"
      acts={<CallsLinks rights={data.rights} filter={{ trunk: String(data.object.id) }} traffic />}
      top={(edit) => (
        <Box>
          <ChannelCells
            channels={Number(edit.value.channels) || 0}
            kept={Number(edit.value.keptForIncoming) || 0}
            emergency={Number(edit.value.keptForEmergency) || 0}
          />
          <Flex columnGap="16px" wrap="wrap" mt="6px" fontSize="12px" color="quiet" whiteSpace="nowrap">
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
  return (
    <Box maxW="380px">
      <OneFieldForm
        operation="trunkPassword"
        input={(password) => ({ params: { id }, body: { password } })}
        id="trunk-password"
        title={set ? 'New password (one is set)' : 'Password (none is set)'}
        note="From the carrier’s letter. Kept encrypted; it stands in no plan, answer or history."
        act="Set password"
        done="The new password is in the draft."
        type="password"
        autoComplete="new-password"
      />
    </Box>
  );
}
