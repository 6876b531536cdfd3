'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { Messages } from '@/contract/messages';
import { Act, Empty, Wrong } from '@/ui/controls';
import { say } from '@/ui/toasts';
import { call } from '../api';
import { useAsked } from '../use-asked';
import { MessageRow } from './message-row';

/** Messages of a mailbox: heard, marked, sent on, deleted and brought back by those who may; others see how many there are. */
export function MessagesPart({ mailbox, owners }: { mailbox: string; owners: readonly string[] }) {
  const [deleted, setDeleted] = useState(false);
  // Each act asks again for what is there now.
  const [acts, setActs] = useState(0);
  const asked = useAsked(
    'messages',
    { params: { id: mailbox }, query: { deleted: deleted ? 'yes' : '' } },
    { keep: true, fresh: true, also: acts },
  );
  const [undo, setUndo] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const found = asked.value;
  if (asked.wrong) return <Wrong>{asked.wrong}</Wrong>;
  if (!found) return <Box color="quiet">Messages are on their way …</Box>;
  if (found.messages === null) return <Counted found={found} owners={owners} />;
  const act = async (done: Promise<{ ok: true } | { ok: false; errors: { sentence: string }[] }>) => {
    const got = await done;
    setWrong(got.ok ? null : got.errors[0]!.sentence);
    setActs((n) => n + 1);
    return got.ok;
  };
  const remove = async (id: string) => {
    if (await act(call('deleteMessage', { params: { id } }))) setUndo(id);
  };
  const restore = async (id: string) => {
    setUndo(null);
    if (await act(call('restoreMessage', { params: { id } }))) say('The message is back.');
  };
  return (
    <Box data-testid="messages">
      <Flex gap="12px" align="center" mb="8px" wrap="wrap">
        <Box role="status">
          {countWords(found)}
          {undo ? ' One was deleted.' : ''}
        </Box>
        {undo ? <Act onClick={() => void restore(undo)}>Bring it back</Act> : null}
        <Act look="text" ml="auto" onClick={() => setDeleted(!deleted)}>
          {deleted ? 'Show those that are kept' : 'Show deleted ones'}
        </Act>
      </Flex>
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      {found.messages.length === 0 ? (
        <Empty>{deleted ? 'Nothing was deleted in the last 30 days.' : 'Nobody has left a message.'}</Empty>
      ) : (
        found.messages.map((m) => (
          <MessageRow
            key={m.id}
            message={m}
            onRemove={() => void remove(m.id)}
            onRestore={() => void restore(m.id)}
            onChange={(body) => void act(call('changeMessage', { params: { id: m.id }, body }))}
            onForwarded={(to) => say(`A copy is in ${to}.`)}
          />
        ))
      )}
    </Box>
  );
}

const countWords = ({ waiting: { fresh, kept, most } }: Messages) =>
  kept === 0
    ? `No messages; there is room for ${most}.`
    : `${kept} ${kept === 1 ? 'message' : 'messages'}, ${fresh === 0 ? 'all heard' : `${fresh} not heard yet`}; there is room for ${most}.`;

/** What somebody sees who may not hear them. */
const Counted = ({ found, owners }: { found: Messages; owners: readonly string[] }) => (
  <Box data-testid="messages">
    {countWords(found)}{' '}
    <Box as="span" color="quiet">
      What callers said is for {owners.length > 0 ? owners.join(', ') : 'its owners, and there is none yet'}.
    </Box>
  </Box>
);
