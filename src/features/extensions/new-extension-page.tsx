'use client';

import { Box, Flex, Grid } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { pinRefusal } from '@/core/plan/pin';
import type { Input } from '@/contract';
import { call } from '@/workbench/api';
import { Act, ActLink, Labelled, PartTitle, SelectBox, TextBox, TickBox, Wrong } from '@/ui/controls';
import { useKept } from '@/ui/kept';
import { RefPicker } from '@/workbench/ref-picker';
import { LimitLines, type LimitUse } from '@/workbench/limit-lines';
import { PaneSection, Workspace, useFocusNote } from '@/ui/workspace';
import { PasswordOnce } from '@/workbench/extension/password-once';

export interface NewExtensionData {
  canEdit: boolean;
  limits: LimitUse[];
  teams: { id: string; label: string }[];
  people: { id: string; label: string }[];
  manyPeople: boolean;
  account: string;
  site: string;
  like: { id: string; kind: Kind; class: string; mailbox: boolean; ringSeconds: number } | null;
  classes: { id: string; name: string }[];
  defaultClass: string;
  sites: { id: string; name: string; ranges: string; free: string[]; numbers: { id: string; e164: string }[] }[];
}

type Kind = NonNullable<Input<'addExtension'>['body']['kind']>;

interface Typed {
  site: string;
  digits: string;
  name: string;
  kind: Kind;
  class: string;
  mailbox: boolean;
  pin: string;
  email: string;
  number: string;
  place: string;
  team: string;
  language: string;
  sameAs: string;
}

const NOTES = {
  site: 'Decides which emergency numbers and outbound rules this phone has, and which digits are offered.',
  digits:
    'What colleagues dial. Offered from the free ones of the site’s ranges; any free digits will do. Example: 2150.',
  name: 'Shown on colleagues’ phones when this one calls. Example: Ann Example.',
  kind: 'Person, place (lobby, lift), fax, or virtual: routing only, without a phone.',
  class: 'Which kinds of call this extension may make. Callers refused by it hear that the call is barred.',
  pin: 'Entered to hear messages: digits only, four or more, not the extension, no run, no repeat.',
  email: 'Where a notice of each new message goes. Empty: no mail.',
  number: 'An outside number of its own. Callers reach this extension by it, and it is shown when it calls out.',
  sameAs:
    'Somebody whose rights, teams, shown number, reach plan and mailbox settings the joiner gets. Example: the one who sits beside them.',
  team: 'For rules that name a team, and for whom one may watch.',
  language: 'Of mailbox prompts and mail (BCP 47). Example: sv. Empty: the site’s.',
  place: 'Where the phone stands; told to the emergency service. Example: Berth 2, quayside.',
};

/** One short act: digits, name, mailbox with PIN, a number; the SIP password is made. */
export function NewExtensionPage({ data, joiner = false }: { data: NewExtensionData; joiner?: boolean }) {
  const [kept, setKept] = useKept<Partial<Typed>>(`${data.account} new ${joiner ? 'joiner' : 'extension'}`);
  const [made, setMade] = useState<{ id: string; digits: string; name: string } | null>(null);
  return (
    <Workspace
      title={joiner ? 'Add joiner' : 'Add extension'}
      lead="A strong SIP password is made with it. Everything lands in the draft; live stays as it is until you go live."
      pane={
        <PaneSection title="What comes with it">
          <Box mb="6px">
            A person of the same name, a mailbox with its PIN, and a SIP password of 20 letters and digits.
          </Box>
          <Box color="quiet">Enter in any field adds it. What you type stays here if you leave the page.</Box>
        </PaneSection>
      }
    >
      {made ? (
        <MadePanel made={made} onNext={() => setMade(null)} />
      ) : data.canEdit ? (
        <Form
          key={kept?.site ?? data.site}
          data={data}
          joiner={joiner}
          kept={kept}
          setKept={setKept}
          onMade={setMade}
        />
      ) : (
        <Wrong>You look at the plan; an administrator can add extensions.</Wrong>
      )}
    </Workspace>
  );
}

function Form({
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
  const [errors, setErrors] = useState<{ path: string; sentence: string }[]>([]);
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
    <Field field={field} title={title} error={(field === 'pin' ? weak : null) ?? errorOf(path)} note={NOTES[field]}>
      {(common) => (
        <TextBox {...common} {...extra} value={t[field]} onChange={(e) => put({ [field]: e.target.value })} />
      )}
    </Field>
  );
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        void add();
      }}
    >
      <Box maxW="760px">
        <LimitLines limits={data.limits} />
        <PartTitle>Who and where</PartTitle>
        <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="18px" rowGap="12px" mb="20px">
          {text('name', 'Name', 'name', { autoFocus: true })}
          <Field field="site" title="Site" error={errorOf('site')} note={NOTES.site}>
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
            <Field field="kind" title="Kind" error={errorOf('kind')} note={NOTES.kind}>
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
            <Field field="class" title="Class of service" error={errorOf('class')} note={NOTES.class}>
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
          <Field field="number" title="Outside number" error={errorOf('number')} note={NOTES.number}>
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
            {joiner ? 'Add joiner' : 'Add extension'}
          </Act>
          {kept ? <Act onClick={() => setKept(null)}>Clear what was typed</Act> : null}
        </Flex>
      </Box>
    </form>
  );
}

/** What a joiner has and a mere phone has not: whom they are like, their team and language. */
function JoinerFields({
  data,
  typed,
  put,
  errorOf,
}: {
  data: NewExtensionData;
  typed: Typed;
  put: (change: Partial<Typed>) => void;
  errorOf: (path: string) => string | null;
}) {
  return (
    <>
      <Field field="sameAs" title="Same as" error={errorOf('sameAs')} note={NOTES.sameAs}>
        {(common) => (
          <RefPicker
            {...common}
            value={typed.sameAs || null}
            options={data.people}
            search={data.manyPeople ? 'person' : undefined}
            nullable
            placeholder="nobody in particular"
            onChange={(id) => put({ sameAs: id ?? '' })}
          />
        )}
      </Field>
      {typed.sameAs ? null : (
        <>
          <Field field="team" title="Team" error={errorOf('teams')} note={NOTES.team}>
            {(common) => (
              <SelectBox {...common} value={typed.team} onChange={(e) => put({ team: e.target.value })}>
                <option value="">none yet</option>
                {data.teams.map((t) => (
                  <option key={t.id} value={t.id}>
                    {t.label}
                  </option>
                ))}
              </SelectBox>
            )}
          </Field>
          <Field field="language" title="Language" error={errorOf('language')} note={NOTES.language}>
            {(common) => (
              <TextBox
                {...common}
                placeholder="the site’s"
                value={typed.language}
                onChange={(e) => put({ language: e.target.value })}
              />
            )}
          </Field>
        </>
      )}
    </>
  );
}

function Field({
  field,
  title,
  error,
  note,
  children,
}: {
  field: string;
  title: string;
  error: string | null;
  note: string;
  children: (common: { id: string; onFocus: () => void; 'aria-invalid'?: true }) => React.ReactNode;
}) {
  const { onFocus } = useFocusNote(title, note);
  const id = `new-${field}`;
  return (
    <Labelled title={title} htmlFor={id} error={error}>
      {children({ id, onFocus, 'aria-invalid': error ? true : undefined })}
    </Labelled>
  );
}

function MadePanel({ made, onNext }: { made: { id: string; digits: string; name: string }; onNext: () => void }) {
  const router = useRouter();
  return (
    <Box
      role="status"
      maxW="560px"
      border="1px solid"
      borderColor="pine"
      rounded="4px"
      bg="raised"
      p="16px"
      data-testid="extension-made"
    >
      <Box fontWeight={700} mb="6px">
        {made.digits} {made.name} is in the draft.
      </Box>
      <Box mb="12px" color="quiet">
        Its phone signs in with the digits and this password:
      </Box>
      <PasswordOnce extension={made.id} />
      <Flex gap="8px" mt="16px" wrap="wrap">
        <Act
          look="main"
          autoFocus
          onClick={() => {
            router.replace(`/extensions/new?like=${made.id}`);
            onNext();
          }}
        >
          Another like this
        </Act>
        <ActLink href={`/extensions/${made.id}`}>Open {made.digits}</ActLink>
        <ActLink href={`/trace?${new URLSearchParams({ from: made.digits, dial: '112' })}`}>
          Ask where its emergency calls go
        </ActLink>
      </Flex>
    </Box>
  );
}
