'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { Act, PartTitle, Wrong } from '@/ui/controls';
import { DayBox } from '@/ui/day-box';
import { useRefresh } from '@/ui/refresh';
import { Time } from '@/ui/time';
import { call } from '@/workbench/api';
import { formFields } from '@/workbench/form-fields';
import { useActForm } from '@/workbench/use-act-form';
import type { OwnPhone } from './data';

const WHEN = [
  { id: 'always', label: 'always' },
  { id: 'busy', label: 'when I speak' },
  { id: 'no answer', label: 'when I don’t answer' },
  { id: 'unreachable', label: 'when my phone is off' },
];

type When = OwnPhone['forwarding'][number]['when'];

/** Forwarding of one’s own extension: what holds, with its end; and another one. */
export function ForwardingPart({ phone, account }: { phone: OwnPhone; account: string }) {
  const refresh = useRefresh();
  const [wrong, setWrong] = useState<string | null>(null);
  const { form, submit, busy, general, clear } = useActForm<'ownForwarding', { when: When; to: string; until: string }>(
    {
      operation: 'ownForwarding',
      checked: false,
      defaults: { when: 'always', to: '', until: '' },
      input: ({ until, ...t }) => ({ params: { id: phone.id }, body: { ...t, until: until === '' ? null : until } }),
      unsaid: (t) =>
        t.to.trim() === '' ? [{ field: 'to' as const, sentence: 'Give an extension or a telephone number.' }] : [],
      keep: { key: `${account} forward ${phone.id}`, about: { title: 'My forwarding', path: '/own' } },
      onMade: () => {
        clear();
        refresh();
      },
    },
  );
  const { text, field, select } = formFields(form, { prefix: `forward-${phone.id}` });
  const end = async (when: When) => {
    const done = await call('ownForwarding', { params: { id: phone.id }, body: { when, to: null, until: null } });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    refresh();
  };
  return (
    <Box>
      <PartTitle>Forwarding</PartTitle>
      {phone.forwarding.map((f) => (
        <Flex key={f.when} gap="10px" align="center" mb="6px" wrap="wrap">
          <Box>
            Calls go to <b>{f.to}</b> {WHEN.find((w) => w.id === f.when)!.label}
            {f.until ? (
              <>
                , until <Time iso={f.until} />
              </>
            ) : null}
          </Box>
          <Act aria-label={`End it ${f.when}`} onClick={() => void end(f.when)}>
            End it
          </Act>
        </Flex>
      ))}
      <form noValidate onSubmit={(e) => void submit(e)}>
        <Flex gap="8px" align="flex-start" wrap="wrap">
          <Box w="170px">{select('when', 'When', WHEN)}</Box>
          <Box flex="1" minW="150px">
            {text('to', 'To', { inputMode: 'tel', fontFamily: 'mono' })}
          </Box>
          <Box w="176px">
            {field('until', 'Forwarded until', ({ change, ...rest }) => (
              <DayBox {...rest} onChange={change} />
            ))}
          </Box>
          <Act type="submit" mt="21px" disabled={busy}>
            Forward
          </Act>
        </Flex>
      </form>
      {(general ?? wrong) ? <Wrong>{general ?? wrong}</Wrong> : null}
    </Box>
  );
}
