'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useMemo, useRef, useState } from 'react';
import { useWatch } from 'react-hook-form';
import { v7 as uuid } from 'uuid';
import { spokenKeys, type SpokenKey } from '@/core/analysis/spoken-keys';
import { secondsToSay } from '@/core/plan/facts/phrases';
import { Act, AreaBox, PartTitle, Wrong } from '@/ui/controls';
import { Workspace } from '@/ui/workspace';
import { call } from '@/workbench/api';
import { useEdits } from '@/workbench/edits';
import type { Option } from '@/workbench/form-data';
import { formFields } from '@/workbench/form-fields';
import { LanguageBox } from '@/workbench/language-box';
import { LimitLines, type LimitUse } from '@/workbench/limit-lines';
import { PlacePicker } from '@/workbench/place-picker';
import { RefPicker } from '@/workbench/ref-picker';
import { SoundStrip } from '@/workbench/sound-strip';
import { useActForm } from '@/workbench/use-act-form';

export interface BeginData {
  account: string;
  limits: readonly LimitUse[];
  options: Record<string, Option[]>;
  long: readonly string[];
  site: string | null;
  language: string;
  /** numbers that belong to nothing, each with its row version */
  numbers: { id: string; label: string; rowVersion: number; object: Record<string, unknown> }[];
}

interface Values {
  name: string;
  site: string;
  digits: string;
  number: string;
  hours: string;
  language: string;
  text: string;
  /** where each key of the greeting leads, and the end for those who press nothing, by key */
  ends: Record<string, string>;
  sound: string;
  seconds: number;
  /** the text and language that were spoken: another text needs another sound */
  spoken: string;
}

const NO_KEY = 'no key';
const spokenAs = (v: Values) => `${v.language} ${v.text}`;

/** An attendant from its greeting: the keys are read from it, each is led somewhere, and all of it is heard before it is made. */
export function BeginPage({ data }: { data: BeginData }) {
  const edits = useEdits();
  const router = useRouter();
  const [ids] = useState(() => ({ attendant: uuid(), prompt: uuid() }));
  const sent = useRef({ name: '', number: '' });
  const defaults: Values = {
    name: '',
    site: data.site ?? '',
    digits: '',
    number: '',
    hours: '',
    language: data.language,
    text: '',
    ends: {},
    sound: '',
    seconds: 0,
    spoken: '',
  };
  const editsOf = (v: Values) => {
    const heard = v.spoken === spokenAs(v) && v.sound !== '';
    const keys = [...spokenKeys(v.text).map((k) => k.key), NO_KEY].flatMap((key) =>
      v.ends[key]
        ? [
            {
              kind: 'attendantKey' as const,
              id: uuid(),
              value: { attendant: ids.attendant, key, leadsTo: v.ends[key] },
            },
          ]
        : [],
    );
    return [
      {
        kind: 'prompt' as const,
        id: ids.prompt,
        value: {
          name: `${v.name}, greeting`.slice(0, 80),
          language: v.language,
          text: v.text,
          ...(heard ? { sound: v.sound, seconds: v.seconds } : { seconds: secondsToSay(v.text) }),
        },
      },
      {
        kind: 'attendant' as const,
        id: ids.attendant,
        value: {
          name: v.name,
          site: v.site,
          digits: v.digits || null,
          hours: v.hours || null,
          language: v.language,
          greetingOpen: ids.prompt,
        },
      },
      ...keys,
    ].map((e) => ({ ...e, value: { ...e.value, id: e.id } }));
  };
  const { form, submit, busy, general, clear, touched } = useActForm<'edit', Values>({
    operation: 'edit',
    defaults,
    checked: false,
    input: (v) => {
      sent.current = { name: v.name, number: v.number };
      return { body: { edits: editsOf(v).map((e) => ({ ...e, rowVersion: null })) } };
    },
    send: ({ body }) => {
      const number = data.numbers.find((n) => n.id === sent.current.number);
      return edits.together(
        [
          ...body.edits.map((e) => ({
            do: 'add' as const,
            of: { kind: e.kind, id: e.id },
            value: e.value as Record<string, unknown>,
          })),
          ...(number
            ? [
                {
                  do: 'set' as const,
                  of: { kind: 'number' as const, id: number.id },
                  base: { object: number.object, rowVersion: number.rowVersion },
                  fields: { belongsTo: ids.attendant },
                },
              ]
            : []),
        ],
        `made attendant ${sent.current.name}`,
      );
    },
    unsaid: (v) => [
      ...(v.name.trim() === '' ? [{ field: 'name' as const, sentence: 'Give it a name.' }] : []),
      ...(v.site === '' ? [{ field: 'site' as const, sentence: 'Choose the site it belongs to.' }] : []),
      ...(v.text.trim() === '' ? [{ field: 'text' as const, sentence: 'Type what callers hear.' }] : []),
    ],
    fieldOf: (path) => {
      const field = path.replace(/^edits\.\d+\.value\.?/, '').split('.')[0]!;
      return field in defaults ? (field as keyof Values) : null;
    },
    keep: {
      key: `${data.account} attendant begun`,
      about: { title: 'Attendant from its greeting', path: '/attendants/begin' },
    },
    onMade: () => {
      clear();
      router.push(`/attendants/${ids.attendant}`);
    },
  });
  const { field, text, digits } = formFields(form, { prefix: 'begin' });
  const now = useWatch({ control: form.control }) as Values;
  const keys = useMemo(() => spokenKeys(now.text), [now.text]);
  const [speaking, setSpeaking] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const hear = async () => {
    setSpeaking(true);
    setWrong(null);
    const v = form.getValues();
    const made = await call('speak', { body: { text: v.text, language: v.language } });
    setSpeaking(false);
    if (!made.ok) return setWrong(made.errors[0]!.sentence);
    form.setValue('sound', made.value.id, { shouldDirty: true });
    form.setValue('seconds', made.value.seconds, { shouldDirty: true });
    form.setValue('spoken', spokenAs(v), { shouldDirty: true });
  };
  const lead = (key: string, to: string | null) =>
    form.setValue('ends', { ...form.getValues('ends'), [key]: to ?? '' }, { shouldDirty: true });
  const fresh = now.spoken === spokenAs(now) && now.sound !== '';
  return (
    <Workspace
      title="Attendant from its greeting"
      lead="Type what callers hear; the keys are read from it. Everything can be changed later on its page."
    >
      <chakra.form onSubmit={(e) => void submit(e)} maxW="860px">
        <LimitLines limits={data.limits} />
        <PartTitle>Where it stands</PartTitle>
        <Grid templateColumns={{ base: '1fr', md: '1fr 1fr 1fr' }} gap="12px" mb="18px">
          {text('name', 'Name', { autoFocus: true })}
          {field('site', 'Site', ({ change, value, ref: _ref, name: _name, onBlur: _blur, ...rest }) => (
            <RefPicker
              {...rest}
              value={value || null}
              nullable={false}
              options={data.options.site ?? []}
              onChange={(id) => change(id ?? '')}
            />
          ))}
          {digits('digits', 'Digits, if any')}
          {field('number', 'Number, if any', ({ change, value, ref: _ref, name: _name, onBlur: _blur, ...rest }) => (
            <RefPicker
              {...rest}
              value={value || null}
              nullable
              placeholder="none of its own"
              options={data.numbers.map(({ id, label }) => ({ id, label }))}
              onChange={(id) => change(id ?? '')}
            />
          ))}
          {field('hours', 'Hours', ({ change, value, ref: _ref, name: _name, onBlur: _blur, ...rest }) => (
            <RefPicker
              {...rest}
              kind="hours"
              value={value || null}
              nullable
              placeholder="always open"
              options={data.options.hours ?? []}
              onChange={(id) => change(id ?? '')}
            />
          ))}
          {field('language', 'Language', ({ change, value, ref: _ref, name: _name, onBlur: _blur, ...rest }) => (
            <LanguageBox {...rest} value={value} onChange={change} />
          ))}
        </Grid>
        <PartTitle>What callers hear</PartTitle>
        {field('text', 'Greeting', ({ change, ...rest }) => (
          <AreaBox
            {...rest}
            h="88px"
            placeholder="Welcome to Lanternfold Ferries. For bookings press 1, for freight press 2."
            onChange={(e) => change(e.target.value)}
          />
        ))}
        <Box mt="14px">
          <PartTitle>Where its keys lead</PartTitle>
          {keys.length === 0 ? (
            <Box color="quiet" mb="8px">
              No key is named yet. Say it as callers hear it: “for freight press 3”.
            </Box>
          ) : null}
          {[...keys, { key: NO_KEY, what: 'whoever presses nothing' } satisfies SpokenKey].map(({ key, what }) => (
            <Grid
              key={key}
              data-testid="spoken-key"
              templateColumns={{ base: '1fr', md: '60px minmax(0, 200px) minmax(0, 1fr)' }}
              gap="10px"
              alignItems="start"
              mb="6px"
            >
              <chakra.b fontFamily={key === NO_KEY ? undefined : 'mono'} lineHeight="32px">
                {key}
              </chakra.b>
              <Box lineHeight="32px" color="quiet" truncate>
                {what}
              </Box>
              <PlacePicker
                aria-label={key === NO_KEY ? 'Where no key leads' : `Where key ${key} leads`}
                value={now.ends[key] || null}
                nullable
                placeholder={key === NO_KEY ? 'released, cause 19' : 'set it later'}
                options={data.options.destination ?? []}
                long={data.long.includes('destination')}
                site={now.site || null}
                onChange={(id) => lead(key, id)}
              />
            </Grid>
          ))}
        </Box>
        <Flex gap="10px" align="center" mt="14px" wrap="wrap">
          <Act disabled={speaking || now.text.trim() === ''} onClick={() => void hear()}>
            {speaking ? 'Speaking …' : fresh ? 'Speak it again' : 'Hear it'}
          </Act>
          {fresh ? (
            <Box flex="1" minW="200px" maxW="420px">
              <SoundStrip key={now.sound} sound={now.sound} name="the greeting" seconds={now.seconds} />
            </Box>
          ) : now.text ? (
            <chakra.span color="quiet" fontSize="13px">
              about {secondsToSay(now.text)} s; unheard it is made as text only
            </chakra.span>
          ) : null}
        </Flex>
        {(wrong ?? general) ? (
          <Box mt="10px">
            <Wrong>{wrong ?? general}</Wrong>
          </Box>
        ) : null}
        <Flex gap="8px" mt="16px">
          <Act look="main" type="submit">
            {busy ? 'Making …' : 'Make this attendant'}
          </Act>
          {touched ? <Act onClick={() => clear()}>Clear what was typed</Act> : null}
        </Flex>
      </chakra.form>
    </Workspace>
  );
}
