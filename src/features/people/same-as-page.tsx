'use client';

import { Box, Flex, Grid } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useWatch } from 'react-hook-form';
import { useActForm } from '@/workbench/use-act-form';
import { useAsked } from '@/workbench/use-asked';
import type { Answer } from '@/contract';
import { SAME_WORDS, type SamePart } from '@/core/acts/people/same-parts';
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
  const asked = useAsked('comparePeople', other ? { params: { id }, query: { other } } : null, { keep: true });
  const comparison = other ? (asked.value ?? (other === firstOther ? firstComparison : null)) : null;
  const differing = (comparison?.parts ?? []).filter((p) => !p.same).map((p) => p.part);
  const { form, submit, busy, general } = useActForm<'sameAs', { parts: SamePart[] }>({
    operation: 'sameAs',
    // Everything that differs is ticked at first.
    defaults: { parts: differing },
    input: ({ parts }) => ({ params: { id }, body: { other: other ?? '', parts } }),
    onMade: () => {
      router.push(`/people/${id}`);
      refresh();
    },
  });
  const parts = useWatch({ control: form.control, name: 'parts' }) as SamePart[];
  const picked = new Set(parts);
  const wrong = asked.wrong ?? general;
  const choose = (to: string | null) => {
    setOther(to);
    form.resetField('parts');
    if (to) window.history.replaceState(null, '', `?other=${to}`);
  };
  const toggle = (part: SamePart) =>
    form.setValue('parts', picked.has(part) ? parts.filter((p) => p !== part) : [...parts, part], {
      shouldDirty: true,
    });
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
              onChange={choose}
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
                <Act look="main" disabled={busy || picked.size === 0} onClick={() => void submit()}>
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

const COLUMNS = { base: 'minmax(0, 1.2fr) minmax(0, 1fr) minmax(0, 1fr)', md: '220px minmax(0, 1fr) minmax(0, 1fr)' };

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
      overflowWrap="anywhere"
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
