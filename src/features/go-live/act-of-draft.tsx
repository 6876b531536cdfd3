'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import type { Input } from '@/contract';
import type { Pending, PendingAct, PendingEdit } from '@/contract/plan';
import { Act, Wrong } from '@/ui/controls';
import { Time } from '@/ui/time';
import { call } from '@/workbench/api';
import { useAsked } from '@/workbench/use-asked';
import { DifferenceView } from './difference';
import { LaterAct, type Later } from './later-part';
import { MorePages, useMorePages } from './more-pages';

/** One act of the draft: its name, who and when; unfolded, the objects that it makes differ from live. */
export function ActOfDraft({
  act,
  asked,
  brought,
  open: first,
  who,
  onUndo,
  onUndoOne,
  later,
}: {
  act: PendingAct;
  asked: { kind: string };
  /** its objects, where the page has them already */
  brought: Pending | null;
  open: boolean;
  who: (name: string) => string;
  onUndo: (() => void) | null;
  onUndoOne: ((edit: PendingEdit) => void) | null;
  later: Later | null;
}) {
  const [open, setOpen] = useState(first || brought !== null);
  return (
    <Box borderTop="1px solid" borderColor="line" py="8px" data-testid="act">
      <Flex gap="10px" rowGap="2px" align="center" wrap="wrap">
        <chakra.button
          type="button"
          display="flex"
          gap="6px"
          alignItems="center"
          textAlign="left"
          minW={0}
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          {open ? <ChevronDown size={16} /> : <ChevronRight size={16} />}
          <chakra.b overflowWrap="anywhere">{act.name}</chakra.b>
        </chakra.button>
        <Flex ml="auto" gap="10px" align="center" color="quiet" fontSize="13px" flexShrink={0}>
          {act.objects > 1 ? `${act.objects} objects` : null}
          <span>
            {act.mine ? 'you' : who(act.by)}
            {act.at ? (
              <>
                , <Time iso={act.at} />
              </>
            ) : null}
          </span>
          {later ? <LaterAct later={later} one={{ act: act.id }} name={act.name} /> : null}
          {onUndo ? (
            <Act h="24px" onClick={onUndo} aria-label={`Undo: ${act.name}`}>
              Undo
            </Act>
          ) : null}
        </Flex>
      </Flex>
      {open && brought && asked.kind === '' ? (
        <List
          first={brought}
          query={undefined}
          who={who}
          onUndoOne={act.objects > 1 ? onUndoOne : null}
          later={act.objects > 1 ? later : null}
        />
      ) : open ? (
        <Objects key={asked.kind} act={act} kind={asked.kind} who={who} onUndoOne={onUndoOne} later={later} />
      ) : null}
    </Box>
  );
}

/** The objects of an act, a page at a time. */
function Objects({
  act,
  kind,
  who,
  onUndoOne,
  later,
}: {
  act: PendingAct;
  kind: string;
  who: (name: string) => string;
  onUndoOne: ((edit: PendingEdit) => void) | null;
  later: Later | null;
}) {
  const query = { act: act.id, kind } as Input<'edits'>['query'];
  const { value, wrong } = useAsked('edits', { query });
  if (wrong) return <Wrong>{wrong}</Wrong>;
  if (!value) return <Box color="quiet">Fetching …</Box>;
  const many = act.objects > 1;
  return <List first={value} query={query} who={who} onUndoOne={many ? onUndoOne : null} later={many ? later : null} />;
}

function List({
  first,
  query,
  who,
  onUndoOne,
  later,
}: {
  first: Pending;
  query: Input<'edits'>['query'];
  who: (name: string) => string;
  onUndoOne: ((edit: PendingEdit) => void) | null;
  later: Later | null;
}) {
  const list = useMorePages('edits', first, (after) => call('edits', { query: { ...query, after } }));
  return (
    <Box pl="22px">
      {list.edits.map((e) => (
        <DifferenceView
          key={`${e.kind} ${e.id}`}
          edit={e}
          labels={list.labels}
          aside={
            <>
              {e.by.length > 1 ? `edited by ${e.by.map(who).join(', ')}` : null}
              {later ? <LaterAct later={later} one={{ kind: e.kind, id: e.id }} name={e.label} /> : null}
              {onUndoOne ? (
                <Act h="24px" onClick={() => onUndoOne(e)} aria-label={`Undo only ${e.label}`}>
                  Undo only this
                </Act>
              ) : null}
            </>
          }
        />
      ))}
      {list.edits.length === 0 ? <Box color="quiet">Nothing of this kind is in it.</Box> : null}
      <MorePages list={list} />
    </Box>
  );
}
