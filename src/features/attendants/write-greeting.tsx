'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useRef, useState } from 'react';
import { useWatch } from 'react-hook-form';
import { v7 as uuid } from 'uuid';
import { GREETING_FIELDS, type AttendantMode } from '@/core/plan/facts/attendants';
import { secondsToSay } from '@/core/plan/facts/phrases';
import { languageName } from '@/core/plan/facts/value-words';
import { Act, AreaBox, Wrong } from '@/ui/controls';
import { call } from '@/workbench/api';
import { useEdits, type ObjectEdit } from '@/workbench/edits';
import { formFields } from '@/workbench/form-fields';
import { useActForm } from '@/workbench/use-act-form';
import type { AttendantData } from './data';

interface Values {
  text: string;
}

/** A greeting that is missing is typed here: it becomes a prompt, spoken where that is possible, and is heard in this mode. */
export function WriteGreeting({ page, edit, mode }: { page: AttendantData; edit: ObjectEdit; mode: AttendantMode }) {
  const edits = useEdits();
  const { data } = page;
  const attendant = { kind: 'attendant' as const, id: String(data.object.id) };
  const language = String(edit.value.language || page.siteLanguage || 'en');
  const name = `${String(edit.value.name)}, ${mode}`.slice(0, 80);
  const id = useRef(uuid());
  const [doing, setDoing] = useState<string | null>(null);
  const { form, submit, busy, general, touched, clear } = useActForm<'edit', Values>({
    operation: 'edit',
    defaults: { text: '' },
    checked: false,
    input: ({ text }) => ({
      body: {
        edits: [
          {
            kind: 'prompt' as const,
            id: id.current,
            rowVersion: null,
            value: { id: id.current, name, language, text, seconds: secondsToSay(text) },
          },
        ],
      },
    }),
    send: async ({ body }) => {
      const { value } = body.edits[0] as { value: Record<string, unknown> };
      setDoing('Speaking …');
      const spoken = await call('speak', { body: { text: String(value.text), language } });
      setDoing(null);
      // Where nothing can be spoken it is made as text, and its page says so.
      const sound = spoken.ok ? { sound: spoken.value.id, seconds: spoken.value.seconds } : {};
      return edits.together(
        [
          { do: 'add', of: { kind: 'prompt', id: id.current }, value: { ...value, ...sound } },
          {
            do: 'set',
            of: attendant,
            base: { object: { ...edit.value }, rowVersion: data.rowVersion },
            fields: { [GREETING_FIELDS[mode]]: id.current },
          },
        ],
        `wrote the greeting of ${data.label} when ${mode}`,
      );
    },
    unsaid: ({ text }) => (text.trim() === '' ? [{ field: 'text', sentence: 'Type what callers hear.' }] : []),
    fieldOf: (path) => (/\.text$/.test(path) ? 'text' : null),
    keep: {
      key: `${data.account} greeting ${attendant.id} ${mode}`,
      about: { title: `Greeting of ${data.label} when ${mode}`, path: `/attendants/${attendant.id}` },
    },
    onMade: () => {
      id.current = uuid();
      clear();
    },
  });
  const { text } = useWatch({ control: form.control }) as Values;
  const { field } = formFields(form, { prefix: `greeting-${mode}` });
  return (
    <Box mt="8px" data-testid="write-greeting">
      {field('text', `Or type it, in ${languageName(language)}`, ({ change, ...rest }) => (
        <AreaBox
          {...rest}
          h="70px"
          placeholder="For Hamburg press 1, for customs press 2."
          onChange={(e) => change(e.target.value)}
        />
      ))}
      {general ? <Wrong>{general}</Wrong> : null}
      {touched ? (
        <Flex gap="8px" mt="6px" align="center" wrap="wrap">
          <Act look="main" disabled={busy} onClick={() => void submit()}>
            {doing ?? (busy ? 'Making …' : 'Make this greeting')}
          </Act>
          <Act onClick={() => clear()}>Clear what was typed</Act>
          {text ? (
            <Box color="quiet" fontSize="13px">
              about {secondsToSay(text)} s
            </Box>
          ) : null}
        </Flex>
      ) : null}
    </Box>
  );
}
