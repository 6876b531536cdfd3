'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { useWatch, type UseFormReturn } from 'react-hook-form';
import { pinRefusal } from '@/core/plan/pin';
import { Act, PartTitle, SelectBox, TickBox, Wrong } from '@/ui/controls';
import { LimitLines } from '@/workbench/limit-lines';
import { useActForm } from '@/workbench/use-act-form';
import { JoinerFields } from './joiner-fields';
import { KIND_WORDS, type Kind, type NewExtensionData, type Typed } from './new-extension-data';
import { Field, PlainField } from './new-extension-field';
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
  const t = useWatch({ control: form.control }) as Typed;
  const site = data.sites.find((s) => s.id === t.site) ?? data.sites[0];
  return (
    <form onSubmit={(e) => void submit(e)}>
      {/* While it is being added nothing can be typed that would not be added. */}
      <chakra.fieldset maxW="760px" disabled={busy}>
        <LimitLines limits={data.limits} />
        <PartTitle>Who and where</PartTitle>
        <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="18px" rowGap="12px" mb="20px">
          <PlainField form={form} name="name" title="Name" autoFocus />
          <Field form={form} name="site" title="Site">
            {({ value, change, ...rest }) => (
              <SelectBox
                {...rest}
                value={value}
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
            )}
          </Field>
          <Box>
            <PlainField form={form} name="digits" title="Digits" fontFamily="mono" inputMode="numeric" />
            <FreeDigits form={form} free={site?.free ?? []} digits={t.digits} />
          </Box>
          {joiner ? (
            <JoinerFields data={data} form={form} alike={t.sameAs !== ''} />
          ) : (
            <Field form={form} name="kind" title="Kind">
              {({ value, change, ...rest }) => (
                <SelectBox {...rest} value={value} onChange={(e) => change(e.target.value as Kind)}>
                  {Object.entries(KIND_WORDS).map(([k, words]) => (
                    <option key={k} value={k}>
                      {words}
                    </option>
                  ))}
                </SelectBox>
              )}
            </Field>
          )}
          {t.sameAs ? null : (
            <Field form={form} name="class" title="Class of service">
              {({ value, change, ...rest }) => (
                <SelectBox {...rest} value={value} onChange={(e) => change(e.target.value)}>
                  {data.classes.map((c) => (
                    <option key={c.id} value={c.id}>
                      {c.name}
                    </option>
                  ))}
                </SelectBox>
              )}
            </Field>
          )}
          <Field form={form} name="number" title="Outside number">
            {({ value, change, ...rest }) => (
              <SelectBox {...rest} fontFamily="mono" value={value} onChange={(e) => change(e.target.value)}>
                <option value="">none of its own</option>
                {site?.numbers.map((n) => (
                  <option key={n.id} value={n.id}>
                    {n.e164}
                  </option>
                ))}
              </SelectBox>
            )}
          </Field>
          {t.kind === 'place' ? <PlainField form={form} name="place" title="Place" /> : null}
        </Grid>
        <MailboxFields form={form} typed={t} />
        {general ? (
          <Box mt="14px">
            <Wrong>{general}</Wrong>
          </Box>
        ) : null}
        <Flex gap="8px" mt="20px">
          <Act look="main" type="submit">
            {busy ? 'Adding …' : joiner ? 'Add joiner' : 'Add extension'}
          </Act>
          {touched ? <Act onClick={clear}>Clear what was typed</Act> : null}
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
function MailboxFields({ form, typed: t }: { form: UseFormReturn<Typed>; typed: Typed }) {
  const tick = (name: 'mailbox' | 'attachSound' | 'announceNumber' | 'announceTime', words: string) => (
    <Flex as="label" gap="8px" align="center" minH="28px">
      <TickBox type="checkbox" {...form.register(name)} />
      {words}
    </Flex>
  );
  return (
    <>
      <PartTitle>Mailbox</PartTitle>
      <Box mb="10px">{tick('mailbox', 'Takes messages when nobody answers')}</Box>
      {t.mailbox ? (
        <>
          <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="18px" rowGap="12px" mb="8px">
            <PlainField
              form={form}
              name="pin"
              title="PIN"
              wrong={t.pin === '' ? null : pinRefusal(t.pin, t.digits)}
              fontFamily="mono"
              inputMode="numeric"
              autoComplete="off"
            />
            <PlainField form={form} name="email" title="Mail messages to" inputMode="email" />
          </Grid>
          {t.email === '' ? null : tick('attachSound', 'The recording goes with the mail')}
          {tick('announceNumber', 'Says the caller’s number before a message')}
          {tick('announceTime', 'Says when it was left')}
        </>
      ) : null}
    </>
  );
}
