'use client';

import { Box, Flex } from '@chakra-ui/react';
import { usePathname } from 'next/navigation';
import { useState } from 'react';
import type { Input } from '@/contract';
import { Act, Wrong } from '@/ui/controls';
import { DayBox } from '@/ui/day-box';
import { Digits } from '@/ui/digits';
import { useRefresh } from '@/ui/refresh';
import { Time } from '@/ui/time';
import { call } from '../api';
import { useAccount } from '../edits';
import { formFields } from '../form-fields';
import { useActForm } from '../use-act-form';

type ForwardWhen = Input<'forwarding'>['body']['when'];

export interface Forwarding {
  when: string;
  to: string;
  since: string;
  until: string | null;
}

interface Typed {
  when: ForwardWhen;
  to: string;
  until: string;
}

const WHEN_WORDS: Record<ForwardWhen, string> = {
  always: 'every call',
  busy: 'when busy',
  'no answer': 'when nobody answers',
  unreachable: 'when the phone is off',
};

const NOTES = {
  to: 'Digits as this phone would dial them, outside prefix included. Example: 2105, or 907700900123. Its class must allow forwarding there.',
  until: 'The forwarding ends by itself with this day, by the clock of the phone’s site. Empty: when somebody ends it.',
};

/** Personal forwarding acts at once: it is no part of the draft. */
export function ForwardingPart({
  extension,
  forwarding,
  may,
}: {
  extension: string;
  forwarding: Forwarding[];
  may: boolean;
}) {
  const refresh = useRefresh();
  const [wrong, setWrong] = useState<string | null>(null);
  const end = async (when: ForwardWhen) => {
    const done = await call('forwarding', { params: { id: extension }, body: { when, to: null } });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    refresh();
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
            {WHEN_WORDS[f.when as ForwardWhen]} goes to <Digits>{f.to}</Digits> since <Time iso={f.since} />
            {f.until ? (
              <>
                , until <Time iso={f.until} />
              </>
            ) : null}
          </Box>
          {may ? (
            <Act h="24px" aria-label={`End it now: ${f.when}`} onClick={() => void end(f.when as ForwardWhen)}>
              End it now
            </Act>
          ) : null}
        </Flex>
      ))}
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      {may ? <ForwardForm extension={extension} /> : null}
    </Box>
  );
}

function ForwardForm({ extension }: { extension: string }) {
  const refresh = useRefresh();
  const account = useAccount();
  const path = usePathname();
  const { form, submit, busy, general, clear } = useActForm<'forwarding', Typed>({
    operation: 'forwarding',
    defaults: { when: 'always', to: '', until: '' },
    input: ({ when, to, until }) => ({ params: { id: extension }, body: { when, to, until: until || null } }),
    unsaid: ({ to }) => (to === '' ? [{ field: 'to', sentence: 'Say where the calls go.' }] : []),
    keep: { key: `${account} forwarding ${extension}`, about: { title: 'Forwarding', path } },
    onMade: () => {
      clear();
      refresh();
    },
  });
  const { field, digits, select } = formFields(form, { prefix: 'forward', notes: NOTES });
  return (
    <form noValidate onSubmit={(e) => void submit(e)}>
      <Flex gap="8px" align="flex-start" wrap="wrap">
        <Box w="190px">
          {select(
            'when',
            'Forward',
            Object.entries(WHEN_WORDS).map(([id, label]) => ({ id, label })),
          )}
        </Box>
        <Box w="190px">{digits('to', 'to')}</Box>
        <Box w="150px">
          {field('until', 'until the end of', ({ change, ...rest }) => (
            <DayBox {...rest} onChange={change} />
          ))}
        </Box>
        <Act type="submit" mt="21px" disabled={busy}>
          Forward now
        </Act>
      </Flex>
      {general ? (
        <Box role="alert" color="brick" fontSize="13px" mt="4px">
          {general}
        </Box>
      ) : null}
    </form>
  );
}
