'use client';

import { Box, Flex, Grid } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { SiteProposal } from '@/core/acts/sites';
import { call } from '@/workbench/api';
import { Act, AreaBox, Labelled, PartTitle, SelectBox, TextBox, Wrong } from '@/ui/controls';
import { Digits } from '@/ui/digits';
import { useKept } from '@/ui/kept';
import { PaneSection, Workspace, useFocusNote } from '@/ui/workspace';
import { NotYours } from '@/workbench/not-yours';
import type { Option } from '@/workbench/form-data';

interface Typed {
  name: string;
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
  countries: Option[];
  proposal: SiteProposal;
  ladders: Option[];
  trunks: (Option & { country: string })[];
  bySite: boolean;
}

const NOTES: Record<string, string> = {
  name: 'What people call the place. Example: Oslo office.',
  country: 'Decides emergency numbers, how numbers are read, and what is proposed below. Example: Norway.',
  zone: 'IANA zone in which times of this site are read. Proposed from the country.',
  language: 'Of prompts and mail (BCP 47). Proposed from the country. Example: nb.',
  address: 'What the emergency service is told. Example: Brygga 4, Oslo.',
  area: 'Area digits without national prefix; calls inside it are local. Empty where the country has none.',
  outsidePrefix: 'What people dial before an outside number. Example: 9. Empty: nothing.',
  siteCode: 'Dialled before extension digits from other sites. Example: 81.',
  from: 'Digits that new extensions of this site are offered: the next free block.',
  numbers:
    'One a line, or ranges: +47 21 93 00 00 to 0049. The first becomes the main number and the emergency callback.',
  trunk: 'The trunk they come by. Empty until the carrier is connected.',
  ladder: 'The ordered rules for calls that leave. Empty: only emergency and internal calls until one is chosen.',
};

/** A second site in under a minute: the country proposes zone, language, emergency numbers and digits. */
export function NewSitePage({ account, canEdit, countries, proposal: first, ladders, trunks, bySite }: Props) {
  const router = useRouter();
  const [proposal, setProposal] = useState(first);
  const [kept, setKept] = useKept<Partial<Typed>>(`${account} new site`);
  const [errors, setErrors] = useState<{ path: string; sentence: string }[]>([]);
  const t: Typed = {
    name: '',
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
    ...kept,
  };
  const put = (change: Partial<Typed>) => setKept({ ...kept, ...change });
  const choose = async (country: string) => {
    const got = await call('siteProposal', { query: { country } });
    if (!got.ok) return;
    setProposal(got.value);
    // What was proposed from the other country gives way to what this one proposes.
    const { zone, language, outsidePrefix, trunk, ...rest } = kept ?? {};
    void [zone, language, outsidePrefix, trunk];
    setKept(rest);
  };
  const add = async () => {
    const local = trunks.find((x) => x.id === t.trunk)?.country === proposal.country ? [t.trunk] : [];
    const made = await call('addSite', {
      body: {
        name: t.name,
        country: proposal.country,
        zone: t.zone,
        language: t.language,
        address: t.address,
        area: t.area || null,
        outsidePrefix: t.outsidePrefix || null,
        siteCode: t.siteCode || null,
        ranges: t.from && t.to ? [{ from: t.from, to: t.to }] : [],
        ladder: t.ladder || null,
        emergencyTrunks: local,
        numbers: t.numbers,
        trunk: t.trunk || null,
      },
    });
    if (!made.ok) return setErrors(made.errors);
    setKept(null);
    router.push(`/sites/${made.value.id}`);
    router.refresh();
  };
  const errorOf = (...paths: string[]) =>
    errors.find((e) => paths.some((p) => e.path === p || e.path.startsWith(`${p}.`)))?.sentence ?? null;
  const known = [
    'name',
    'country',
    'zone',
    'language',
    'address',
    'area',
    'outsidePrefix',
    'siteCode',
    'ranges',
    'numbers',
    'trunk',
    'ladder',
  ];
  const elsewhere = errors.find((e) => !known.includes(e.path.split('.')[0]!));
  const text = (field: keyof Typed, title: string, extra: Record<string, unknown> = {}) => (
    <Field field={field} title={title} error={errorOf(field)}>
      {(common) => (
        <TextBox {...common} {...extra} value={t[field]} onChange={(e) => put({ [field]: e.target.value })} />
      )}
    </Field>
  );
  const select = (field: keyof Typed, title: string, options: Option[], none: string | null) => (
    <Field field={field} title={title} error={errorOf(field)}>
      {(common) => (
        <SelectBox {...common} value={t[field]} onChange={(e) => put({ [field]: e.target.value })}>
          {none === null ? null : <option value="">{none}</option>}
          {options.map((o) => (
            <option key={o.id} value={o.id}>
              {o.label}
            </option>
          ))}
        </SelectBox>
      )}
    </Field>
  );
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
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void add();
        }}
      >
        <Box maxW="760px">
          <PartTitle>Place</PartTitle>
          <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="18px" rowGap="12px" mb="20px">
            {text('name', 'Name', { autoFocus: true })}
            <Field field="country" title="Country" error={errorOf('country')}>
              {(common) => (
                <SelectBox {...common} value={proposal.country} onChange={(e) => void choose(e.target.value)}>
                  {countries.map((c) => (
                    <option key={c.id} value={c.id}>
                      {c.label}
                    </option>
                  ))}
                </SelectBox>
              )}
            </Field>
            {select(
              'zone',
              'Time zone',
              [...new Set([...proposal.zones, t.zone])].map((z) => ({ id: z, label: z })),
              null,
            )}
            {text('language', 'Language')}
            {text('address', 'Address')}
            {text('area', 'Area', { fontFamily: 'mono', inputMode: 'numeric' })}
          </Grid>
          <PartTitle>Dialling</PartTitle>
          <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="18px" rowGap="12px" mb="20px">
            {text('outsidePrefix', 'Outside prefix', { fontFamily: 'mono', inputMode: 'numeric' })}
            <Field field="from" title="Extension range" error={errorOf('ranges')}>
              {(common) => (
                <Flex gap="8px" align="center">
                  <TextBox
                    {...common}
                    fontFamily="mono"
                    value={t.from}
                    onChange={(e) => put({ from: e.target.value })}
                  />
                  to
                  <TextBox
                    aria-label="Last digits"
                    fontFamily="mono"
                    value={t.to}
                    onChange={(e) => put({ to: e.target.value })}
                  />
                </Flex>
              )}
            </Field>
            {bySite ? text('siteCode', 'Site code', { fontFamily: 'mono' }) : null}
            {select('ladder', 'Outbound ladder', ladders, 'none yet')}
          </Grid>
          <PartTitle>Numbers</PartTitle>
          <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="18px" rowGap="12px" mb="20px">
            <Field field="numbers" title="Bought numbers" error={errorOf('numbers')}>
              {(common) => (
                <AreaBox
                  {...common}
                  h="96px"
                  fontFamily="mono"
                  value={t.numbers}
                  onChange={(e) => put({ numbers: e.target.value })}
                />
              )}
            </Field>
            {select('trunk', 'Trunk', trunks, 'none yet')}
          </Grid>
          {elsewhere ? (
            <Box mb="12px">
              <Wrong>{elsewhere.sentence}</Wrong>
            </Box>
          ) : null}
          <Flex gap="8px">
            <Act look="main" type="submit">
              Add site
            </Act>
            {kept ? <Act onClick={() => setKept(null)}>Clear what was typed</Act> : null}
          </Flex>
        </Box>
      </form>
    </Workspace>
  );
}

function Field({
  field,
  title,
  error,
  children,
}: {
  field: string;
  title: string;
  error: string | null;
  children: (common: { id: string; onFocus: () => void; 'aria-invalid'?: true }) => React.ReactNode;
}) {
  const { onFocus } = useFocusNote(title, NOTES[field]);
  const id = `site-${field}`;
  return (
    <Labelled title={title} htmlFor={id} error={error}>
      {children({ id, onFocus, 'aria-invalid': error ? true : undefined })}
    </Labelled>
  );
}
