'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import type { Answer, Input } from '@/contract';
import { NUMBER_STATES } from '@/core/plan/facts/number-states';
import { call } from '@/workbench/api';
import { Act, AreaBox, Labelled, SelectBox, TextBox, Wrong } from '@/ui/controls';
import { useKept } from '@/ui/kept';
import { PaneSection, Workspace } from '@/ui/workspace';
import { NotYours } from '@/workbench/not-yours';
import { choiceWords } from '@/workbench/choices';
import type { Option } from '@/workbench/form-data';

interface Typed {
  text: string;
  site: string;
  trunk: string;
  state: (typeof NUMBER_STATES)[number];
  activeFrom: string;
}

const READ_AFTER_MS = 150;

/** Adds numbers: one, ranges, or a list pasted from the carrier's letter, read while it is typed. */
export function AddNumbersPage({
  sites,
  trunks,
  account,
  site,
  canEdit,
}: {
  canEdit: boolean;
  sites: Option[];
  trunks: (Option & { site: string })[];
  account: string;
  site: string;
}) {
  const router = useRouter();
  const [kept, setKept] = useKept<Typed>(`${account} add numbers`);
  const typed: Typed = {
    text: '',
    site,
    trunk: trunks.find((t) => t.site === site)?.id ?? '',
    state: 'active',
    activeFrom: '',
    ...kept,
  };
  const [entries, setEntries] = useState<Answer<'readNumbers'>['entries']>([]);
  const [wrong, setWrong] = useState<string | null>(null);
  const set = (change: Partial<Typed>) => setKept({ ...typed, ...change });
  const body = { ...typed, trunk: typed.trunk || null, activeFrom: typed.activeFrom || null };
  const key = JSON.stringify(body);
  useEffect(() => {
    const aborter = new AbortController();
    const timer = setTimeout(async () => {
      const got = await call('readNumbers', { body: JSON.parse(key) as Input<'readNumbers'>['body'] }, aborter.signal);
      if (got.ok) setEntries(got.value.entries);
      if (got.ok || got.status !== 0) setWrong(got.ok ? null : got.errors[0]!.sentence);
    }, READ_AFTER_MS);
    return () => {
      clearTimeout(timer);
      aborter.abort();
    };
  }, [key]);
  const fresh = entries.reduce((n, e) => n + e.count - e.known, 0);
  const bad = entries.filter((e) => e.wrong);
  const add = async () => {
    const got = await call('addNumbers', { body });
    if (!got.ok) return setWrong(got.errors[0]!.sentence);
    setKept(null);
    router.push(`/numbers?site=${typed.site}`);
    router.refresh();
  };
  if (!canEdit) return <NotYours title="Add numbers" />;
  return (
    <Workspace
      title="Add numbers"
      lead="One a line, or with commas between; a range as first to last. Any spelling of the site’s country is read."
      pane={
        <PaneSection title="What can stand here">
          <Box fontFamily="mono" fontSize="12px" whiteSpace="pre-line" mb="8px">
            {'+46 31 390 0600 to 0649\n031-390 07 00\n01632 960200 – 960219\n+49 40 66969 300, +49 40 66969 310'}
          </Box>
          Numbers that are known already are passed over. What you type is kept here until it is added.
        </PaneSection>
      }
    >
      <Box maxW="760px">
        <Grid templateColumns={{ base: '1fr', md: 'repeat(4, 1fr)' }} gap="12px" mb="12px">
          <Labelled title="Site" htmlFor="add-site">
            <SelectBox
              id="add-site"
              value={typed.site}
              onChange={(e) =>
                set({ site: e.target.value, trunk: trunks.find((t) => t.site === e.target.value)?.id ?? typed.trunk })
              }
            >
              {sites.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.label}
                </option>
              ))}
            </SelectBox>
          </Labelled>
          <Labelled title="Trunk they come by" htmlFor="add-trunk">
            <SelectBox id="add-trunk" value={typed.trunk} onChange={(e) => set({ trunk: e.target.value })}>
              <option value="">none yet</option>
              {trunks.map((t) => (
                <option key={t.id} value={t.id}>
                  {t.label}
                </option>
              ))}
            </SelectBox>
          </Labelled>
          <Labelled title="State" htmlFor="add-state">
            <SelectBox
              id="add-state"
              value={typed.state}
              onChange={(e) => set({ state: e.target.value as Typed['state'] })}
            >
              {NUMBER_STATES.map((s) => (
                <option key={s} value={s}>
                  {choiceWords(s)}
                </option>
              ))}
            </SelectBox>
          </Labelled>
          <Labelled title="Active from" htmlFor="add-from">
            <TextBox
              id="add-from"
              type="date"
              disabled={typed.state !== 'active'}
              value={typed.activeFrom}
              onChange={(e) => set({ activeFrom: e.target.value })}
            />
          </Labelled>
        </Grid>
        <Labelled title="Numbers" htmlFor="add-list">
          <AreaBox
            id="add-list"
            h="150px"
            fontFamily="mono"
            autoFocus
            value={typed.text}
            onChange={(e) => set({ text: e.target.value })}
          />
        </Labelled>
        {wrong ? (
          <Box mt="10px">
            <Wrong>{wrong}</Wrong>
          </Box>
        ) : null}
        <Box my="12px" data-testid="read-numbers" maxH="260px" overflow="auto">
          {entries.map((e, i) => (
            <Flex
              key={i}
              gap="12px"
              minH="26px"
              align="center"
              fontSize="13px"
              borderBottom="1px solid"
              borderColor="line"
            >
              <chakra.span color="quiet" w="52px" flexShrink={0}>
                line {e.line}
              </chakra.span>
              {e.wrong ? (
                <chakra.span color="brick">{e.wrong}</chakra.span>
              ) : (
                <>
                  <chakra.span fontFamily="mono">
                    {e.first}
                    {e.last ? ` to ${e.last}` : ''}
                  </chakra.span>
                  <chakra.span color="quiet">
                    {e.count} {e.count === 1 ? 'number' : 'numbers'}
                    {e.known > 0 ? `, ${e.known} known already` : ''}
                  </chakra.span>
                </>
              )}
            </Flex>
          ))}
        </Box>
        <Act look="main" disabled={fresh === 0 || bad.length > 0} onClick={add}>
          {bad.length > 0
            ? `${bad.length} ${bad.length === 1 ? 'entry is' : 'entries are'} wrong`
            : `Add ${fresh} ${fresh === 1 ? 'number' : 'numbers'}`}
        </Act>
      </Box>
    </Workspace>
  );
}
