'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import { proposedPosition, type PlacedRule } from '@/core/analysis/placement';
import { Act, Empty, SelectBox, TextBox, Wrong } from '@/ui/controls';
import { MapChip } from '@/ui/digits';
import { Glyph } from '@/ui/glyph';
import { OrderedList } from '@/ui/ordered-list';
import { Workspace } from '@/ui/workspace';
import { AddPanel } from '@/workbench/add-panel';
import { useEdits, useOrder, type Together } from '@/workbench/edits';
import { PhoneBox } from '@/workbench/phone-box';
import type { OutboundData, RungRow } from './data';
import { Rung } from './rung-row';
import { TryPane, useTry } from './try-digits';

/** A rule's place and what it takes; one for some phones only leaves the rest to those below. */
const placed = (r: RungRow): PlacedRule => ({
  position: r.value.position,
  maps: r.forEveryone ? [r.value.map] : [],
});

/** An empty ladder, to begin with. */
function firstLadder(): Together[] {
  const id = uuid();
  return [{ do: 'add', of: { kind: 'ladder', id }, value: { name: 'Outbound' } }];
}

/** The ladder of rules for calls that leave: read top to bottom, the first that fits decides. */
export function OutboundPage({ data }: { data: OutboundData }) {
  const router = useRouter();
  const edits = useEdits();
  const [adding, setAdding] = useState(false);
  const [dial, setDial] = useState('');
  const [phone, setPhone] = useState(data.firstPhone?.digits ?? '');
  const { trace, wrong } = useTry(phone, dial);
  const {
    order,
    move,
    wrong: notMoved,
  } = useOrder(
    'rung',
    data.rungs.map((r) => r.id),
  );
  const byId = new Map(data.rungs.map((r) => [r.id, r]));
  const rungs = order.flatMap((id) => byId.get(id) ?? []);
  const prefixes = [...new Set(data.sites.map((s) => s.prefix).filter(Boolean))].join(' or ');
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
        <Empty
          act={
            data.canEdit ? (
              <Act look="main" onClick={() => void edits.together(firstLadder(), 'made the first ladder')}>
                Make the first ladder
              </Act>
            ) : null
          }
        >
          A ladder holds the rules for calls that leave. Sites name the ladder they use.
        </Empty>
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
            <PhoneBox id="try-as" w="200px" value={phone} onChange={setPhone} />
            <Box ml="auto" color="quiet" fontSize="13px">
              {wrong ??
                (trace
                  ? `${trace.outcome}${trace.secondsWaited > 0 ? `, after ${trace.secondsWaited} s or at #` : ''}`
                  : '')}
            </Box>
          </Flex>
          {notMoved ? <Wrong>{notMoved}</Wrong> : null}
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
            <OrderedList
              label={`Rules of ${data.ladder.name}`}
              items={rungs.map((r) => ({ id: r.id, name: r.value.name, row: r }))}
              disabled={!data.canEdit}
              onMove={(id, after) => void move(id, after)}
            >
              {({ row }, i, controls) => (
                <Rung row={row} index={i} taken={trace?.rule === row.id} controls={data.canEdit ? controls : null} />
              )}
            </OrderedList>
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
