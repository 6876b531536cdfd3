'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useState, useSyncExternalStore, type ReactNode } from 'react';
import { Act, PartTitle, SelectBox, Wrong } from '@/ui/controls';
import { Digits } from '@/ui/digits';
import { CountryBox, ZoneBox } from '@/workbench/country-box';
import { formFields } from '@/workbench/form-fields';
import { LanguageBox } from '@/workbench/language-box';
import { SecondFactorPart } from '@/workbench/second-factor-part';
import { useActForm } from '@/workbench/use-act-form';
import { useAsked } from '@/workbench/use-asked';

interface Typed {
  code: string;
  name: string;
  signIn: string;
  password: string;
  organisation: string;
  language: string;
  dayOrder: 'day first' | 'month first';
  site: string;
  country: string;
  zone: string;
  address: string;
  area: string;
}

const NOTES: Partial<Record<keyof Typed, string>> = {
  code: 'Printed by the command that started Polydrome; four groups of four.',
  signIn: 'Letters, digits, dots, hyphens. Example: m.oduya.',
  password: '12 characters or more.',
  organisation: 'Example: Lanternfold Ferries.',
  dayOrder: 'How the days of this organisation are written in digits.',
  site: 'What people call the place. Example: Head office.',
  country: 'Proposes time zone and language, and says which emergency numbers hold.',
  address: 'What the emergency service is told. Example: 4 Quay Street, Hull.',
  area: 'Area digits without the leading 0; calls inside it are local. Empty where the country has none.',
};

/** Paths of what is sent, and the fields they stand in. */
const FIELDS: Record<string, keyof Typed> = {
  code: 'code',
  'owner.name': 'name',
  'owner.signIn': 'signIn',
  'owner.password': 'password',
  'organisation.name': 'organisation',
  'organisation.language': 'language',
  'organisation.dayOrder': 'dayOrder',
  'site.name': 'site',
  'site.country': 'country',
  'site.zone': 'zone',
  'site.address': 'address',
  'site.area': 'area',
};

const NEEDED = ['code', 'name', 'signIn', 'password', 'organisation', 'site'] as const;
const MISSING: Record<(typeof NEEDED)[number], string> = {
  code: 'Type the code that the start command printed.',
  name: 'Type your name: it stands beside what you do.',
  signIn: 'Choose a name to sign in with.',
  password: 'Choose a password of 12 characters or more.',
  organisation: 'Name the organisation.',
  site: 'Name the first site.',
};

/** Where this browser seems to be, as a first proposal. */
const countryHere = () => new Intl.Locale(navigator.language).region ?? 'GB';
const NEVER = () => () => undefined;

/** The first page of an organisation that begins with nothing: its owner, itself, and its first site. */
export function WelcomePage({ code }: { code: string }) {
  const [made, setMade] = useState(false);
  return (
    <Flex minH="100dvh" justify="center" px="16px" py={{ base: '20px', md: '40px' }}>
      <title>Begin · Polydrome</title>
      <chakra.main w="100%" maxW="760px">
        {made ? <Second /> : <Begin code={code} onMade={() => setMade(true)} />}
      </chakra.main>
    </Flex>
  );
}

function Begin({ code, onMade }: { code: string; onMade: () => void }) {
  // The server knows nothing of this browser: the first drawing is the same as its own.
  const here = useSyncExternalStore(NEVER, countryHere, () => 'GB');
  const [chosen, setCountry] = useState<string | null>(null);
  const country = chosen ?? here;
  const { value } = useAsked('firstStart', { query: { country } }, { keep: true });
  const proposal = value?.proposal ?? null;
  const { form, submit, busy, general } = useActForm<'begin', Typed>({
    operation: 'begin',
    checked: false,
    defaults: {
      code,
      name: '',
      signIn: '',
      password: '',
      organisation: '',
      language: proposal?.language ?? 'en',
      dayOrder: country === 'US' ? 'month first' : 'day first',
      site: '',
      country: here,
      zone: proposal?.zone ?? 'UTC',
      address: '',
      area: '',
    },
    input: (t) => ({
      body: {
        code: t.code,
        owner: { name: t.name, signIn: t.signIn, password: t.password },
        organisation: { name: t.organisation, language: t.language, dayOrder: t.dayOrder },
        site: { name: t.site, country: t.country, zone: t.zone, address: t.address, area: t.area || null },
      },
    }),
    unsaid: (t) => NEEDED.filter((f) => t[f].trim() === '').map((field) => ({ field, sentence: MISSING[field] })),
    fieldOf: (path) => FIELDS[path.split('.').slice(0, 2).join('.')] ?? null,
    keep: { key: 'first start', about: { title: 'The first page', path: '/welcome' } },
    secrets: ['code', 'password'],
    onMade,
  });
  const { field, text, digits } = formFields(form, { prefix: 'begin', notes: NOTES, beneath: true });
  return (
    <form onSubmit={(e) => void submit(e)} noValidate>
      <chakra.h1 fontSize="26px" lineHeight="34px" fontWeight={800} letterSpacing="-0.02em" mb="4px">
        A phone system, from nothing
      </chakra.h1>
      <Box color="quiet" mb="22px">
        Three things come first: who owns this Polydrome, which organisation it is for, and its first site. Everything
        can be changed later.
      </Box>
      <Part title="You, the owner">
        {text('code', 'One-time code', { autoFocus: code === '', fontFamily: 'mono', autoComplete: 'off' })}
        {text('name', 'Your name', { autoFocus: code !== '', autoComplete: 'name' })}
        {text('signIn', 'Name to sign in with', { autoComplete: 'username', autoCapitalize: 'none' })}
        {text('password', 'Password', { type: 'password', autoComplete: 'new-password' })}
      </Part>
      <Part title="The organisation">
        {text('organisation', 'Name', { autoComplete: 'organization' })}
        {field('language', 'Language', ({ change, ref: _ref, name: _name, onBlur: _onBlur, ...rest }) => (
          <LanguageBox {...rest} onChange={change} />
        ))}
        {field('dayOrder', 'Dates are written', ({ change, ...rest }) => (
          <SelectBox {...rest} onChange={(e) => change(e.target.value as Typed['dayOrder'])}>
            <option value="day first">day first, 24/12/2026</option>
            <option value="month first">month first, 12/24/2026</option>
          </SelectBox>
        ))}
      </Part>
      <Part title="The first site">
        {text('site', 'Name')}
        {field('country', 'Country', ({ change, ref: _ref, name: _name, onBlur: _onBlur, ...rest }) => (
          <CountryBox
            {...rest}
            onChange={(next) => {
              for (const f of ['zone', 'language', 'dayOrder'] as const) form.resetField(f);
              setCountry(next);
              change(next);
            }}
          />
        ))}
        {field('zone', 'Time zone', ({ change, ref: _ref, name: _name, onBlur: _onBlur, ...rest }) => (
          <ZoneBox {...rest} first={proposal?.zones} onChange={change} />
        ))}
        {digits('area', 'Area')}
        {text('address', 'Address', { autoComplete: 'street-address' })}
        <Box alignSelf="end" fontSize="13px" pb="4px">
          {proposal ? (
            <>
              Emergency numbers there:{' '}
              {proposal.emergency.map((n, i) => (
                <span key={n}>
                  {i > 0 ? ', ' : ''}
                  <Digits>{n}</Digits>
                </span>
              ))}
              {proposal.range ? (
                <>
                  . Extensions begin with <Digits>{proposal.range.from}</Digits>.
                </>
              ) : null}
            </>
          ) : null}
        </Box>
      </Part>
      {general ? (
        <Box mb="12px">
          <Wrong>{general}</Wrong>
        </Box>
      ) : null}
      <Act look="main" type="submit" h="34px" disabled={busy}>
        {busy ? 'Beginning …' : 'Begin'}
      </Act>
    </form>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box mb="24px">
      <PartTitle>{title}</PartTitle>
      <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="18px" rowGap="12px">
        {children}
      </Grid>
    </Box>
  );
}

/** A second factor is offered before anything else. */
function Second() {
  const [on, setOn] = useState(false);
  return (
    <Box>
      <chakra.h1 fontSize="26px" lineHeight="34px" fontWeight={800} letterSpacing="-0.02em" mb="4px">
        You own this Polydrome
      </chakra.h1>
      <Box color="quiet" mb="18px">
        Whoever signs in as you can redirect every call. A second factor, a code from your telephone, makes a stolen
        password worthless. It can be set up later too, in Settings.
      </Box>
      <SecondFactorPart on={on} onDone={() => setOn(true)} />
      <Act look="main" h="34px" mt="18px" onClick={() => window.location.assign('/')}>
        {on ? 'Go on' : 'Go on without one'}
      </Act>
    </Box>
  );
}
