'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import type { Answer } from '@/contract';
import { callersWords } from '@/core/proof/call-words';
import { Act, Empty, Wrong } from '@/ui/controls';
import { Workspace } from '@/ui/workspace';
import { call } from '@/workbench/api';
import { CallCell, EndCell, GroupTable, HowMany, sayShare } from '@/workbench/call-groups';
import { useAsked } from '@/workbench/use-asked';
import { Channels, useBusyHour, type BusyHour } from './busy-hour';

type Drill = Answer<'drills'>['drills'][number];
type Result = Answer<'drill'>;

const keyOf = ({ kind, out }: Drill) => `${kind} ${out.join()}`;
const PAIRS = 'pair of trunks';

/** What breaks if this breaks: each trunk, link, site and carrier out of order in turn. */
export function DrillsPage() {
  const { value, wrong } = useAsked('drills', { query: { of: 'draft' } });
  const all = value?.drills ?? [];
  const single = all.filter((d) => d.kind !== PAIRS);
  const pairs = all.filter((d) => d.kind === PAIRS);
  const run = useRun();
  const busy = useBusyHour();
  const [open, setOpen] = useState<string | null>(null);
  const start = (list: readonly Drill[]) => void run.start(list);
  useEffect(() => {
    if (single.length > 0 && run.done.size === 0 && !run.busy) void run.start(single);
    // Once, when the list is there.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [value]);
  const shown = [...single, ...pairs.filter((d) => run.done.has(keyOf(d)))];
  return (
    <Workspace
      title="Drills"
      lead="What becomes of calls while something is out of order: which groups fail or move, and whether every emergency call still leaves."
      acts={
        run.busy ? (
          <Act onClick={run.stop}>Stop</Act>
        ) : (
          <>
            <Act onClick={() => start(single)}>Drill again</Act>
            {pairs.length > 0 ? (
              <Act onClick={() => start(pairs)}>{`Drill ${pairs.length} pairs of trunks`}</Act>
            ) : null}
          </>
        )
      }
    >
      {(wrong ?? run.wrong) ? <Wrong>{wrong ?? run.wrong}</Wrong> : null}
      <Box role="status" color="quiet" minH="22px" mb="8px">
        {run.busy ? `Drilling ${run.at} of ${run.of}: ${run.now}` : run.of > 0 ? `${run.done.size} drilled` : ''}
      </Box>
      {value && all.length === 0 ? (
        <Empty>There is nothing yet that could be out of order: no trunk is enabled, and no site is there.</Empty>
      ) : null}
      {busy ? <Box mb="8px">{busy.sentence}</Box> : null}
      {shown.length > 0 ? (
        <GroupTable titles={['Out of order', 'What breaks', 'Ends nowhere', 'Emergency calls', 'Channels left']}>
          {shown.map((d) => (
            <Row
              key={keyOf(d)}
              drill={d}
              result={run.done.get(keyOf(d)) ?? null}
              busy={busy}
              open={open === keyOf(d)}
              onOpen={() => setOpen(open === keyOf(d) ? null : keyOf(d))}
            />
          ))}
        </GroupTable>
      ) : null}
    </Workspace>
  );
}

/** Drills one after another, each asked of the server; stopped between two, and the one that is asked is given up. */
function useRun() {
  const [done, setDone] = useState<ReadonlyMap<string, Result>>(new Map());
  const [state, setState] = useState({ busy: false, at: 0, of: 0, now: '', wrong: null as string | null });
  const asking = useRef<AbortController | null>(null);
  useEffect(() => () => asking.current?.abort(), []);
  const start = async (list: readonly Drill[]) => {
    const control = new AbortController();
    asking.current = control;
    let wrong: string | null = null;
    for (const [i, drill] of list.entries()) {
      setState({ busy: true, at: i + 1, of: list.length, now: drill.label, wrong });
      const query = { of: 'draft', kind: drill.kind, out: drill.out.join() };
      const found = await call('drill', { query }, control.signal);
      if (control.signal.aborted) break;
      if (found.ok) setDone((known) => new Map(known).set(keyOf(drill), found.value));
      else wrong = found.errors[0]!.sentence;
    }
    setState((s) => ({ ...s, busy: false, wrong }));
  };
  return { ...state, done, start, stop: () => asking.current?.abort() };
}

function Row({
  drill,
  result,
  busy,
  open,
  onOpen,
}: {
  drill: Drill;
  result: Result | null;
  busy: BusyHour | null;
  open: boolean;
  onOpen: () => void;
}) {
  const stuck = result?.emergency.filter((e) => !e.leaves) ?? [];
  const name = drill.label.charAt(0).toUpperCase() + drill.label.slice(1);
  return (
    <>
      <chakra.tr borderTop="1px solid" borderColor="line">
        <td>
          {name}
          <Box color="quiet" fontSize="12px">
            {drill.kind}
          </Box>
        </td>
        <td>
          {!result ? (
            <Box color="quiet">not drilled yet</Box>
          ) : result.groups.length === 0 ? (
            'nothing'
          ) : (
            <Act aria-expanded={open} aria-label={`Calls that change without ${drill.label}`} onClick={onOpen}>
              {result.groups.length} {result.groups.length === 1 ? 'group' : 'groups'} of calls
            </Act>
          )}
        </td>
        <td>{result ? callersWords(result.stranded) || 'nobody' : ''}</td>
        <chakra.td color={stuck.length > 0 ? 'brick' : undefined} fontWeight={stuck.length > 0 ? 700 : undefined}>
          {result ? (stuck.length === 0 ? 'every call leaves' : stuckWords(stuck)) : ''}
        </chakra.td>
        <td>{result ? <Channels channels={result.channels} busy={busy} /> : ''}</td>
      </chakra.tr>
      {open && result ? (
        <tr>
          <chakra.td colSpan={5} pl="16px !important">
            <Groups result={result} />
          </chakra.td>
        </tr>
      ) : null}
    </>
  );
}

/** Which numbers do not get out, of which sites. */
function stuckWords(stuck: Result['emergency']): string {
  const sites = new Map<string, string[]>();
  for (const e of stuck) sites.set(e.siteName, [...(sites.get(e.siteName) ?? []), e.number]);
  return [...sites].map(([site, numbers]) => `no ${numbers.join(' or ')} from ${site}`).join('; ');
}

const Groups = ({ result }: { result: Result }) => (
  <GroupTable titles={['Whose calls', 'Was', 'Would be', 'In what', 'For how long', 'Such as']}>
    {result.groups.map((g, i) => (
      <chakra.tr key={i} borderTop="1px solid" borderColor="line">
        <HowMany group={g} />
        <EndCell end={g.was} nothing="nothing there" />
        <EndCell end={g.willBe} nothing="nothing there" />
        <td>{g.aspects.join(', ')}</td>
        <td>{sayShare(g.share)}</td>
        <CallCell call={g.example.call} />
      </chakra.tr>
    ))}
  </GroupTable>
);
