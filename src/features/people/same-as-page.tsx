'use client';

import { Box, Flex, Grid } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Answer } from '@/contract';
import { SAME_WORDS, type SamePart } from '@/core/acts/people/same-parts';
import { call } from '@/workbench/api';
import { Act, Labelled, PartTitle, TickBox, Wrong } from '@/ui/controls';
import { Workspace } from '@/ui/workspace';
import type { Option } from '@/workbench/form-data';
import { RefPicker } from '@/workbench/ref-picker';
import { useRefresh } from '@/ui/refresh';

/** One person beside another: what can be copied part by part, and the rights of both kind by kind. */
export function SameAsPage({
  id,
  name,
  people,
  many,
  canEdit,
  other: firstOther,
  comparison: firstComparison,
}: {
  id: string;
  name: string;
  people: Option[];
  many: boolean;
  canEdit: boolean;
  other: string | null;
  comparison: Answer<'comparePeople'> | null;
}) {
  const router = useRouter();
  const refresh = useRefresh();
  const [other, setOther] = useState(firstOther);
  const [comparison, setComparison] = useState(firstComparison);
  const [picked, setPicked] = useState<ReadonlySet<SamePart>>(
    new Set((firstComparison?.parts ?? []).filter((p) => !p.same).map((p) => p.part)),
  );
  const [wrong, setWrong] = useState<string | null>(null);
  const choose = async (to: string | null) => {
    setOther(to);
    if (!to) return setComparison(null);
    window.history.replaceState(null, '', `?other=${to}`);
    const got = await call('comparePeople', { params: { id }, query: { other: to } });
    setWrong(got.ok ? null : got.errors[0]!.sentence);
    if (!got.ok) return;
    setComparison(got.value);
    setPicked(new Set(got.value.parts.filter((p) => !p.same).map((p) => p.part)));
  };
  const copy = async () => {
    const done = await call('sameAs', { params: { id }, body: { other: other!, parts: [...picked] } });
    if (!done.ok) return setWrong(done.errors[0]!.sentence);
    router.push(`/people/${id}`);
    refresh();
  };
  const toggle = (part: SamePart) => {
    const next = new Set(picked);
    if (!next.delete(part)) next.add(part);
    setPicked(next);
  };
  return (
    <Workspace title={`${name}, same as …`} lead="Choose somebody; what differs is ticked. Keys come with the phones.">
      <Box maxW="820px">
        <Box maxW="320px" mb="18px">
          <Labelled title="Compared with" htmlFor="same-other">
            <RefPicker
              id="same-other"
              value={other}
              options={people}
              search={many ? 'person' : undefined}
              nullable
              placeholder="type a name"
              onChange={(to) => void choose(to)}
            />
          </Labelled>
        </Box>
        {comparison ? (
          <>
            <Table head={['', comparison.mine, comparison.theirs]}>
              {comparison.parts.map((p) => (
                <Line key={p.part} same={p.same}>
                  <Flex as="label" gap="8px" align="center">
                    <TickBox
                      type="checkbox"
                      disabled={p.same || !canEdit}
                      checked={picked.has(p.part)}
                      onChange={() => toggle(p.part)}
                    />
                    {SAME_WORDS[p.part]}
                  </Flex>
                  <span>{p.mine}</span>
                  <span>{p.theirs}</span>
                </Line>
              ))}
            </Table>
            {canEdit ? (
              <Flex gap="8px" my="16px">
                <Act look="main" disabled={picked.size === 0} onClick={copy}>
                  Make {comparison.mine} the same in {picked.size === 1 ? 'this' : `these ${picked.size}`}
                </Act>
              </Flex>
            ) : null}
            <PartTitle>Rights side by side</PartTitle>
            <Table head={['Kind of call', comparison.mine, comparison.theirs]}>
              {comparison.rights.map((r) => (
                <Line key={r.what} same={r.same}>
                  <span>{r.what}</span>
                  <span>{r.mine}</span>
                  <span>{r.theirs}</span>
                </Line>
              ))}
            </Table>
          </>
        ) : null}
        {wrong ? <Wrong>{wrong}</Wrong> : null}
      </Box>
    </Workspace>
  );
}

const COLUMNS = '220px 1fr 1fr';

function Table({ head, children }: { head: string[]; children: React.ReactNode }) {
  return (
    <Box mb="8px">
      <Grid
        templateColumns={COLUMNS}
        gap="12px"
        fontSize="12px"
        color="quiet"
        borderBottom="1px solid"
        borderColor="line"
        pb="4px"
      >
        {head.map((h) => (
          <span key={h}>{h}</span>
        ))}
      </Grid>
      {children}
    </Box>
  );
}

function Line({ same, children }: { same: boolean; children: React.ReactNode }) {
  return (
    <Grid
      templateColumns={COLUMNS}
      gap="12px"
      minH="30px"
      alignItems="center"
      borderBottom="1px solid"
      borderColor="line"
      bg={same ? undefined : 'saffronTint'}
      color={same ? 'quiet' : 'ink'}
      fontSize="13px"
      px="4px"
    >
      {children}
    </Grid>
  );
}
