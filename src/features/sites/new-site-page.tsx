'use client';

import { Box, Flex, Grid } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Controller } from 'react-hook-form';
import type { SiteProposal } from '@/core/acts/sites';
import { Act, AreaBox, PartTitle, Wrong } from '@/ui/controls';
import { Digits } from '@/ui/digits';
import { DigitsBox } from '@/ui/digits-box';
import { readKept } from '@/ui/kept';
import { PaneSection, Workspace } from '@/ui/workspace';
import { CountryBox, ZoneBox } from '@/workbench/country-box';
import { formFields } from '@/workbench/form-fields';
import type { Option } from '@/workbench/form-data';
import { LanguageBox } from '@/workbench/language-box';
import { NotYours } from '@/workbench/not-yours';
import { useActForm } from '@/workbench/use-act-form';
import { useAsked } from '@/workbench/use-asked';
import { useRefresh } from '@/ui/refresh';

interface Typed {
  name: string;
  country: string;
  zone: string;
  language: string;
  address: string;
  area: string;
  outsidePrefix: string;
  siteCode: string;
  from: string;
  to: string;
  numbers: string;
  trunk: string;
  ladder: string;
}

interface Props {
  canEdit: boolean;
  account: string;
  proposal: SiteProposal;
  ladders: Option[];
  trunks: (Option & { country: string })[];
  bySite: boolean;
}

const NOTES: Record<keyof Typed, string> = {
  name: 'What people call the place. Example: Oslo office.',
  country: 'Decides emergency numbers, how numbers are read, and what is proposed below. Example: Norway.',
  zone: 'Time zone in which times of this site are read. Proposed from the country.',
  language: 'Of prompts and mail. Proposed from the country. Example: Norwegian Bokmål.',
  address: 'What the emergency service is told. Example: Brygga 4, Oslo.',
  area: 'Area digits without national prefix; calls inside it are local. Empty where the country has none.',
  outsidePrefix: 'What people dial before an outside number. Example: 9. Empty: nothing.',
  siteCode: 'Dialled before extension digits from other sites. Example: 81.',
  from: 'Digits that new extensions of this site are offered: the next free block.',
  to: 'The last digits of the range. Example: 4199.',
  numbers:
    'One a line, or ranges: +47 21 93 00 00 to 0049. The first becomes the main number and the emergency callback.',
  trunk: 'The trunk they come by. Empty until the carrier is connected.',
  ladder: 'The ordered rules for calls that leave. Empty: only emergency and internal calls until one is chosen.',
};

const keyOf = (account: string) => `${account} new site`;

/** A second site in under a minute: the country proposes zone, language, emergency numbers and digits. */
export function NewSitePage({ account, canEdit, proposal: first, ladders, trunks, bySite }: Props) {
  const router = useRouter();
  const refresh = useRefresh();
  // Whoever comes back finds the country that was chosen, with what it proposes.
  const [country, setCountry] = useState<string | null>(null);
  const kept = typeof window === 'undefined' ? null : readKept<Partial<Typed>>(keyOf(account))?.country;
  const wanted = country ?? kept ?? first.country;
  const other = useAsked('siteProposal', wanted === first.country ? null : { query: { country: wanted } }, {
    keep: true,
  });
  const proposal = other.value ?? first;
  const defaults: Typed = {
    name: '',
    country: first.country,
    zone: proposal.zone,
    language: proposal.language,
    address: '',
    area: '',
    outsidePrefix: proposal.outsidePrefix,
    siteCode: '',
    from: proposal.range?.from ?? '',
    to: proposal.range?.to ?? '',
    numbers: '',
    trunk: trunks.find((x) => x.country === proposal.country)?.id ?? '',
    ladder: '',
  };
  const { form, submit, busy, general, touched, clear } = useActForm<'addSite', Typed>({
    operation: 'addSite',
    defaults,
    input: ({ from, to, ...t }) => ({
      body: {
        ...t,
        area: t.area || null,
        outsidePrefix: t.outsidePrefix || null,
        siteCode: t.siteCode || null,
        ranges: from && to ? [{ from, to }] : [],
        ladder: t.ladder || null,
        emergencyTrunks: trunks.some((x) => x.id === t.trunk && x.country === t.country) ? [t.trunk] : [],
        trunk: t.trunk || null,
      },
    }),
    fieldOf: (path) => {
      const head = path.split('.')[0]!;
      return head === 'ranges' ? 'from' : head in defaults ? (head as keyof Typed) : null;
    },
    keep: { key: keyOf(account), about: { title: 'New site', path: '/sites/new' } },
    onMade: ({ id }) => {
      router.push(`/sites/${id}`);
      refresh();
    },
  });
  const { field, text, digits, select } = formFields(form, { prefix: 'site', notes: NOTES });
  if (!canEdit) return <NotYours title="Add a site" />;
  return (
    <Workspace
      title="Add site"
      lead="Choose the country first: the rest comes proposed from it."
      pane={
        <PaneSection title="Emergency here">
          People dial{' '}
          {proposal.emergency.map((n, i) => (
            <span key={n}>
              {i > 0 ? ', ' : ''}
              <Digits>{n}</Digits>
            </span>
          ))}
          , with and without the outside prefix. Calls leave by trunks of the same country only.
        </PaneSection>
      }
    >
      <form onSubmit={(e) => void submit(e)}>
        <Box maxW="760px">
          <PartTitle>Place</PartTitle>
          <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="18px" rowGap="12px" mb="20px">
            {text('name', 'Name', { autoFocus: true })}
            {field('country', 'Country', ({ change, value, ref: _ref, name: _name, onBlur: _onBlur, ...rest }) => (
              <CountryBox
                {...rest}
                value={value}
                onChange={(next) => {
                  // What was proposed from the other country gives way to what this one proposes.
                  for (const f of ['zone', 'language', 'outsidePrefix', 'trunk', 'from', 'to'] as const)
                    form.resetField(f);
                  setCountry(next);
                  change(next);
                }}
              />
            ))}
            {field('zone', 'Time zone', ({ change, ref: _ref, name: _name, onBlur: _onBlur, ...rest }) => (
              <ZoneBox {...rest} first={proposal.zones} onChange={change} />
            ))}
            {field('language', 'Language', ({ change, ref: _ref, name: _name, onBlur: _onBlur, ...rest }) => (
              <LanguageBox {...rest} onChange={change} />
            ))}
            {text('address', 'Address')}
            {digits('area', 'Area')}
          </Grid>
          <PartTitle>Dialling</PartTitle>
          <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="18px" rowGap="12px" mb="20px">
            {digits('outsidePrefix', 'Outside prefix')}
            {field('from', 'Extension range', ({ change, ...rest }) => (
              <Flex gap="8px" align="center">
                <DigitsBox {...rest} onChange={change} />
                to
                <Controller
                  control={form.control}
                  name="to"
                  render={({ field: last }) => <DigitsBox aria-label="Last digits" {...last} />}
                />
              </Flex>
            ))}
            {bySite ? digits('siteCode', 'Site code') : null}
            {select('ladder', 'Outbound ladder', ladders, 'none yet')}
          </Grid>
          <PartTitle>Numbers</PartTitle>
          <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="18px" rowGap="12px" mb="20px">
            {field('numbers', 'Bought numbers', ({ change, ...rest }) => (
              <AreaBox {...rest} h="96px" fontFamily="mono" onChange={(e) => change(e.target.value)} />
            ))}
            {select('trunk', 'Trunk', trunks, 'none yet')}
          </Grid>
          {general ? (
            <Box mb="12px">
              <Wrong>{general}</Wrong>
            </Box>
          ) : null}
          <Flex gap="8px">
            <Act look="main" type="submit">
              {busy ? 'Adding …' : 'Add site'}
            </Act>
            {touched ? (
              <Act
                onClick={() => {
                  setCountry(first.country);
                  clear();
                }}
              >
                Clear what was typed
              </Act>
            ) : null}
          </Flex>
        </Box>
      </form>
    </Workspace>
  );
}
