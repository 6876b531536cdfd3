'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { useWatch } from 'react-hook-form';
import { NOTICED_KINDS, type NoticedKind } from '@/core/plan/facts/noticed-kinds';
import { Act, SelectBox, TextBox, Wrong } from '@/ui/controls';
import { DayBox } from '@/ui/day-box';
import { useKinds } from '@/ui/kinds';
import { formFields } from './form-fields';
import { FoundPicker } from './found-picker';
import { useActForm } from './use-act-form';
import { dayIn, zoneWords } from './zone-words';

/** What a notice is set at: known from the page, or still to be chosen. */
export interface NoticeOf {
  kind: NoticedKind;
  id: string;
  label: string;
  zone: string | null;
}

const ENDS = [
  { id: 'hour', label: 'in one hour' },
  { id: 'today', label: 'at the end of today' },
  { id: 'tomorrow', label: 'at the end of tomorrow' },
  { id: 'time', label: 'on a day, at a time' },
  { id: 'never', label: 'when somebody ends it' },
] as const;

interface Values {
  kind: NoticedKind;
  of: string;
  says: 'closed' | 'open';
  ends: (typeof ENDS)[number]['id'];
  day: string;
  time: string;
  leadsTo: string;
  prompt: string;
  reason: string;
  starts: 'now' | 'later';
  fromDay: string;
  fromTime: string;
}

const NOTHING: Values = {
  kind: 'hours',
  of: '',
  says: 'closed',
  ends: 'today',
  day: '',
  time: '24:00',
  leadsTo: '',
  prompt: '',
  reason: '',
  starts: 'now',
  fromDay: '',
  fromTime: '',
};

/** A time of day as typed, such as `7`, `7:30`, `19.30`; the end of a day is the beginning of the next one. Null: it is none. */
function wallTime(day: string, text: string): string | null {
  const read = /^(\d{1,2})(?:[:.h](\d{2}))?$/.exec(text.trim());
  if (!read || day === '') return null;
  const [hour, minute] = [Number(read[1]), Number(read[2] ?? 0)];
  if (hour > 24 || minute > 59 || (hour === 24 && minute > 0)) return null;
  if (hour === 24) return `${new Date(Date.parse(day) + 86_400_000).toISOString().slice(0, 10)}T00:00`;
  return `${day}T${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`;
}

function untilOf(v: Values, zone: string | null): string | null {
  if (v.ends === 'never') return null;
  if (v.ends === 'hour') return new Date(Date.now() + 3_600_000).toISOString();
  if (v.ends === 'time') return wallTime(v.day, v.time);
  return dayIn(zone, v.ends === 'today' ? 0 : 1);
}

/** Open or closed until a time, at once: what, until when, go. The rest is folded away. */
export function NoticePanel({
  of,
  account,
  onDone,
}: {
  /** null: chosen here */
  of: NoticeOf | null;
  account: string;
  onDone: (id: string | null) => void;
}) {
  const { wordOf } = useKinds();
  const [more, setMore] = useState(false);
  const { form, submit, busy, general, clear } = useActForm<'setNotice', Values>({
    operation: 'setNotice',
    defaults: NOTHING,
    input: (v) => ({
      body: {
        of: of ? { kind: of.kind, id: of.id } : { kind: v.kind, id: v.of },
        open: v.says === 'open',
        from: v.starts === 'now' ? null : wallTime(v.fromDay, v.fromTime),
        until: untilOf(v, of?.zone ?? null),
        leadsTo: v.leadsTo || null,
        prompt: v.prompt || null,
        reason: v.reason,
      },
    }),
    unsaid: (v) => [
      ...(!of && v.of === '' ? [{ field: 'of' as const, sentence: `Choose which ${wordOf(v.kind)}.` }] : []),
      ...(v.ends === 'time' && v.day === '' ? [{ field: 'day' as const, sentence: 'Say on which day it ends.' }] : []),
      ...(v.ends === 'time' && v.day !== '' && wallTime(v.day, v.time) === null
        ? [{ field: 'time' as const, sentence: 'A time of day, such as 18:30.' }]
        : []),
      ...(v.starts === 'later' && v.fromDay === ''
        ? [{ field: 'fromDay' as const, sentence: 'Say on which day it begins.' }]
        : []),
      ...(v.starts === 'later' && v.fromDay !== '' && wallTime(v.fromDay, v.fromTime) === null
        ? [{ field: 'fromTime' as const, sentence: 'A time of day, such as 7:00.' }]
        : []),
    ],
    fieldOf: (path) => {
      const head = path.split('.')[0]!;
      if (head === 'until') return 'ends';
      if (head === 'from') return 'fromDay';
      if (head === 'of') return of ? null : 'of';
      return head in NOTHING ? (head as keyof Values) : null;
    },
    keep: { key: `${account} notice ${of?.id ?? ''}`, about: null },
    onMade: ({ id }) => {
      clear();
      onDone(id);
    },
  });
  const v = useWatch({ control: form.control }) as Values;
  const { field, text } = formFields(form, { prefix: 'notice' });
  const folded = !more && v.leadsTo === '' && v.prompt === '' && v.starts === 'now' && v.reason === '';
  return (
    <Box
      as="form"
      role="form"
      aria-label="Notice now"
      data-testid="notice-panel"
      border="1px solid"
      borderColor="saffron"
      borderLeftWidth="4px"
      rounded="4px"
      bg="raised"
      p="12px"
      mb="14px"
      maxW="760px"
      onSubmit={(e) => void submit(e)}
    >
      <Flex gap="12px" align="flex-start" wrap="wrap">
        {of ? null : (
          <>
            <Box w="150px">
              {field('kind', 'At', ({ change, ...rest }) => (
                <SelectBox
                  {...rest}
                  autoFocus
                  onChange={(e) => {
                    change(e.target.value as NoticedKind);
                    form.setValue('of', '');
                  }}
                >
                  {NOTICED_KINDS.map((k) => (
                    <option key={k} value={k}>
                      {wordOf(k)}
                    </option>
                  ))}
                </SelectBox>
              ))}
            </Box>
            <Box flex="1" minW="180px">
              {field(
                'of',
                `Which ${wordOf(v.kind)}`,
                ({ change, value, ref: _ref, name: _name, onBlur: _blur, ...rest }) => (
                  <FoundPicker {...rest} target={v.kind} value={value} onChange={change} placeholder="choose" />
                ),
              )}
            </Box>
          </>
        )}
        <Box w="120px">
          {field('says', 'It is', ({ change, ...rest }) => (
            <SelectBox {...rest} autoFocus={of !== null} onChange={(e) => change(e.target.value as Values['says'])}>
              <option value="closed">closed</option>
              <option value="open">open</option>
            </SelectBox>
          ))}
        </Box>
        <Box w="200px">
          {field('ends', 'It ends', ({ change, ...rest }) => (
            <SelectBox {...rest} onChange={(e) => change(e.target.value as Values['ends'])}>
              {ENDS.map((e) => (
                <option key={e.id} value={e.id}>
                  {e.label}
                </option>
              ))}
            </SelectBox>
          ))}
        </Box>
        {v.ends === 'time' ? (
          <>
            <Box w="170px">
              {field('day', 'Last day', ({ change, ...rest }) => (
                <DayBox {...rest} onChange={change} />
              ))}
            </Box>
            <Box w="80px">
              {field('time', 'Until', ({ change, ...rest }) => (
                <TextBox {...rest} autoComplete="off" onChange={(e) => change(e.target.value)} />
              ))}
            </Box>
          </>
        ) : null}
      </Flex>
      {folded ? (
        <Act look="text" mt="4px" ml="-4px" onClick={() => setMore(true)}>
          Callers go elsewhere, hear something, or it begins later …
        </Act>
      ) : (
        <Flex gap="12px" align="flex-start" wrap="wrap" mt="10px">
          <Box flex="1" minW="220px">
            {field('leadsTo', 'Callers go to', ({ change, value, ref: _ref, name: _name, onBlur: _blur, ...rest }) => (
              <FoundPicker
                {...rest}
                target="destination"
                value={value}
                onChange={change}
                placeholder={v.says === 'closed' ? 'where they go when closed' : 'where they go when open'}
              />
            ))}
          </Box>
          <Box flex="1" minW="180px">
            {field('prompt', 'First they hear', ({ change, value, ref: _ref, name: _name, onBlur: _blur, ...rest }) => (
              <FoundPicker {...rest} target="prompt" value={value} onChange={change} placeholder="nothing more" />
            ))}
          </Box>
          <Box w="150px">
            {field('starts', 'It begins', ({ change, ...rest }) => (
              <SelectBox {...rest} onChange={(e) => change(e.target.value as Values['starts'])}>
                <option value="now">at once</option>
                <option value="later">later</option>
              </SelectBox>
            ))}
          </Box>
          {v.starts === 'later' ? (
            <>
              <Box w="170px">
                {field('fromDay', 'First day', ({ change, ...rest }) => (
                  <DayBox {...rest} onChange={change} />
                ))}
              </Box>
              <Box w="80px">
                {field('fromTime', 'From', ({ change, ...rest }) => (
                  <TextBox {...rest} autoComplete="off" onChange={(e) => change(e.target.value)} />
                ))}
              </Box>
            </>
          ) : null}
          <Box flex="1 1 100%" maxW="420px">
            {text('reason', 'Why, for colleagues', { placeholder: 'storm' })}
          </Box>
        </Flex>
      )}
      <Flex gap="12px" align="center" mt="10px" wrap={{ base: 'wrap', md: 'nowrap' }}>
        <chakra.p fontSize="13px" color="quiet" flex="1 1 300px">
          It acts at once on live calls, whatever stands in the draft, and ends by itself.
          {of?.zone ? ` Times are those of ${zoneWords(of.zone)}.` : ' Times are those of where it is set.'}
        </chakra.p>
        <Act look="main" type="submit" disabled={busy}>
          {busy ? 'Setting …' : 'Set the notice'}
        </Act>
        <Act
          onClick={() => {
            clear();
            onDone(null);
          }}
        >
          Cancel
        </Act>
      </Flex>
      {general ? (
        <Box mt="8px">
          <Wrong>{general}</Wrong>
        </Box>
      ) : null}
    </Box>
  );
}
