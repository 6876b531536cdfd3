'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import type { ObjectKind } from '@/core/plan';
import { Act, SelectBox, Wrong } from '@/ui/controls';
import { useKinds } from '@/ui/kinds';
import { useAccount, useEdits } from './edits';
import { formFields } from './form-fields';
import { FoundPicker } from './found-picker';
import { useActForm } from './use-act-form';

/** What calls can be led to that needs no more than a name and a site: made on the spot, filled in on its own page. */
export const MADE_ON_THE_SPOT = [
  'mailbox',
  'announcement',
  'queue',
  'attendant',
  'timeSwitch',
  'conference',
  'fax',
  'tone',
  'directory',
  'parkPlace',
] as const satisfies readonly ObjectKind[];

interface Values {
  kind: string;
  name: string;
  site: string;
  digits: string;
}

/** Makes a missing place that calls can be led to, and tells its id and name. */
export function MakePlace({
  site,
  onMade,
  onClose,
}: {
  /** where it belongs unless something else is chosen */
  site: string | null;
  onMade: (id: string, name: string) => void;
  onClose: () => void;
}) {
  const { wordOf } = useKinds();
  const edits = useEdits();
  const account = useAccount();
  const [id] = useState(() => uuid());
  const { form, submit, busy, general, clear } = useActForm<'edit', Values>({
    operation: 'edit',
    defaults: { kind: 'mailbox', name: '', site: site ?? '', digits: '' },
    input: ({ kind, name, site: at, digits }) => ({
      body: {
        edits: [
          {
            kind: kind as ObjectKind,
            id,
            rowVersion: null,
            // A mailbox has no digits of its own.
            value: { id, name, site: at, ...(digits && kind !== 'mailbox' ? { digits } : {}) },
          },
        ],
      },
    }),
    send: ({ body }) =>
      edits.together([
        { do: 'add', of: { kind: body.edits[0]!.kind as ObjectKind, id }, value: body.edits[0]!.value! },
      ]),
    unsaid: (v) => [
      ...(v.name.trim() === '' ? [{ field: 'name' as const, sentence: 'Give it a name.' }] : []),
      ...(v.site === '' ? [{ field: 'site' as const, sentence: 'Choose the site it belongs to.' }] : []),
    ],
    fieldOf: (path) => {
      const head = path.replace(/^edits\.0\.value\.?/, '').split('.')[0]!;
      return ['name', 'site', 'digits'].includes(head) ? (head as keyof Values) : null;
    },
    keep: { key: `${account} place on the spot`, about: null },
    onMade: (_answer, v) => {
      clear();
      onMade(id, v.name);
    },
  });
  const { field, text, digits } = formFields(form, { prefix: 'place' });
  return (
    <Box border="1px dashed" borderColor="plum" rounded="4px" p="10px" mt="6px" role="form" aria-label="Make a place">
      <Flex gap="10px" wrap="wrap" align="flex-start">
        <Box w="150px">
          {field('kind', 'A new', ({ change, ...rest }) => (
            <SelectBox {...rest} autoFocus onChange={(e) => change(e.target.value)}>
              {MADE_ON_THE_SPOT.map((k) => (
                <option key={k} value={k}>
                  {wordOf(k)}
                </option>
              ))}
            </SelectBox>
          ))}
        </Box>
        <Box flex="1" minW="140px">
          {text('name', 'Called')}
        </Box>
        <Box w="170px">
          {field('site', 'At', ({ change, value, ref: _ref, name: _name, onBlur: _blur, ...rest }) => (
            <FoundPicker {...rest} target="site" value={value} onChange={change} />
          ))}
        </Box>
        <Box w="90px">{digits('digits', 'Digits, if any')}</Box>
        <Flex gap="8px" pt="19px">
          <Act look="main" disabled={busy} onClick={() => void submit()}>
            {busy ? 'Making …' : 'Make it'}
          </Act>
          <Act
            onClick={() => {
              clear();
              onClose();
            }}
          >
            Cancel
          </Act>
        </Flex>
      </Flex>
      {general ? (
        <Box mt="8px">
          <Wrong>{general}</Wrong>
        </Box>
      ) : null}
    </Box>
  );
}
