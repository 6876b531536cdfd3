'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { MESSAGE_SITUATIONS, type MessageSituation } from '@/core/plan/facts/message-situations';
import { Act, AreaBox, PartTitle, Wrong } from '@/ui/controls';
import { FileAct } from '@/ui/file-act';
import { DayBox } from '@/ui/day-box';
import { useRefresh } from '@/ui/refresh';
import { Time } from '@/ui/time';
import { addressOf, call, sendFile } from '@/workbench/api';
import { formFields } from '@/workbench/form-fields';
import { FormField } from '@/workbench/form-field';
import { useActForm } from '@/workbench/use-act-form';
import type { OwnMailbox } from './data';

const WORDS: Record<MessageSituation, string> = {
  'no answer': 'nobody answers',
  busy: 'I speak',
  away: 'I can’t be reached',
};

/** What callers hear before they leave a message, by what happened; typed or recorded, until a day where one is given. */
export function GreetingsPart({ mailbox, account }: { mailbox: OwnMailbox; account: string }) {
  const refresh = useRefresh();
  const [wrong, setWrong] = useState<string | null>(null);
  const { form, submit, busy, general, clear } = useActForm<
    'ownGreeting',
    { situation: MessageSituation; text: string; until: string }
  >({
    operation: 'ownGreeting',
    checked: false,
    defaults: { situation: 'no answer', text: '', until: '' },
    input: ({ situation, text, until }) => ({
      params: { id: mailbox.id },
      body: { situation, greeting: { text }, until: until === '' ? null : until },
    }),
    fieldOf: (path) => (path.startsWith('greeting') ? 'text' : path === 'until' ? 'until' : null),
    unsaid: ({ text }) =>
      text.trim() === ''
        ? [{ field: 'text' as const, sentence: 'Type what callers hear, or choose a recording.' }]
        : [],
    keep: { key: `${account} greeting ${mailbox.id}`, about: { title: 'My greeting', path: '/own' } },
    onMade: () => {
      clear();
      refresh();
    },
  });
  const { field, select } = formFields(form, { prefix: `greeting-${mailbox.id}` });
  const told = (done: { ok: true } | { ok: false; errors: { sentence: string }[] }) => {
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    refresh();
  };
  const end = async (situation: MessageSituation) =>
    told(await call('ownGreeting', { params: { id: mailbox.id }, body: { situation, greeting: null, until: null } }));
  const record = async (file: File) => {
    const kept = await sendFile('ownSound', {}, file);
    if (!kept.ok) return told(kept);
    const { situation, until } = form.getValues();
    const body = { situation, greeting: { sound: kept.value.id }, until: until === '' ? null : until };
    told(await call('ownGreeting', { params: { id: mailbox.id }, body }));
  };
  return (
    <Box mt="16px">
      <PartTitle>My greetings</PartTitle>
      {mailbox.greetings.map((g) => (
        <Box key={g.situation} mb="8px">
          <Flex gap="10px" align="center" wrap="wrap">
            <Box fontSize="13px">
              When {WORDS[g.situation]}
              {g.until ? (
                <>
                  , until <Time iso={g.until} />
                </>
              ) : null}
              :
            </Box>
            <chakra.audio
              controls
              preload="none"
              h="32px"
              maxW="100%"
              aria-label={`My greeting when ${WORDS[g.situation]}`}
              src={addressOf('ownGreetingSound', { params: { id: mailbox.id }, query: { situation: g.situation } })}
            />
            <Act aria-label={`The usual one again when ${WORDS[g.situation]}`} onClick={() => void end(g.situation)}>
              The usual one again
            </Act>
          </Flex>
          {g.said ? (
            <Box fontSize="13px" color="quiet">
              “{g.said}”
            </Box>
          ) : null}
        </Box>
      ))}
      <form noValidate onSubmit={(e) => void submit(e)}>
        <Flex gap="8px" align="flex-start" wrap="wrap">
          <Box w="170px">
            {select(
              'situation',
              'When',
              MESSAGE_SITUATIONS.map((s) => ({ id: s, label: WORDS[s] })),
            )}
          </Box>
          <Box w="176px">
            {field('until', 'Heard until', ({ change, ...rest }) => (
              <DayBox {...rest} onChange={change} />
            ))}
          </Box>
          <Box flex="1 1 260px">
            <FormField form={form} name="text" title="What callers hear" id={`greeting-${mailbox.id}-text`}>
              {({ change, ...rest }) => <AreaBox {...rest} maxLength={1000} onChange={(e) => change(e.target.value)} />}
            </FormField>
          </Box>
        </Flex>
        <Flex gap="8px" mt="8px">
          <Act type="submit" disabled={busy}>
            Speak and use it
          </Act>
          <FileAct label="A recording of my greeting" accept="audio/*" onFile={(f) => void record(f)}>
            Use a recording …
          </FileAct>
        </Flex>
      </form>
      {(general ?? wrong) ? <Wrong>{general ?? wrong}</Wrong> : null}
    </Box>
  );
}
