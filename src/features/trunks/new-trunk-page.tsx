'use client';

import { Box, Flex, Grid } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import type { WayOut } from '@/core/acts/trunk/way-out';
import { DELIVERED_FORMS, TRUNK_KINDS } from '@/core/plan/facts/trunk-choices';
import { WRITTEN_FORMS } from '@/core/numbers/written-forms';
import { Act, AreaBox, PartTitle, SelectBox, Wrong } from '@/ui/controls';
import { Digits, MapChip } from '@/ui/digits';
import { useRefresh } from '@/ui/refresh';
import { PaneSection, Workspace } from '@/ui/workspace';
import { choiceWords } from '@/core/plan/facts/choice-words';
import type { Option } from '@/workbench/form-data';
import { formFields } from '@/workbench/form-fields';
import { LimitLines, type LimitUse } from '@/workbench/limit-lines';
import { NotYours } from '@/workbench/not-yours';
import { useActForm } from '@/workbench/use-act-form';

type Kind = (typeof TRUNK_KINDS)[number];

interface Typed {
  name: string;
  kind: Kind;
  site: string;
  channels: string;
  host: string;
  account: string;
  password: string;
  deliveredForm: (typeof DELIVERED_FORMS)[number];
  writes: (typeof WRITTEN_FORMS)[number];
  numbers: string;
  adopts: boolean;
  emergency: boolean;
  outgoing: boolean;
}

interface Props {
  canEdit: boolean;
  account: string;
  limits: readonly LimitUse[];
  sites: (Option & {
    emergency: string[];
    noEmergency: boolean;
    noWayOut: boolean;
    /** how many of its numbers come by no trunk yet */
    withoutTrunk: number;
    ways: WayOut[];
  })[];
}

const NOTES: Partial<Record<keyof Typed, string>> = {
  name: 'What people call it, usually the carrier. Example: Kestrel Voice.',
  kind: 'Registration: we sign in at the carrier with the account of its sheet. Peer: it knows us by our address.',
  site: 'Where it ends. Emergency calls never leave by another country’s trunk.',
  channels: 'Calls it carries at once, as the sheet says. Example: 10.',
  host: 'Server, proxy or registrar on the sheet, with :port when it isn’t 5060. Example: sip.kestrel.example.',
  account: 'User name on the sheet; often one of the numbers.',
  password: 'Kept encrypted, never shown again. It can be set later on the trunk’s page.',
  deliveredForm: 'How the sheet says that called numbers arrive. Example: plus, as +44 1632 960100.',
  writes: 'How the sheet wants the numbers that we call.',
  numbers: 'One a line, or ranges: 01632 960100 to 0119. The first becomes the main number where there is none.',
};

/** A trunk typed from the carrier's sheet, in the order of such sheets, with what else it is for. */
export function NewTrunkPage({ canEdit, account, sites, limits }: Props) {
  const router = useRouter();
  const refresh = useRefresh();
  const [chosen, setChosen] = useState(sites[0]?.id ?? '');
  const site = sites.find((s) => s.id === chosen);
  const { form, submit, busy, general, touched, clear } = useActForm<'addTrunk', Typed>({
    operation: 'addTrunk',
    defaults: {
      name: '',
      kind: 'sip-registration',
      site: chosen,
      channels: '',
      host: '',
      account: '',
      password: '',
      deliveredForm: 'plus',
      writes: 'plus',
      numbers: '',
      adopts: (site?.withoutTrunk ?? 0) > 0,
      emergency: site?.noEmergency ?? false,
      outgoing: site?.noWayOut ?? false,
    },
    input: ({ channels, password, ...t }) => ({
      body: { ...t, channels: /^[0-9]+$/.test(channels) ? Number(channels) : NaN, password: password || null },
    }),
    unsaid: (t) =>
      /^[0-9]+$/.test(t.channels) ? [] : [{ field: 'channels', sentence: 'Say how many calls it carries at once.' }],
    keep: { key: `${account} new trunk`, about: { title: 'New trunk', path: '/trunks/new' } },
    secrets: ['password'],
    onMade: ({ id }) => {
      router.push(`/trunks/${id}`);
      refresh();
    },
  });
  const { field, text, select, tick } = formFields(form, { prefix: 'trunk', notes: NOTES });
  const said = (choices: readonly string[]) => choices.map((c) => ({ id: c, label: choiceWords(c) }));
  if (!canEdit) return <NotYours title="Add a trunk" />;
  return (
    <Workspace
      title="Add trunk"
      lead="Typed from the carrier’s sheet or letter, from top to bottom. What it leaves out stays as it is here."
      pane={
        site ? (
          <PaneSection title="What it is for">
            <Box mb="8px">
              {site.noEmergency
                ? `Emergency calls of ${site.label} have no trunk yet.`
                : `Emergency calls of ${site.label} leave by another trunk already.`}
            </Box>
            <Box>
              {site.noWayOut
                ? `Nobody at ${site.label} can call outside yet: no rule leads out.`
                : `${site.label} has rules for calls to the outside already.`}
            </Box>
          </PaneSection>
        ) : undefined
      }
    >
      <form onSubmit={(e) => void submit(e)}>
        <Box maxW="760px">
          <LimitLines limits={limits} />
          <PartTitle>Who carries</PartTitle>
          <Columns>
            {text('name', 'Name', { autoFocus: true })}
            {field('site', 'Site', ({ change, ...rest }) => (
              <SelectBox
                {...rest}
                onChange={(e) => {
                  setChosen(e.target.value);
                  change(e.target.value);
                }}
              >
                {sites.map((s) => (
                  <option key={s.id} value={s.id}>
                    {s.label}
                  </option>
                ))}
              </SelectBox>
            ))}
            {select('kind', 'Kind', said(TRUNK_KINDS))}
            {text('channels', 'Channels', { inputMode: 'numeric' })}
          </Columns>
          <PartTitle>What the sheet says</PartTitle>
          <Columns>
            {text('host', 'Server', { fontFamily: 'mono' })}
            {text('account', 'Account', { fontFamily: 'mono', autoComplete: 'off' })}
            {text('password', 'Password', { type: 'password', autoComplete: 'new-password' })}
            {select('deliveredForm', 'Called numbers arrive as', said(DELIVERED_FORMS))}
            {select('writes', 'Wants numbers as', said(WRITTEN_FORMS))}
            {field('numbers', 'Numbers on it', ({ change, ...rest }) => (
              <AreaBox {...rest} fontFamily="mono" onChange={(e) => change(e.target.value)} />
            ))}
          </Columns>
          {site ? (
            <>
              <PartTitle>What comes and leaves by it</PartTitle>
              <Flex direction="column" gap="10px" mb="20px">
                {site.withoutTrunk > 0
                  ? tick(
                      'adopts',
                      `The ${site.withoutTrunk} numbers of ${site.label} that come by no trunk yet`,
                      'they come by this one then',
                    )
                  : null}
                {tick(
                  'emergency',
                  `Emergency calls of ${site.label}`,
                  <>
                    {site.emergency.map((n, i) => (
                      <span key={n}>
                        {i > 0 ? ', ' : ''}
                        <Digits>{n}</Digits>
                      </span>
                    ))}
                    {site.noEmergency ? '; nothing else carries them' : ', after the trunks that carry them already'}
                  </>,
                )}
                {tick(
                  'outgoing',
                  'Calls to the outside',
                  <Flex gap="6px" wrap="wrap" align="center">
                    adds {site.ways.length} rules:
                    {site.ways.map((w) => (
                      <Flex key={w.name} as="span" gap="5px" align="center">
                        {w.name} <MapChip map={w.map} />
                      </Flex>
                    ))}
                  </Flex>,
                )}
              </Flex>
            </>
          ) : null}
          {general ? (
            <Box mb="12px">
              <Wrong>{general}</Wrong>
            </Box>
          ) : null}
          <Flex gap="8px">
            <Act look="main" type="submit">
              {busy ? 'Adding …' : 'Add trunk'}
            </Act>
            {touched ? <Act onClick={() => clear()}>Clear what was typed</Act> : null}
          </Flex>
        </Box>
      </form>
    </Workspace>
  );
}

const Columns = ({ children }: { children: ReactNode }) => (
  <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="18px" rowGap="12px" mb="20px">
    {children}
  </Grid>
);
