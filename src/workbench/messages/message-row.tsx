'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Flag } from 'lucide-react';
import { useState } from 'react';
import type { Message } from '@/contract/messages';
import { Act, ActLink, TextBox } from '@/ui/controls';
import { Time, useWriting } from '@/ui/time';
import { addressOf } from '../api';
import { FormField } from '../form-field';
import { useActForm } from '../use-act-form';
import { MessagePlayer } from './player';

const WHY: Record<Message['situation'], string> = {
  'no answer': 'nobody answered',
  busy: 'the line was busy',
  away: 'nobody could be reached',
};

/** One message: who called, when, why it came here; played and handled in its row. */
export function MessageRow({
  message: m,
  onRemove,
  onRestore,
  onChange,
  onForwarded,
}: {
  message: Message;
  onRemove: () => void;
  onRestore: () => void;
  onChange: (change: { heard?: boolean; marked?: boolean }) => void;
  onForwarded: (to: string) => void;
}) {
  const [forwards, setForwards] = useState(false);
  const written = useWriting();
  // Two of one caller are told apart by when they came.
  const name = `message from ${m.callingName || m.shown}, ${written(m.received)}`;
  const named = (act: string) => ({ 'aria-label': `${act}, ${name}` });
  const fresh = m.heard.length === 0;
  const sound = (file: '' | 'yes') => addressOf('messageSound', { params: { id: m.id }, query: { file } });
  return (
    <Box
      as="article"
      aria-label={name}
      borderTop="1px solid"
      borderColor="line"
      py="10px"
      pl="10px"
      borderLeft="3px solid"
      borderLeftColor={fresh && !m.deletedAt ? 'plum' : 'transparent'}
      data-message={m.id}
    >
      <Flex gap="10px" align="baseline" wrap="wrap" mb="4px">
        <chakra.span fontWeight={fresh ? 700 : 500}>{m.callingName || m.shown}</chakra.span>
        {m.callingName ? (
          <chakra.span fontFamily="mono" fontSize="13px">
            {m.shown}
          </chakra.span>
        ) : null}
        <chakra.span color="quiet" fontSize="13px">
          <Time iso={m.received} />, {WHY[m.situation]}
        </chakra.span>
        {fresh ? (
          <chakra.span fontSize="12px" color="plum" fontWeight={700}>
            not heard
          </chakra.span>
        ) : null}
        {m.marked ? (
          <chakra.span fontSize="12px" color="ochre" fontWeight={700}>
            marked
          </chakra.span>
        ) : null}
      </Flex>
      {m.forwarded ? (
        <Box fontSize="13px" mb="4px">
          Sent on by {m.forwarded.by}
          {m.forwarded.note ? `: ${m.forwarded.note}` : ''}
        </Box>
      ) : null}
      <MessagePlayer
        src={sound('')}
        name={name}
        seconds={m.seconds}
        peaks={m.peaks}
        onHeard={() => fresh && onChange({ heard: true })}
      />
      <Flex gap="6px" mt="6px" wrap="wrap" align="center">
        {m.deletedAt ? (
          <Act {...named('Bring back')} onClick={onRestore}>
            Bring back
          </Act>
        ) : (
          <>
            <Act {...named(fresh ? 'Heard' : 'Not heard')} onClick={() => onChange({ heard: fresh })}>
              {fresh ? 'Heard' : 'Not heard'}
            </Act>
            <Act
              {...named(m.marked ? 'Unmark' : 'Mark')}
              aria-pressed={m.marked}
              onClick={() => onChange({ marked: !m.marked })}
            >
              <Flag size={14} aria-hidden />
              {m.marked ? 'Unmark' : 'Mark'}
            </Act>
            <Act {...named('Send on …')} aria-expanded={forwards} onClick={() => setForwards(!forwards)}>
              Send on …
            </Act>
            <ActLink {...named('Download')} href={sound('yes')} download>
              Download
            </ActLink>
            <Act {...named('Delete')} onClick={onRemove}>
              Delete
            </Act>
          </>
        )}
        {m.heard.length > 0 ? (
          <Box fontSize="12px" color="quiet" ml={{ md: 'auto' }}>
            heard {m.heard.map((h) => h.name).join(', ')}
          </Box>
        ) : null}
      </Flex>
      {forwards ? (
        <SendOn
          id={m.id}
          onDone={(to) => {
            setForwards(false);
            onForwarded(to);
          }}
        />
      ) : null}
    </Box>
  );
}

/** Sends a copy to another mailbox. */
function SendOn({ id, onDone }: { id: string; onDone: (to: string) => void }) {
  const { form, submit, busy, general } = useActForm<'forwardMessage', { to: string; note: string }>({
    operation: 'forwardMessage',
    checked: false,
    defaults: { to: '', note: '' },
    input: (body) => ({ params: { id }, body }),
    onMade: ({ to }) => onDone(to),
  });
  return (
    <form noValidate onSubmit={(e) => void submit(e)}>
      <Flex gap="8px" mt="8px" align="flex-start" wrap="wrap">
        <Box w="130px">
          <FormField form={form} name="to" title="To extension" id={`to-${id}`}>
            {({ change, ...rest }) => (
              <TextBox {...rest} inputMode="numeric" fontFamily="mono" onChange={(e) => change(e.target.value)} />
            )}
          </FormField>
        </Box>
        <Box flex="1" minW="160px">
          <FormField form={form} name="note" title="Note" id={`note-${id}`}>
            {({ change, ...rest }) => <TextBox {...rest} onChange={(e) => change(e.target.value)} />}
          </FormField>
        </Box>
        <Act type="submit" mt="21px" disabled={busy}>
          Send a copy
        </Act>
      </Flex>
      {general ? (
        <Box role="alert" color="brick" fontSize="13px">
          {general}
        </Box>
      ) : null}
    </form>
  );
}
