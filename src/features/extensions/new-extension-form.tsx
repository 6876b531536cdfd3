'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { pinRefusal } from '@/core/plan/pin';
import { Act, PartTitle, SelectBox, TextBox, TickBox, Wrong } from '@/ui/controls';
import { call } from '@/workbench/api';
import { LimitLines } from '@/workbench/limit-lines';
import { JoinerFields } from './joiner-fields';
import type { Kind, NewExtensionData, Typed } from './new-extension-data';
import { Field } from './new-extension-field';

/** The fields, and the act that adds what they say. */
export function NewExtensionForm({
  data,
  joiner,
  kept,
  setKept,
  onMade,
}: {
  data: NewExtensionData;
  joiner: boolean;
  kept: Partial<Typed> | null;
  setKept: (t: Partial<Typed> | null) => void;
  onMade: (m: { id: string; digits: string; name: string }) => void;
}) {
  const router = useRouter();
  const form = useRef<HTMLFormElement>(null);
  const [busy, setBusy] = useState(false);
  const [errors, setErrors] = useState<{ path: string; sentence: string }[]>([]);
  // The field that has to be mended comes first under the hands again.
  useEffect(() => form.current?.querySelector<HTMLElement>('[aria-invalid=true]')?.focus(), [errors]);
  const site = data.sites.find((s) => s.id === (kept?.site ?? data.site)) ?? data.sites[0];
  const kind = kept?.kind ?? data.like?.kind ?? 'person';
  const t: Typed = {
    site: site?.id ?? '',
    digits: kept?.digits ?? site?.free[0] ?? '',
    name: kept?.name ?? '',
    kind,
    class: kept?.class ?? data.like?.class ?? data.defaultClass,
    mailbox: kept?.mailbox ?? data.like?.mailbox ?? true,
    pin: kept?.pin ?? '',
    email: kept?.email ?? '',
    number: kept?.number ?? '',
    place: kept?.place ?? '',
    team: kept?.team ?? '',
    language: kept?.language ?? '',
    sameAs: kept?.sameAs ?? '',
  };
  const put = (change: Partial<Typed>) => setKept({ ...kept, ...change });
  const errorOf = (path: string) => errors.find((e) => e.path === path)?.sentence ?? null;
  const weak = t.mailbox && t.pin !== '' ? pinRefusal(t.pin, t.digits) : null;
  const add = async () => {
    if (busy) return;
    setBusy(true);
    const result = await call('addExtension', {
      body: {
        digits: t.digits,
        name: t.name,
        kind: t.kind,
        site: t.site,
        class: t.class,
        makePerson: t.kind === 'person',
        place: t.kind === 'place' ? t.place : '',
        ...(data.like ? { ringSeconds: data.like.ringSeconds } : {}),
        mailbox: t.mailbox ? { pin: t.pin, email: t.email === '' ? null : t.email } : null,
        number: t.number === '' ? null : t.number,
        teams: t.team === '' ? [] : [t.team],
        language: t.language,
        sameAs: t.sameAs === '' ? null : t.sameAs,
      },
    });
    setBusy(false);
    if (!result.ok) return setErrors(result.errors);
    setKept(null);
    onMade({ id: result.value.id, digits: t.digits, name: t.name });
    router.refresh();
  };
  const known = new Set([
    'site',
    'digits',
    'name',
    'kind',
    'class',
    'mailbox.pin',
    'mailbox.email',
    'number',
    'place',
    'sameAs',
    'language',
    'teams',
  ]);
  const elsewhere = errors.find((e) => !known.has(e.path));
  const text = (
    field: 'digits' | 'name' | 'place' | 'email' | 'pin',
    title: string,
    path: string,
    extra: Record<string, unknown> = {},
  ) => (
    <Field field={field} title={title} error={(field === 'pin' ? weak : null) ?? errorOf(path)}>
      {(common) => (
        <TextBox {...common} {...extra} value={t[field]} onChange={(e) => put({ [field]: e.target.value })} />
      )}
    </Field>
  );
  return (
    <form
      ref={form}
      onSubmit={(e) => {
        e.preventDefault();
        void add();
      }}
    >
      {/* While it is being added nothing can be typed that would not be added. */}
      <chakra.fieldset maxW="760px" disabled={busy}>
        <LimitLines limits={data.limits} />
        <PartTitle>Who and where</PartTitle>
        <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="18px" rowGap="12px" mb="20px">
          {text('name', 'Name', 'name', { autoFocus: true })}
          <Field field="site" title="Site" error={errorOf('site')}>
            {(common) => (
              <SelectBox
                {...common}
                value={t.site}
                onChange={(e) => setKept({ ...kept, site: e.target.value, digits: undefined, number: undefined })}
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
            {text('digits', 'Digits', 'digits', { fontFamily: 'mono', inputMode: 'numeric' })}
            <Flex gap="4px" mt="5px" wrap="wrap" align="center" fontSize="12px" color="quiet">
              {site && site.free.length > 0 ? 'free:' : 'no free digits in its ranges'}
              {site?.free.map((d) => (
                <Act
                  key={d}
                  h="22px"
                  px="6px"
                  fontFamily="mono"
                  fontSize="12px"
                  aria-pressed={d === t.digits}
                  borderColor={d === t.digits ? 'plum' : 'line'}
                  onClick={() => put({ digits: d })}
                >
                  {d}
                </Act>
              ))}
            </Flex>
          </Box>
          {joiner ? (
            <JoinerFields data={data} typed={t} put={put} errorOf={errorOf} />
          ) : (
            <Field field="kind" title="Kind" error={errorOf('kind')}>
              {(common) => (
                <SelectBox {...common} value={t.kind} onChange={(e) => put({ kind: e.target.value as Kind })}>
                  {['person', 'place', 'fax', 'virtual'].map((k) => (
                    <option key={k}>{k}</option>
                  ))}
                </SelectBox>
              )}
            </Field>
          )}
          {t.sameAs ? null : (
            <Field field="class" title="Class of service" error={errorOf('class')}>
              {(common) => (
                <SelectBox {...common} value={t.class} onChange={(e) => put({ class: e.target.value })}>
                  {data.classes.map((c) => (
                    <option key={c.id} value={c.id}>
                      {c.name}
                    </option>
                  ))}
                </SelectBox>
              )}
            </Field>
          )}
          <Field field="number" title="Outside number" error={errorOf('number')}>
            {(common) => (
              <SelectBox
                {...common}
                fontFamily="mono"
                value={t.number}
                onChange={(e) => put({ number: e.target.value })}
              >
                <option value="">none of its own</option>
                {site?.numbers.map((n) => (
                  <option key={n.id} value={n.id}>
                    {n.e164}
                  </option>
                ))}
              </SelectBox>
            )}
          </Field>
          {t.kind === 'place' ? text('place', 'Place', 'place') : null}
        </Grid>
        <PartTitle>Mailbox</PartTitle>
        <Flex as="label" gap="8px" align="center" mb="10px">
          <TickBox type="checkbox" checked={t.mailbox} onChange={(e) => put({ mailbox: e.target.checked })} />
          Takes messages when nobody answers
        </Flex>
        {t.mailbox ? (
          <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="18px" rowGap="12px">
            {text('pin', 'PIN', 'mailbox.pin', { fontFamily: 'mono', inputMode: 'numeric', autoComplete: 'off' })}
            {text('email', 'Mail messages to', 'mailbox.email', { inputMode: 'email' })}
          </Grid>
        ) : null}
        {elsewhere ? (
          <Box mt="14px">
            <Wrong>{elsewhere.sentence}</Wrong>
          </Box>
        ) : null}
        <Flex gap="8px" mt="20px">
          <Act look="main" type="submit">
            {busy ? 'Adding …' : joiner ? 'Add joiner' : 'Add extension'}
          </Act>
          {kept ? <Act onClick={() => setKept(null)}>Clear what was typed</Act> : null}
        </Flex>
      </chakra.fieldset>
    </form>
  );
}
