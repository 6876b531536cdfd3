'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Input } from '@/contract';
import type { HistoryEntry as Entry } from '@/contract/work';
import { addressOf, call } from '@/workbench/api';
import { Act, ActLink, Labelled, SelectBox, TextBox, Wrong } from '@/ui/controls';
import { Workspace } from '@/ui/workspace';
import type { Option } from '@/workbench/form-data';
import { JobBar } from '@/workbench/job-bar';
import { useJob, whyNot } from '@/workbench/use-job';

interface Asked {
  object: string;
  kind: string;
  who: string;
  from: string;
  to: string;
  batch: string;
}

/** Who did what, when and from where: of everything, or of one object; what still applies is undone from here. */
export function HistoryPage({
  asked,
  first,
  kinds,
  mayUndo,
}: {
  asked: Asked;
  first: { entries: Entry[]; next: string | null };
  kinds: Option[];
  mayUndo: boolean;
}) {
  const router = useRouter();
  const [more, setMore] = useState<{ entries: Entry[]; next: string | null } | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [job, setJob] = useState<string | null>(null);
  const work = useJob<object>(job, (ended) => {
    setWrong(whyNot(ended));
    setMore(null);
    router.refresh();
  });
  const entries = [...first.entries, ...(more?.entries ?? [])];
  const next = more ? more.next : first.next;
  const query = (change: Partial<Asked>) => {
    const params = new URLSearchParams();
    for (const [k, v] of Object.entries({ ...asked, ...change })) if (v) params.set(k, v);
    return params;
  };
  const put = (change: Partial<Asked>) => {
    setMore(null);
    router.replace(`/history?${query(change)}`);
  };
  const load = async () => {
    const got = await call('history', { query: { ...asked, before: next! } as Input<'history'>['query'] });
    if (got.ok) setMore({ entries: [...(more?.entries ?? []), ...got.value.entries], next: got.value.next });
  };
  const undo = async (batch: string) => {
    const done = await call('undoBatch', { params: { batch } });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    if (done.ok && 'job' in done.value) setJob(done.value.job);
    setMore(null);
    router.refresh();
  };
  return (
    <Workspace
      title="History"
      lead="Who did what, when and from where. Secrets are never shown. What still stands as it was left can be undone."
      acts={
        <ActLink href={addressOf('history', { query: { ...asked, format: 'csv' } as Input<'history'>['query'] })}>
          Export CSV
        </ActLink>
      }
    >
      <Flex gap="10px" wrap="wrap" mb="14px" align="flex-end">
        <Box w="150px">
          <Labelled title="What" htmlFor="history-kind">
            <SelectBox id="history-kind" value={asked.kind} onChange={(e) => put({ kind: e.target.value })}>
              <option value="">everything</option>
              {kinds.map((k) => (
                <option key={k.id} value={k.id}>
                  {k.label}
                </option>
              ))}
            </SelectBox>
          </Labelled>
        </Box>
        <Typed id="who" title="Who" value={asked.who} onSettle={(who) => put({ who })} />
        <Typed id="from" title="From" type="date" value={asked.from} onSettle={(from) => put({ from })} />
        <Typed id="to" title="To" type="date" value={asked.to} onSettle={(to) => put({ to })} />
        {asked.object ? <Act onClick={() => put({ object: '' })}>Of one object only ✕</Act> : null}
        {asked.batch ? <Act onClick={() => put({ batch: '' })}>Of one act only ✕</Act> : null}
      </Flex>
      {wrong ? (
        <Box mb="12px">
          <Wrong>{wrong}</Wrong>
        </Box>
      ) : null}
      {job ? <JobBar job={work} what="Taking it back" /> : null}
      {entries.length === 0 ? <Box color="quiet">Nothing was done that fits.</Box> : null}
      {entries.map((e, i) => {
        const begins = e.batch !== null && entries[i - 1]?.batch !== e.batch;
        return (
          <Grid
            key={e.key}
            templateColumns={{ base: '1fr', md: '128px 130px 1fr auto' }}
            gap={{ base: '2px', md: '12px' }}
            borderTop="1px solid"
            borderColor="line"
            py="6px"
            fontSize="13px"
            data-testid="history-entry"
          >
            <chakra.span color="quiet">{e.at.slice(0, 16).replace('T', ' ')}</chakra.span>
            <Box overflow="hidden">
              {e.who}
              <Box color="quiet" fontSize="12px">
                {e.address}
              </Box>
            </Box>
            <Box minW={0}>
              {e.action} {e.kind} <b>{e.label}</b>
              {e.undone ? <chakra.span color="quiet"> · undone</chakra.span> : null}
              {e.fields.slice(0, 6).map((f) => (
                <Box key={f.title} color="quiet" overflowWrap="anywhere">
                  {f.title}: {f.before ? `${f.before.slice(0, 160)} → ` : ''}
                  <chakra.span color="ink">{f.after.slice(0, 160)}</chakra.span>
                </Box>
              ))}
            </Box>
            <Flex gap="6px" align="flex-start">
              {e.id && e.batch && !asked.object ? (
                <Act h="24px" onClick={() => put({ object: e.id! })}>
                  Its history
                </Act>
              ) : null}
              {begins && mayUndo && !e.undone ? (
                <Act h="24px" onClick={() => void undo(e.batch!)}>
                  {entries[i + 1]?.batch === e.batch ? 'Undo all of it' : 'Undo'}
                </Act>
              ) : null}
            </Flex>
          </Grid>
        );
      })}
      {next ? (
        <Act mt="12px" onClick={load}>
          Older
        </Act>
      ) : null}
    </Workspace>
  );
}

function Typed({
  id,
  title,
  type,
  value,
  onSettle,
}: {
  id: string;
  title: string;
  type?: string;
  value: string;
  onSettle: (text: string) => void;
}) {
  const [typed, setTyped] = useState(value);
  const settle = (text: string) => text !== value && onSettle(text);
  return (
    <Box w="150px">
      <Labelled title={title} htmlFor={`history-${id}`}>
        <TextBox
          id={`history-${id}`}
          type={type}
          value={typed}
          onChange={(e) => {
            setTyped(e.target.value);
            if (type === 'date') settle(e.target.value);
          }}
          onBlur={() => settle(typed)}
          onKeyDown={(e) => e.key === 'Enter' && settle(typed)}
        />
      </Labelled>
    </Box>
  );
}
