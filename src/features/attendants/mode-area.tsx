'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import {
  ATTENDANT_MODES,
  GREETING_FIELDS,
  OTHER_KEYS,
  PHONE_KEYS,
  type AttendantKeyName,
  type AttendantMode,
} from '@/core/plan/facts/attendants';
import { Act, PartTitle, Wrong } from '@/ui/controls';
import { say } from '@/ui/toasts';
import { useEdits, type ObjectEdit } from '@/workbench/edits';
import { FALLS_BACK, MODE_TITLES, newKey, type AttendantData, type KeyShown } from './data';
import { Keypad, type KeyFace } from './keypad';
import { Greeting } from './greeting';
import { KeyPanel } from './key-panel';
import { SilenceLine } from './silence-line';

/** One mode on top: its keypad, the key at hand, its greeting, and what comes of silence. */
export function ModeArea({
  page,
  edit,
  mode,
  name,
  onName,
}: {
  page: AttendantData;
  edit: ObjectEdit;
  mode: AttendantMode;
  name: AttendantKeyName;
  onName: (name: AttendantKeyName) => void;
}) {
  const edits = useEdits();
  const router = useRouter();
  const { data, modes } = page;
  const keys = page.keys.filter((k) => k.value.mode === mode);
  const shownOf = (key: string): KeyShown | null => keys.find((k) => k.value.key === key) ?? null;
  const endOf = (shown: KeyShown | null): KeyFace['end'] => {
    const end = shown?.value.leadsTo ? page.ends[shown.value.leadsTo] : undefined;
    return end ? { kind: end.kind, label: end.name } : null;
  };
  const slow = new Map(page.slow);
  const greeting = modes[mode].greeting;
  const promised = (key: string) => modes[mode].spoken.find((s) => s.key === key)?.what ?? null;
  const faces = PHONE_KEYS.map((key): KeyFace => {
    const shown = shownOf(key);
    return {
      key,
      shown,
      end: endOf(shown),
      waitSeconds: slow.has(key) ? Number(edit.value.digitSeconds) : null,
      promised: shown ? null : promised(key),
    };
  });
  const move = async (from: string, to: string) => {
    const [moved, other] = [shownOf(from), shownOf(to)];
    if (!moved) return;
    const set = (k: KeyShown, key: string) => ({
      do: 'set' as const,
      of: { kind: 'attendantKey' as const, id: k.value.id },
      base: { object: { ...k.value }, rowVersion: k.rowVersion },
      fields: { key },
    });
    const made = await edits.together(
      [set(moved, to), ...(other ? [set(other, from)] : [])],
      `moved key ${from} of ${data.label} to ${to}`,
    );
    if (made.ok) onName(to as AttendantKeyName);
    else say(made.errors[0]!.sentence);
  };
  const level = async () => {
    const id = uuid();
    const title = `${String(data.object.name)}, key ${name}`.slice(0, 80);
    const shown = shownOf(name);
    const made = await edits.together(
      [
        {
          do: 'add',
          of: { kind: 'attendant', id },
          value: { id, name: title, site: data.object.site, above: data.object.id, language: data.object.language },
        },
        shown
          ? {
              do: 'set',
              of: { kind: 'attendantKey', id: shown.value.id },
              base: { object: { ...shown.value }, rowVersion: shown.rowVersion },
              fields: { does: 'lead', leadsTo: id },
            }
          : newKey(String(data.object.id), mode, name, { does: 'lead', leadsTo: id }),
      ],
      `made a second level behind key ${name} of ${data.label}`,
    );
    if (made.ok) router.push(`/attendants/${id}`);
    else say(made.errors[0]!.sentence);
  };
  const pressed = (PHONE_KEYS as readonly string[]).includes(name);
  return (
    <Box role="tabpanel" aria-labelledby={`mode-${mode}`}>
      {modes[mode].missing ? <SameAs page={page} edit={edit} mode={mode} /> : null}
      <Grid templateColumns={{ base: '1fr', xl: 'minmax(0, 1.55fr) minmax(0, 1fr)' }} gap="18px" alignItems="start">
        <Box minW={0}>
          <Keypad
            faces={faces}
            selected={name}
            canEdit={data.canEdit}
            onSelect={(k) => onName(k as AttendantKeyName)}
            onMove={(from, to) => void move(from, to)}
          />
          <Grid templateColumns={{ base: '1fr', sm: 'repeat(3, minmax(0, 1fr))' }} gap="8px" mt="8px">
            {OTHER_KEYS.map((key) => (
              <OtherKey
                key={key}
                name={key}
                selected={name === key}
                shown={shownOf(key)}
                end={endOf(shownOf(key))}
                tries={Number(edit.value.tries)}
                onSelect={() => onName(key)}
              />
            ))}
          </Grid>
        </Box>
        <Box minW={0}>
          <Box as="section" aria-label={`The ${pressed ? 'key' : 'end'} ${name}`} mb="16px">
            <PartTitle>{pressed ? `Key ${name}` : name[0]!.toUpperCase() + name.slice(1)}</PartTitle>
            <KeyPanel
              key={`${mode} ${name}`}
              page={page}
              mode={mode}
              name={name}
              shown={shownOf(name)}
              onLevel={pressed && data.canEdit ? () => void level() : undefined}
            />
          </Box>
          <Greeting page={page} edit={edit} mode={mode} />
          <Box as="section" aria-label="When nothing is pressed" mt="16px">
            <PartTitle>When nothing is pressed</PartTitle>
            <SilenceLine
              greetingSeconds={greeting?.seconds ?? 0}
              chooseSeconds={Number(edit.value.chooseSeconds)}
              tries={Number(edit.value.tries)}
              end={silentEnd(shownOf('no key') ?? shownOf('too many tries'), endOf)}
            />
          </Box>
          <Box as="section" aria-label="Callers may also dial" mt="16px">
            <PartTitle>Callers may also dial</PartTitle>
            <AlsoDial page={page} edit={edit} />
          </Box>
        </Box>
      </Grid>
    </Box>
  );
}

/** Where silence leads in the end. */
function silentEnd(shown: KeyShown | null, endOf: (k: KeyShown | null) => KeyFace['end']) {
  if (!shown) return { kind: 'tone', label: 'released, cause 19' };
  if (shown.value.does === 'end') return { kind: 'tone', label: 'the call ends' };
  if (shown.value.does === 'back') return { kind: 'attendant', label: 'the level above' };
  return endOf(shown) ?? { kind: 'refused', label: 'nowhere' };
}

function OtherKey({
  name,
  selected,
  shown,
  end,
  tries,
  onSelect,
}: {
  name: (typeof OTHER_KEYS)[number];
  selected: boolean;
  shown: KeyShown | null;
  end: KeyFace['end'];
  tries: number;
  onSelect: () => void;
}) {
  const { label } = silentEnd(shown, () => end);
  const otherwise =
    name === 'wrong key' ? 'said so, choose again' : name === 'no key' ? 'as after too many tries' : 'as with no key';
  return (
    <chakra.button
      type="button"
      data-key={name}
      aria-pressed={selected}
      textAlign="left"
      border={selected ? '2px solid' : '1px solid'}
      borderColor={selected ? 'plum' : shown?.mark ? 'saffron' : 'line'}
      borderStyle={shown || selected ? 'solid' : 'dashed'}
      bg={shown?.mark ? 'saffronTint' : shown ? 'raised' : undefined}
      rounded="4px"
      px="9px"
      py="6px"
      minW={0}
      onClick={onSelect}
    >
      <chakra.span display="block" fontSize="13px" color="quiet">
        {name === 'too many tries' ? `too many tries (${tries})` : name}
      </chakra.span>
      <chakra.span display="block" fontWeight={shown ? 600 : 400} truncate>
        {shown ? label : otherwise}
      </chakra.span>
    </chakra.button>
  );
}

/** A mode in which nothing is set: what it does instead, and how it gets its own. */
function SameAs({ page, edit, mode }: { page: AttendantData; edit: ObjectEdit; mode: AttendantMode }) {
  const edits = useEdits();
  const [refused, setRefused] = useState<string | null>(null);
  const { data, keys, modes } = page;
  const from = ATTENDANT_MODES.filter((m) => m !== mode && !modes[m].missing);
  const copy = async (of: AttendantMode) => {
    const greeting = data.object[GREETING_FIELDS[of]];
    const made = await edits.together(
      [
        ...keys
          .filter((k) => k.value.mode === of)
          .map(({ value: { key, does, leadsTo, silent, note } }) =>
            newKey(String(data.object.id), mode, key, { does, leadsTo, silent, note }),
          ),
        {
          do: 'set' as const,
          of: { kind: 'attendant' as const, id: String(data.object.id) },
          base: { object: { ...edit.value }, rowVersion: data.rowVersion },
          fields: { [GREETING_FIELDS[mode]]: greeting },
        },
      ],
      `copied ${of} to ${mode} at ${data.label}`,
    );
    setRefused(made.ok ? null : made.errors[0]!.sentence);
  };
  return (
    <Box border="1px dashed" borderColor="fieldLine" rounded="4px" px="12px" py="8px" mb="10px">
      <Flex gap="10px" align="center" wrap="wrap">
        <Box flex="1" minW="200px">
          <b>{MODE_TITLES[mode]}</b>: {FALLS_BACK[mode]}.{' '}
          {data.canEdit ? 'Press a key, or name a greeting, to give it its own.' : ''}
        </Box>
        {data.canEdit
          ? from.map((m) => (
              <Act key={m} onClick={() => void copy(m)}>
                Copy from {m}
              </Act>
            ))
          : null}
      </Flex>
      {refused ? <Wrong>{refused}</Wrong> : null}
    </Box>
  );
}

function AlsoDial({ page, edit }: { page: AttendantData; edit: ObjectEdit }) {
  const { dialled, slow } = page;
  const { directDialling, dialByName, outsideDialling, digitSeconds } = edit.value;
  if (directDialling === 'none' && !dialByName && !outsideDialling) return <Box color="quiet">Nothing else.</Box>;
  const keys = page.keys.filter((k) => k.value.key.length === 1 && slow.some(([s]) => s === k.value.key));
  return (
    <Box>
      {directDialling === 'none' ? null : (
        <Box>
          {dialled.count} {dialled.count === 1 ? 'extension' : 'extensions'}
          {dialled.first ? `, ${dialled.first} to ${dialled.last}` : ''}
        </Box>
      )}
      {dialByName ? <Box>staff by name, three letters or more</Box> : null}
      {outsideDialling ? <Box>outside numbers, after {page.prefix ?? 'no prefix: none'}</Box> : null}
      {[...new Set(keys.map((k) => k.value.key))].map((key) => (
        <Box key={key} color="quiet" fontSize="13px">
          Key {key} and {slow.find(([s]) => s === key)![1]} begin alike: after a {key} the caller waits{' '}
          {String(digitSeconds)} s.
        </Box>
      ))}
    </Box>
  );
}
