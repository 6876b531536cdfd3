'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { proposedPosition, type PlacedRule } from '@/core/analysis/placement';
import type { Trace } from '@/core/routing';
import { call } from '@/ui/api';
import { Act, Empty, SelectBox, TextBox, Wrong } from '@/ui/controls';
import { Digits, MapChip } from '@/ui/digits';
import { Glyph } from '@/ui/glyph';
import { endOf } from '@/ui/ends';
import { PaneSection, Workspace } from '@/ui/workspace';
import { AddPanel } from '../objects/add-panel';
import { bigCount } from '../objects/count';
import type { LedgerPageData } from '../objects/ledger-page';
import { moveRule } from '../objects/move';
import { tracePath } from '../objects/paths';

export interface OutboundData extends LedgerPageData {
  ladders: { id: string; name: string }[];
  ladder: { id: string; name: string } | null;
  sites: { id: string; name: string; prefix: string | null }[];
  emergency: string[];
  emergencyTrunks: string[];
  phones: { digits: string; label: string }[];
  rungs: RungRow[];
}

interface RungRow {
  id: string;
  rowVersion: number;
  value: { name: string; map: string; position: number; note: string };
  mark: 'new' | 'changed' | null;
  trunks: string[];
  aside: string;
  count: string;
  coveredBy: number[] | null;
}

/** A rule's place and what it takes; one for some phones only leaves the rest to those below. */
const placed = (r: RungRow): PlacedRule => ({
  position: r.value.position,
  maps: r.aside.includes('for ') ? [] : [r.value.map],
});

/** The ladder of rules for calls that leave: read top to bottom, the first that fits decides. */
export function OutboundPage({ data }: { data: OutboundData }) {
  const router = useRouter();
  const [adding, setAdding] = useState(false);
  const [dial, setDial] = useState('');
  const [phone, setPhone] = useState(
    data.phones.find((p) => p.digits === '2104')?.digits ?? data.phones[0]?.digits ?? '',
  );
  const { trace, wrong } = useTry(phone, dial);
  const [moved, setMoved] = useState<string | null>(null);
  const prefixes = [...new Set(data.sites.map((s) => s.prefix).filter(Boolean))].join(' or ');
  const move = async (i: number, by: -1 | 1) => {
    const done = await moveRule('rung', data.rungs, i, by);
    setMoved(done.ok ? null : done.errors[0]!.sentence);
    router.refresh();
  };
  const act =
    data.canEdit && data.ladder && !adding ? (
      <Act look="main" onClick={() => setAdding(true)}>
        Add rule
      </Act>
    ) : null;
  return (
    <Workspace
      title={data.ladder?.name ?? 'Outbound'}
      lead={
        data.ladder
          ? `Read top to bottom; the first that fits decides.${prefixes ? ` People dial ${prefixes} for outside.` : ''} Used by ${data.sites.map((s) => s.name).join(', ') || 'no site yet'}.`
          : undefined
      }
      acts={
        <>
          {data.ladders.length > 1 ? (
            <SelectBox
              aria-label="Ladder"
              w="auto"
              h="30px"
              value={data.ladder?.id}
              onChange={(e) => router.push(`/outbound?ladder=${e.target.value}`)}
            >
              {data.ladders.map((l) => (
                <option key={l.id} value={l.id}>
                  {l.name}
                </option>
              ))}
            </SelectBox>
          ) : null}
          {act}
        </>
      }
      pane={<TryPane trace={trace} data={data} phone={phone} dial={dial} />}
    >
      {adding ? (
        <AddPanel
          kind="rung"
          account={data.account}
          {...data.add}
          finish={(v) => ({ ...v, position: proposedPosition(data.rungs.map(placed), v.map ? [String(v.map)] : []) })}
          onClose={() => setAdding(false)}
        />
      ) : null}
      {!data.ladder ? (
        <Empty>A ladder holds the rules for calls that leave. Sites name the ladder they use.</Empty>
      ) : null}
      {data.ladder ? (
        <>
          <Flex align="center" gap="10px" mb="12px" wrap="wrap">
            <chakra.label htmlFor="try" color="quiet">
              Try
            </chakra.label>
            <TextBox
              id="try"
              w="230px"
              fontFamily="mono"
              fontSize="16px"
              borderColor="plum"
              placeholder="9 01632 960150"
              value={dial}
              onChange={(e) => setDial(e.target.value)}
            />
            <chakra.label htmlFor="try-as" color="quiet">
              as
            </chakra.label>
            <SelectBox id="try-as" w="200px" value={phone} onChange={(e) => setPhone(e.target.value)}>
              {data.phones.map((p) => (
                <option key={p.label} value={p.digits}>
                  {p.label}
                </option>
              ))}
            </SelectBox>
            <Box ml="auto" color="quiet" fontSize="13px">
              {wrong ??
                (trace
                  ? `${trace.outcome}${trace.secondsWaited > 0 ? `, after ${trace.secondsWaited} s or at #` : ''}`
                  : '')}
            </Box>
          </Flex>
          {moved ? <Wrong>{moved}</Wrong> : null}
          <Flex direction="column" gap="6px">
            <Flex
              border="1px solid"
              borderColor={trace?.rule === 'emergency' ? 'plum' : 'line'}
              rounded="4px"
              px="12px"
              py="8px"
              gap="8px"
              align="center"
              wrap="wrap"
              bg={trace?.rule === 'emergency' ? 'plumTint' : 'transparent'}
            >
              <Glyph kind="outside" />
              <b>Emergency</b>
              {data.emergency.map((e) => (
                <MapChip key={e} map={e} />
              ))}
              <chakra.span color="quiet">
                always first, through {data.emergencyTrunks.join(', then ') || 'no trunk: an error'}, never refused
              </chakra.span>
            </Flex>
            {data.rungs.length === 0 ? (
              <Empty act={act}>
                No rule yet: nobody can call outside. Start with national numbers, such as 90[1-8]x{'{8,9}'}.
              </Empty>
            ) : null}
            {data.rungs.map((r, i) => (
              <Rung
                key={r.id}
                row={r}
                index={i}
                last={data.rungs.length - 1}
                taken={trace?.rule === r.id}
                canEdit={data.canEdit}
                onMove={(by) => move(i, by)}
              />
            ))}
            <Flex border="1px dashed" borderColor="fieldLine" rounded="4px" px="12px" py="8px" gap="8px" align="center">
              <Glyph kind="refused" />
              <b>Otherwise</b>
              <chakra.span color="quiet">unroutable: SIP 404, Q.850 cause 1</chakra.span>
            </Flex>
          </Flex>
        </>
      ) : null}
    </Workspace>
  );
}

function Rung({
  row,
  index,
  last,
  taken,
  canEdit,
  onMove,
}: {
  row: RungRow;
  index: number;
  last: number;
  taken: boolean;
  canEdit: boolean;
  onMove: (by: -1 | 1) => void;
}) {
  const dead = row.coveredBy !== null;
  return (
    <Flex
      data-testid="rung"
      data-taken={taken}
      align="center"
      gap="12px"
      border="1px solid"
      borderColor={taken ? 'plum' : row.mark ? 'saffron' : 'line'}
      borderLeftWidth={taken || row.mark ? '4px' : '1px'}
      rounded="4px"
      bg={taken ? 'raised' : row.mark ? 'saffronTint' : 'transparent'}
      px="12px"
      py="7px"
      backgroundImage={
        dead ? 'repeating-linear-gradient(135deg, transparent 0 9px, var(--chakra-colors-line) 9px 10px)' : undefined
      }
    >
      <Box w="22px" fontSize="16px" color="quiet">
        {index + 1}
      </Box>
      <Box flex="1.3" minW={0}>
        <Link href={`/outbound/rule/${row.id}`}>
          <chakra.b color="ink" textDecoration={dead ? 'line-through' : 'none'}>
            {row.value.name}
          </chakra.b>
        </Link>
        {row.aside ? (
          <chakra.span color="quiet" fontSize="13px">
            {' '}
            {row.aside}
          </chakra.span>
        ) : null}
        <Box mt="3px">
          <MapChip map={row.value.map} />
        </Box>
      </Box>
      <Box flex="1" minW={0} fontSize="13px">
        {row.trunks.length === 0 ? <chakra.span color="brick">no trunk</chakra.span> : row.trunks.join(' → ')}
      </Box>
      <Box w="130px" fontSize="13px" color={dead ? 'brick' : 'quiet'}>
        {dead
          ? `nothing: ${row.coveredBy!.length === 1 ? 'rule' : 'rules'} ${row.coveredBy!.join(', ')} ${row.coveredBy!.length === 1 ? 'takes' : 'take'} all of it`
          : bigCount(row.count)}
      </Box>
      {canEdit ? (
        <Flex gap="3px">
          <Act
            h="24px"
            px="7px"
            aria-label={`Move ${row.value.name} up`}
            disabled={index === 0}
            onClick={() => onMove(-1)}
          >
            ↑
          </Act>
          <Act
            h="24px"
            px="7px"
            aria-label={`Move ${row.value.name} down`}
            disabled={index === last}
            onClick={() => onMove(1)}
          >
            ↓
          </Act>
        </Flex>
      ) : null}
    </Flex>
  );
}

/** Asks the draft what some digits do, while they are typed. */
function useTry(phone: string, dial: string): { trace: Trace | null; wrong: string | null } {
  const [state, setState] = useState<{ trace: Trace | null; wrong: string | null }>({ trace: null, wrong: null });
  useEffect(() => {
    const stop = new AbortController();
    const timer = setTimeout(async () => {
      if (dial.trim() === '') return setState({ trace: null, wrong: null });
      const got = await call<Trace>(
        'GET',
        `/trace?${new URLSearchParams({ from: phone, dial, of: 'draft' })}`,
        undefined,
        stop.signal,
      );
      if (!stop.signal.aborted)
        setState(got.ok ? { trace: got.value, wrong: null } : { trace: null, wrong: got.errors[0]!.sentence });
    }, 40);
    return () => {
      stop.abort();
      clearTimeout(timer);
    };
  }, [phone, dial]);
  return state;
}

function TryPane({
  trace,
  data,
  phone,
  dial,
}: {
  trace: Trace | null;
  data: OutboundData;
  phone: string;
  dial: string;
}) {
  if (!trace)
    return (
      <PaneSection title="Try digits">
        <Box color="quiet">
          Type what somebody would dial: the rule that takes it is marked, and every rule above says why it did not.
        </Box>
      </PaneSection>
    );
  const rung = data.rungs.findIndex((r) => r.id === trace.rule);
  const others = trace.steps
    .flatMap((s) => s.notTaken)
    .filter((n) => n.rule !== 'emergency' && n.rule !== 'extensions');
  return (
    <>
      <PaneSection title={rung >= 0 ? `Rule ${rung + 1} fits` : trace.outcome}>
        <Flex gap="8px" align="center">
          <Glyph kind={endOf(trace)} />
          <b>{trace.lands?.label ?? trace.outcome}</b>
        </Flex>
        {trace.cause ? (
          <Box color="quiet">
            cause {trace.cause.q850}, SIP {trace.cause.sip}
          </Box>
        ) : null}
        <Box mt="6px">
          <Link href={tracePath(phone, dial)}>Open the trace</Link>
        </Box>
      </PaneSection>
      {others.length > 0 ? (
        <PaneSection title="Why not the others">
          {others.map((n) => (
            <Flex key={n.rule} gap="8px">
              <Box color="quiet" w="14px">
                {data.rungs.findIndex((r) => r.id === n.rule) + 1 || ''}
              </Box>
              <Box>{n.why}</Box>
            </Flex>
          ))}
        </PaneSection>
      ) : null}
      {trace.digitsSent ? (
        <PaneSection title="What leaves">
          <Box>
            sent <Digits>{trace.digitsSent}</Digits>
          </Box>
          <Box>
            shown <Digits>{trace.shownNumber ?? 'nothing'}</Digits>
          </Box>
          {trace.doubts.map((d) => (
            <Box key={d} color="saffronText" mt="4px">
              {d}
            </Box>
          ))}
        </PaneSection>
      ) : null}
    </>
  );
}
