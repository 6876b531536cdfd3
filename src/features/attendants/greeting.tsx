'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { languageName } from '@/core/plan/facts/value-words';
import { GREETING_FIELDS, type AttendantMode } from '@/core/plan/facts/attendants';
import { secondsToSay } from '@/core/plan/facts/phrases';
import { PartTitle } from '@/ui/controls';
import { Link } from '@/ui/link';
import type { ObjectEdit } from '@/workbench/edits';
import { RefPicker } from '@/workbench/ref-picker';
import { SoundStrip } from '@/workbench/sound-strip';
import type { AttendantData } from './data';
import { WriteGreeting } from './write-greeting';

/** The greeting of a mode: chosen, heard, or written on the spot. */
export function Greeting({ page, edit, mode }: { page: AttendantData; edit: ObjectEdit; mode: AttendantMode }) {
  const { data, choices, modes, keys } = page;
  const field = GREETING_FIELDS[mode];
  const prompt = modes[mode].greeting;
  const chosen = edit.value[field] as string | null;
  const untold = keys.filter(
    (k) =>
      k.value.mode === mode &&
      k.value.key.length === 1 &&
      modes[mode].spoken.length > 0 &&
      !modes[mode].spoken.some((s) => s.key === k.value.key),
  );
  return (
    <Box as="section" aria-label="Greeting">
      <PartTitle>Greeting when {mode}</PartTitle>
      <RefPicker
        kind="prompt"
        aria-label={`Greeting when ${mode}`}
        data-field={field}
        value={chosen}
        nullable
        placeholder="silence"
        disabled={!data.canEdit}
        options={choices.options.prompt ?? []}
        search={choices.long.includes('prompt') ? 'prompt' : undefined}
        onChange={(id) => edit.choose(field, id)}
      />
      {edit.errorOf(field) ? (
        <Box role="alert" color="brick" fontSize="13px">
          {edit.errorOf(field)}
        </Box>
      ) : null}
      {chosen === null && data.canEdit ? <WriteGreeting key={mode} page={page} edit={edit} mode={mode} /> : null}
      {prompt && prompt.id === chosen ? (
        <Box border="1px solid" borderColor="line" rounded="4px" bg="raised" p="10px" mt="8px">
          {prompt.sound ? (
            <SoundStrip sound={prompt.sound} name={prompt.name} seconds={prompt.seconds} />
          ) : (
            <chakra.span color="saffronText">Not spoken yet: callers would hear nothing.</chakra.span>
          )}
          {prompt.text ? (
            <Box mt="6px" fontSize="13px" color="quiet" lineClamp={4}>
              “{prompt.text}”
            </Box>
          ) : null}
          {untold.length > 0 ? (
            <Box mt="6px" color="saffronText" fontSize="13px">
              {untold.map((k) => k.value.key).join(', ')} {untold.length === 1 ? 'is' : 'are'} set and not spoken.
            </Box>
          ) : null}
          <Flex mt="6px" gap="10px" fontSize="13px" wrap="wrap">
            <Link href={`/prompts/${prompt.id}`} style={{ textDecoration: 'underline' }}>
              Open the prompt
            </Link>
            <chakra.span color="quiet">
              {[prompt, ...prompt.versions].map((v) => languageName(v.language)).join(', ')}
              {prompt.sound ? '' : ` · about ${secondsToSay(prompt.text)} s`}
            </chakra.span>
          </Flex>
        </Box>
      ) : null}
    </Box>
  );
}
