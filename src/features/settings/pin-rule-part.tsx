'use client';

import { Flex } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call } from '@/workbench/api';
import { Act, Labelled, TextBox } from '@/ui/controls';

/** How short a mailbox PIN may be: an edit of the organisation in the draft. */
export function PinRulePart({
  organisation,
  rowVersion,
  may,
}: {
  organisation: Record<string, unknown>;
  rowVersion: number;
  may: boolean;
}) {
  const router = useRouter();
  const [typed, setTyped] = useState(String(organisation.pinLeastDigits));
  const [said, setSaid] = useState<string | null>(null);
  const save = async () => {
    const value = { ...organisation, pinLeastDigits: Number(typed) };
    const done = await call('edit', {
      body: { edits: [{ kind: 'organisation', id: 'organisation', rowVersion, value }] },
    });
    setSaid(done.ok ? 'New PINs are held to it from now on; those that are set stay.' : done.errors[0]!.sentence);
    router.refresh();
  };
  return (
    <Labelled
      title="Digits a PIN has at least (4 to 12); never the extension, a run or a repeat"
      htmlFor="pin-least"
      hint={said}
    >
      <Flex gap="8px" maxW="260px">
        <TextBox
          id="pin-least"
          inputMode="numeric"
          disabled={!may}
          value={typed}
          onChange={(e) => setTyped(e.target.value.replace(/\D/g, ''))}
        />
        <Act disabled={!may || typed === '' || typed === String(organisation.pinLeastDigits)} onClick={save}>
          Set rule
        </Act>
      </Flex>
    </Labelled>
  );
}
