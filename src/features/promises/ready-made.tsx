'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import { CALL_KINDS } from '@/core/numbers/kinds';
import { Act, PartTitle, Wrong } from '@/ui/controls';
import { useRefresh } from '@/ui/refresh';
import { useEdits } from '@/workbench/edits';

const OUTSIDE = CALL_KINDS.filter((k) => !['emergency', 'internal', 'service'].includes(k));

/** Promises that most organisations want. */
const READY = [
  {
    name: 'Emergency calls leave at their own site',
    says: 'Wherever a phone stands, help is called from there.',
    value: { firm: true, dialKinds: ['emergency'], must: 'leaves at its own site' },
  },
  {
    name: 'No stranger gets an outside line of their choosing',
    says: 'Toll fraud: nobody dials in to dial out at your cost.',
    value: { firm: true, from: 'outside callers', must: 'never reaches', ends: ['the outside by own choice'] },
  },
  {
    name: 'No call ends nowhere',
    says: 'Whoever calls one of your numbers can reach somebody or leave a message.',
    value: {
      from: 'outside callers',
      must: 'can reach',
      ends: ['a phone', 'a mailbox', 'a queue or group', 'a fax', 'the outside', 'an announcement'],
    },
  },
  {
    name: 'Premium numbers are called by nobody',
    says: 'Add exceptions by naming the classes that it is about.',
    value: { dialKinds: ['premium', 'satellite'], must: 'never reaches', ends: ['the outside'] },
  },
  {
    name: 'Phones of some classes stay inside',
    says: 'For lobbies and lifts: name the classes on its page.',
    value: { dialKinds: OUTSIDE, must: 'never reaches', ends: ['the outside'] },
  },
  {
    name: 'Fax ways are silent',
    says: 'Nothing is heard on the way: name the fax numbers on its page.',
    value: { from: 'outside callers', must: 'hears nothing' },
  },
] as const;

/** Adds a promise that is ready made. */
export function ReadyMade({ has }: { has: readonly string[] }) {
  const edits = useEdits();
  const refresh = useRefresh();
  const [wrong, setWrong] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const left = READY.filter((r) => !has.includes(r.name));
  if (left.length === 0) return null;
  const add = async (ready: (typeof READY)[number]) => {
    setBusy(true);
    const of = { kind: 'promise' as const, id: uuid() };
    const done = await edits.together([{ do: 'add', of, value: { name: ready.name, ...ready.value } }]);
    setBusy(false);
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    if (done.ok) refresh();
  };
  return (
    <Box mt="24px" maxW="760px">
      <PartTitle>Ready made</PartTitle>
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      {left.map((r) => (
        <Flex key={r.name} gap="12px" align="center" py="5px" borderTop="1px solid" borderColor="line">
          <Box flex="1" minW={0}>
            {r.name}
            <Box color="quiet" fontSize="12px">
              {r.says}
            </Box>
          </Box>
          <Act disabled={busy} aria-label={`Add “${r.name}”`} onClick={() => void add(r)}>
            Add
          </Act>
        </Flex>
      ))}
    </Box>
  );
}
