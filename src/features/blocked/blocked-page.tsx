'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { BlockLine } from '@/contract/state';
import { Act, Empty, PartTitle, Wrong } from '@/ui/controls';
import { Digits, MapChip } from '@/ui/digits';
import { Glyph } from '@/ui/glyph';
import { Ledger } from '@/ui/ledger';
import { Link } from '@/ui/link';
import { useWriting } from '@/ui/time';
import { Workspace } from '@/ui/workspace';
import { call } from '@/workbench/api';
import type { Option } from '@/workbench/form-data';
import { useStateChanged } from '@/workbench/notices-here';
import { BlockForm } from './block-form';

interface Props {
  blocked: BlockLine[];
  plan: { sites: Option[]; rules: { who: string; map: string | null; lead: string; path: string }[] };
  account: string;
  may: boolean;
  /** the caller that somebody came here to block, as the trace of their call names it; `withheld` for a hidden number */
  calling: string | null;
}

/** Callers who are turned away: those blocked at once, each until its end, and those that the plan turns away. */
export function BlockedPage({ blocked, plan, account, may, calling }: Props) {
  const write = useWriting();
  const changed = useStateChanged();
  const [open, setOpen] = useState(calling !== null && may);
  const [wrong, setWrong] = useState<string | null>(null);
  const through = async (line: BlockLine) => {
    const done = await call('unblock', { params: { id: line.id } });
    setWrong(done.ok || done.status === 404 ? null : done.errors[0]!.sentence);
    changed();
  };
  const act =
    may && !open ? (
      <Act look="main" onClick={() => setOpen(true)}>
        Block a caller
      </Act>
    ) : null;
  return (
    <Workspace
      title="Blocked callers"
      count={String(blocked.length)}
      lead="Turned away before any route is looked at; it acts at once, and ends by itself where an end is set."
      acts={act}
    >
      {open ? (
        <BlockForm
          account={account}
          sites={plan.sites}
          calling={calling}
          onDone={(made) => {
            setOpen(false);
            if (made) changed();
          }}
        />
      ) : null}
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      <Ledger
        name="Blocked callers"
        rows={blocked}
        idOf={(b) => b.id}
        empty={<Empty act={act}>Nobody is blocked. A caller is blocked here, or from the trace of a call.</Empty>}
        columns={[
          {
            key: 'who',
            title: 'Who',
            width: 'minmax(170px, 1.2fr)',
            text: (b) => `${b.shown} ${b.calling ?? ''}`,
            cell: (b) => (b.calling ? <Digits>{b.shown}</Digits> : <i>{b.shown}</i>),
          },
          { key: 'site', title: 'For', width: '130px', text: (b) => b.siteName },
          {
            key: 'leads',
            title: 'They go to',
            width: 'minmax(140px, 1fr)',
            text: (b) => b.leadsTo?.label ?? '',
            cell: (b) =>
              b.leadsTo ? (
                <Flex gap="6px" align="center">
                  <Glyph kind={b.leadsTo.kind} /> {b.leadsTo.label}
                </Flex>
              ) : (
                <chakra.span color="quiet">as the plan says</chakra.span>
              ),
          },
          {
            key: 'until',
            title: 'Until',
            width: '150px',
            text: (b) => b.until ?? '',
            cell: (b) => (b.until ? write(b.until) : <chakra.span color="quiet">let through by hand</chakra.span>),
          },
          { key: 'reason', title: 'Why', width: 'minmax(100px, 1fr)', text: (b) => b.reason },
          { key: 'by', title: 'By', width: '120px', text: (b) => b.by },
          {
            key: 'act',
            title: 'Acts',
            width: '110px',
            text: () => '',
            cell: (b) =>
              b.mine ? (
                <Act h="24px" aria-label={`Let ${b.shown} through`} onClick={() => void through(b)}>
                  Let through
                </Act>
              ) : null,
          },
        ]}
      />
      <Box mt="22px" maxW="760px">
        <PartTitle>Turned away by the plan itself</PartTitle>
        {plan.rules.length === 0 ? (
          <Box color="quiet">
            The plan blocks nobody. Maps of blocked callers stand with the organisation and its sites.
          </Box>
        ) : null}
        {plan.rules.map((r, i) => (
          <Flex key={i} gap="10px" align="center" minH="32px" borderTop="1px solid" borderColor="line" wrap="wrap">
            <Link href={r.path}>{r.who}</Link>
            {r.map ? <MapChip map={r.map} /> : <i>whoever hides the number</i>}
            <chakra.span color="quiet">to {r.lead}</chakra.span>
          </Flex>
        ))}
      </Box>
    </Workspace>
  );
}
