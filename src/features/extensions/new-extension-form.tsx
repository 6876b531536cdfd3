'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { useWatch, type UseFormReturn } from 'react-hook-form';
import { pinRefusal } from '@/core/plan/pin';
import { Act, PartTitle, SelectBox, Wrong } from '@/ui/controls';
import type { FormFields } from '@/workbench/form-fields';
import { LimitLines } from '@/workbench/limit-lines';
import { RefPicker } from '@/workbench/ref-picker';
import { useActForm } from '@/workbench/use-act-form';
import { JoinerFields } from './joiner-fields';
import { KIND_WORDS, type NewExtensionData, type Typed } from './new-extension-data';
import { newExtensionFields } from './new-extension-fields';
import { useRefresh } from '@/ui/refresh';

const FIELD_OF: Record<string, keyof Typed> = {
  'mailbox.pin': 'pin',
  'mailbox.email': 'email',
  teams: 'team',
};
const SECRETS = ['pin'] as const;

/** What a new extension of a site is proposed. */
function proposed(data: NewExtensionData, siteId: string): Typed {
  const site = data.sites.find((s) => s.id === siteId) ?? data.sites[0];
  return {
    site: site?.id ?? '',
    digits: site?.free[0] ?? '',
    name: '',
    kind: data.like?.kind ?? 'person',
    class: data.like?.class ?? data.defaultClass,
    mailbox: data.like?.mailbox ?? true,
    pin: '',
    email: '',
    attachSound: false,
    announceNumber: true,
    announceTime: true,
    number: '',
    place: '',
    team: '',
    language: '',
    sameAs: '',
  };
}

/** The fields, and the act that adds what they say. */
export function NewExtensionForm({
  data,
  joiner,
  onMade,
}: {
  data: NewExtensionData;
  joiner: boolean;
  onMade: (m: { id: string; digits: string; name: string }) => void;
}) {
  const refresh = useRefresh();
  const [chosen, setChosen] = useState(data.site);
  const defaults = proposed(data, chosen);
  const { form, submit, busy, general, touched, clear } = useActForm<'addExtension', Typed>({
    operation: 'addExtension',
    defaults,
    input: (t) => ({ body: bodyOf(t, data) }),
    fieldOf: (path) => {
      const field = FIELD_OF[path] ?? path;
      return field in defaults ? (field as keyof Typed) : null;
    },
    keep: {
      key: `${data.account} new ${joiner ? 'joiner' : 'extension'}`,
      about: {
        title: joiner ? 'New joiner' : 'New extension',
        path: joiner ? '/people/join' : '/extensions/new',
      },
    },
    secrets: SECRETS,
    onMade: ({ id }, { digits, name }) => {
      onMade({ id, digits, name });
      refresh();
    },
  });
  const fields = newExtensionFields(form);
  const t = useWatch({ control: form.control }) as Typed;
  const site = data.sites.find((s) => s.id === t.site) ?? data.sites[0];
  return (
    <form onSubmit={(e) => void submit(e)}>
      {/* While it is being added nothing can be typed that would not be added. */}
      <chakra.fieldset maxW="760px" disabled={busy}>
        <LimitLines limits={data.limits} />
        <PartTitle>Who and where</PartTitle>
        <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="18px" rowGap="12px" mb="20px">
          {fields.text('name', 'Name', { autoFocus: true })}
          {fields.field('site', 'Site', ({ change, ...rest }) => (
            <SelectBox
              {...rest}
              onChange={(e) => {
                // Digits and number were of the other site.
                form.resetField('digits');
                form.resetField('number');
                setChosen(e.target.value);
                change(e.target.value);
              }}
            >
              {data.sites.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.name}
                </option>
              ))}
            </SelectBox>
          ))}
          <Box>
            {fields.digits('digits', 'Digits')}
            <FreeDigits form={form} free={site?.free ?? []} digits={t.digits} />
          </Box>
          {joiner ? (
            <JoinerFields data={data} fields={fields} alike={t.sameAs !== ''} />
          ) : (
            fields.select(
              'kind',
              'Kind',
              Object.entries(KIND_WORDS).map(([k, words]) => ({ id: k, label: words })),
            )
          )}
          {t.sameAs ? null : fields.select('class', 'Class of service', data.classes)}
          {fields.field(
            'number',
            'Outside number',
            ({ value, change, ref: _ref, name: _name, onBlur: _onBlur, ...rest }) => (
              <RefPicker
                {...rest}
                value={value || null}
                options={site?.numbers ?? []}
                nullable
                placeholder="none of its own"
                onChange={(id) => change(id ?? '')}
              />
            ),
          )}
          {t.kind === 'place' ? fields.text('place', 'Place') : null}
        </Grid>
        <MailboxFields fields={fields} typed={t} />
        {general ? (
          <Box mt="14px">
            <Wrong>{general}</Wrong>
          </Box>
        ) : null}
        <Flex gap="8px" mt="20px">
          <Act look="main" type="submit">
            {busy ? 'Adding …' : joiner ? 'Add joiner' : 'Add extension'}
          </Act>
          {touched ? <Act onClick={() => clear()}>Clear what was typed</Act> : null}
        </Flex>
      </chakra.fieldset>
    </form>
  );
}

function bodyOf(t: Typed, data: NewExtensionData) {
  return {
    digits: t.digits,
    name: t.name,
    kind: t.kind,
    site: t.site,
    class: t.class,
    makePerson: t.kind === 'person',
    place: t.kind === 'place' ? t.place : '',
    ...(data.like ? { ringSeconds: data.like.ringSeconds } : {}),
    mailbox: t.mailbox
      ? {
          pin: t.pin,
          email: t.email === '' ? null : t.email,
          attachSound: t.email !== '' && t.attachSound,
          announceNumber: t.announceNumber,
          announceTime: t.announceTime,
        }
      : null,
    number: t.number === '' ? null : t.number,
    teams: t.team === '' ? [] : [t.team],
    language: t.language,
    sameAs: t.sameAs === '' ? null : t.sameAs,
  };
}

/** The next free digits of the site, to be taken with one press. */
function FreeDigits({ form, free, digits }: { form: UseFormReturn<Typed>; free: readonly string[]; digits: string }) {
  return (
    <Flex gap="4px" mt="5px" wrap="wrap" align="center" fontSize="12px" color="quiet">
      {free.length > 0 ? 'free:' : 'no free digits in its ranges'}
      {free.map((d) => (
        <Act
          key={d}
          h="22px"
          px="6px"
          fontFamily="mono"
          fontSize="12px"
          aria-label={`Take ${d}`}
          aria-pressed={d === digits}
          borderColor={d === digits ? 'plum' : 'line'}
          onClick={() => form.setValue('digits', d, { shouldDirty: true })}
        >
          {d}
        </Act>
      ))}
    </Flex>
  );
}

/** Whether there is a mailbox, its PIN, and what comes by mail. */
function MailboxFields({ fields, typed: t }: { fields: FormFields<Typed>; typed: Typed }) {
  return (
    <>
      <PartTitle>Mailbox</PartTitle>
      <Box mb="10px">{fields.tick('mailbox', 'Takes messages when nobody answers')}</Box>
      {t.mailbox ? (
        <>
          <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="18px" rowGap="12px" mb="8px">
            {fields.text(
              'pin',
              'PIN',
              { fontFamily: 'mono', inputMode: 'numeric', autoComplete: 'off' },
              t.pin === '' ? null : pinRefusal(t.pin, t.digits),
            )}
            {fields.text('email', 'Mail messages to', { inputMode: 'email' })}
          </Grid>
          {t.email === '' ? null : fields.tick('attachSound', 'The recording goes with the mail')}
          {fields.tick('announceNumber', 'Says the caller’s number before a message')}
          {fields.tick('announceTime', 'Says when it was left')}
        </>
      ) : null}
    </>
  );
}
