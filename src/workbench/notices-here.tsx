'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useQueryClient } from '@tanstack/react-query';
import { BellRing } from 'lucide-react';
import { lazy, Suspense, useState, type ReactNode } from 'react';
import type { NoticeLine } from '@/contract/state';
import { Act, Wrong } from '@/ui/controls';
import { Glyph } from '@/ui/glyph';
import { useKinds } from '@/ui/kinds';
import { Link } from '@/ui/link';
import { useRefresh } from '@/ui/refresh';
import { useWriting } from '@/ui/time';
import { call } from './api';
import type { NoticeOf } from './notice-panel';
import { useAsked } from './use-asked';

/** It is seldom opened: it comes when it is. */
const NoticePanel = lazy(() => import('./notice-panel').then((m) => ({ default: m.NoticePanel })));

/** Whatever was asked that depends on the state beside the plan is asked again. */
export function useStateChanged(): () => void {
  const queries = useQueryClient();
  const refresh = useRefresh();
  return () => {
    for (const key of ['notices', 'week', 'blocked', 'weeks']) void queries.invalidateQueries({ queryKey: [key] });
    refresh();
  };
}

/** A notice in a sentence, with who set it and, for those who may, the button that ends it. */
export function NoticeRow({ notice: n, named = false }: { notice: NoticeLine; named?: boolean }) {
  const { pathOf, wordOf } = useKinds();
  const write = useWriting();
  const changed = useStateChanged();
  const [wrong, setWrong] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const how = { weekday: true, zone: n.zone ?? undefined };
  const path = pathOf(n.of.kind, n.of.id);
  const end = async () => {
    setBusy(true);
    const done = await call('endNotice', { params: { id: n.id } });
    setBusy(false);
    if (!done.ok && done.status !== 404) return setWrong(done.errors[0]!.sentence);
    changed();
  };
  return (
    <Flex
      data-testid="notice"
      gap="10px"
      align="center"
      border="1px solid"
      borderColor="saffron"
      borderLeftWidth="4px"
      bg="saffronTint"
      rounded="4px"
      px="12px"
      py="7px"
      mb="8px"
      maxW="760px"
    >
      <BellRing size={16} aria-hidden style={{ flexShrink: 0 }} />
      <Box flex="1" minW={0} overflowWrap="anywhere">
        {named ? (
          <>
            {path ? <Link href={path}>{n.of.label}</Link> : <b>{n.of.label}</b>}{' '}
            <chakra.span color="quiet">({wordOf(n.of.kind)})</chakra.span>{' '}
          </>
        ) : null}
        <b>
          {n.holds ? 'is ' : 'will be '}
          {n.open ? 'open' : 'closed'} by notice
        </b>
        {n.reason ? ` “${n.reason}”` : ''}
        {n.holds ? '' : ` from ${write(n.from, how)}`}
        {n.until ? ` until ${write(n.until, how)}` : ' until somebody ends it'}
        {n.prompt ? `; callers hear “${n.prompt.label}”` : ''}
        {n.leadsTo ? (
          <>
            {n.prompt ? ', then go to ' : '; callers go to '}
            <chakra.span whiteSpace="nowrap">
              <Box as="span" display="inline-block" verticalAlign="-3px">
                <Glyph kind={n.leadsTo.kind} />
              </Box>{' '}
              {n.leadsTo.label}
            </chakra.span>
          </>
        ) : null}
        <chakra.span color="quiet" fontSize="13px">
          {' '}
          · set by {n.by}
        </chakra.span>
        {wrong ? <Wrong>{wrong}</Wrong> : null}
      </Box>
      {n.mine ? (
        <Act disabled={busy} onClick={() => void end()}>
          {n.holds ? 'End it' : 'Take it back'}
        </Act>
      ) : null}
    </Flex>
  );
}

/** The button that opens a notice, for those who may set one, and the panel itself. */
export function useNotice(of: NoticeOf | null, account: string, may: boolean): { act: ReactNode; panel: ReactNode } {
  const [open, setOpen] = useState(false);
  const changed = useStateChanged();
  if (!may) return { act: null, panel: null };
  return {
    act: open ? null : (
      <Act onClick={() => setOpen(true)}>
        <BellRing size={14} aria-hidden /> Notice now
      </Act>
    ),
    panel: open ? (
      <Suspense fallback={<Box minH="120px" />}>
        <NoticePanel
          of={of}
          account={account}
          onDone={(id) => {
            setOpen(false);
            if (id) changed();
          }}
        />
      </Suspense>
    ) : null,
  };
}

/** The notices that hold or are prepared at one thing. */
export function NoticesHere({ id }: { id: string }) {
  const { value } = useAsked('notices', {}, { fresh: true, keep: true });
  return (value?.notices ?? []).filter((n) => n.of.id === id).map((n) => <NoticeRow key={n.id} notice={n} />);
}

/** All notices that the reader may see; nothing where there is none. */
export function AllNotices({ none }: { none: ReactNode }) {
  const { value, wrong } = useAsked('notices', {}, { fresh: true, keep: true });
  if (wrong) return <Wrong>{wrong}</Wrong>;
  if (value?.notices.length === 0) return none;
  return (value?.notices ?? []).map((n) => <NoticeRow key={n.id} notice={n} named />);
}
