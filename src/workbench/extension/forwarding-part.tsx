'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { Input } from '@/contract';
import { call } from '../api';
import { Act, Labelled, SelectBox, TextBox } from '@/ui/controls';
import { Digits } from '@/ui/digits';
import { useFocusNote } from '@/ui/workspace';
import { useRefresh } from '@/ui/refresh';
import { DayBox } from '@/ui/day-box';
import { Time } from '@/ui/time';

type ForwardWhen = Input<'forwarding'>['body']['when'];

export interface Forwarding {
  when: string;
  to: string;
  since: string;
  until: string | null;
}

const WHEN_WORDS: Record<string, string> = {
  always: 'every call',
  busy: 'when busy',
  'no answer': 'when nobody answers',
  unreachable: 'when the phone is off',
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
  const [when, setWhen] = useState<ForwardWhen>('always');
  const [to, setTo] = useState('');
  const [until, setUntil] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const note = useFocusNote(
    'Forward to',
    'Digits as this phone would dial them, outside prefix included. Example: 2105, or 907700900123. Its class must allow forwarding there.',
  );
  const put = async (body: Input<'forwarding'>['body']) => {
    const done = await call('forwarding', { params: { id: extension }, body });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    if (done.ok) setTo('');
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
            {WHEN_WORDS[f.when]} goes to <Digits>{f.to}</Digits> since <Time iso={f.since} />
            {f.until ? (
              <>
                , until <Time iso={f.until} />
              </>
            ) : null}
          </Box>
          {may ? (
            <Act h="24px" onClick={() => put({ when: f.when as ForwardWhen, to: null })}>
              End it now
            </Act>
          ) : null}
        </Flex>
      ))}
      {may ? (
        <Flex gap="8px" align="flex-end" wrap="wrap">
          <Box w="190px">
            <Labelled title="Forward" htmlFor="forward-when">
              <SelectBox id="forward-when" value={when} onChange={(e) => setWhen(e.target.value as ForwardWhen)}>
                {Object.entries(WHEN_WORDS).map(([k, w]) => (
                  <option key={k} value={k}>
                    {w}
                  </option>
                ))}
              </SelectBox>
            </Labelled>
          </Box>
          <Box w="190px">
            <Labelled title="to" htmlFor="forward-to">
              <TextBox
                id="forward-to"
                fontFamily="mono"
                value={to}
                {...note}
                onChange={(e) => setTo(e.target.value.replace(/\s/g, ''))}
              />
            </Labelled>
          </Box>
          <Box w="150px">
            <Labelled title="until the end of" htmlFor="forward-until">
              <DayBox id="forward-until" value={until} onChange={setUntil} />
            </Labelled>
          </Box>
          <Act disabled={to === ''} onClick={() => put({ when, to, until: until ? `${until}T23:59:59Z` : null })}>
            Forward now
          </Act>
        </Flex>
      ) : null}
      {wrong ? (
        <Box role="alert" color="brick" fontSize="13px" mt="4px">
          {wrong}
        </Box>
      ) : null}
    </Box>
  );
}
