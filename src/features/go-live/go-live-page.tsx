'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Input } from '@/contract';
import type { Pending, PendingEdit } from '@/contract/plan';
import { call } from '@/workbench/api';
import { Act, ActLink, AreaBox, Empty, Labelled, Wrong } from '@/ui/controls';
import { useKept } from '@/ui/kept';
import { Time } from '@/ui/time';
import { PaneSection, Workspace } from '@/ui/workspace';
import { DifferenceView } from './difference';
import { MorePages, useMorePages } from './more-pages';

/** What the server gives this page: a first page of edits, and how they group. */
export interface GoLiveData {
  pending: Pending;
  asked: { kind: string; by: string };
  mayGoLive: boolean;
  mayEdit: boolean;
  me: string;
  live: { number: number; note: string; by: string; at: string } | null;
}

const plural = (n: number) => `${n} ${n === 1 ? 'edit' : 'edits'}`;

/** What going live would change: counted and grouped, a page at a time; undo of one; a note; go. */
export function GoLivePage({ data }: { data: GoLiveData }) {
  const router = useRouter();
  const { pending, asked, me } = data;
  const [note, setNote] = useKept<string>(`${me} go-live note`);
  const [wrong, setWrong] = useState<string | null>(null);
  const [gone, setGone] = useState<number | null>(null);
  const [busy, setBusy] = useState(false);
  const list = useMorePages(pending, pending.draftVersion, (after) =>
    call('edits', { query: { ...filterOf(asked), after } }),
  );
  const go = async () => {
    setBusy(true);
    const done = await call('goLive', { body: { draftVersion: pending.draftVersion, note: note ?? '' } });
    setBusy(false);
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    if (done.ok) {
      setNote(null);
      setGone(done.value.number);
    }
    router.refresh();
  };
  const undo = async (edit: PendingEdit) => {
    const done = await call('undo', { body: { kind: edit.kind, id: edit.id } });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    router.refresh();
  };
  const filter = (change: Partial<typeof asked>) => {
    const params = new URLSearchParams(Object.entries({ ...asked, ...change }).filter(([, v]) => v !== ''));
    router.push(`/go-live${params.size > 0 ? `?${params}` : ''}`);
  };
  const who = (name: string) => (name === me ? 'you' : name);
  return (
    <Workspace
      title={pending.count === 0 ? 'Draft and live are the same' : 'What going live would change'}
      count={pending.count > 0 ? plural(pending.count) : undefined}
      lead={
        data.live ? (
          <>
            Revision {data.live.number} is live since <Time iso={data.live.at} />, by {data.live.by}.
          </>
        ) : (
          'Nothing was ever live.'
        )
      }
      pane={
        pending.count > 0 ? (
          <>
            <PaneSection title="Go live">
              {data.mayGoLive ? (
                <>
                  <Labelled title="Note for whoever looks later" htmlFor="live-note">
                    <AreaBox
                      id="live-note"
                      value={note ?? ''}
                      maxLength={500}
                      onChange={(e) => setNote(e.target.value)}
                      placeholder="Why these changes"
                    />
                  </Labelled>
                  <Act look="main" mt="10px" w="100%" h="34px" disabled={busy} onClick={go} data-testid="go-live">
                    {busy ? 'Going live …' : `Go live with ${plural(pending.count)}`}
                  </Act>
                  <Box color="quiet" mt="8px">
                    All of them at once, as revision {pending.revision + 1}. You can bring any revision back.
                  </Box>
                </>
              ) : (
                'An administrator makes the draft live.'
              )}
            </PaneSection>
            <Groups
              title="What"
              groups={pending.kinds}
              chosen={asked.kind}
              onChoose={(kind) => filter({ kind })}
              wordsOf={(g) => g.words}
            />
            <Groups
              title="Edited by"
              groups={pending.people}
              chosen={asked.by}
              onChoose={(by) => filter({ by })}
              wordsOf={(g) => who(g.key)}
            />
          </>
        ) : undefined
      }
    >
      {wrong ? (
        <Box mb="12px">
          <Wrong>{wrong}</Wrong>
        </Box>
      ) : null}
      {gone ? (
        <Box
          role="status"
          mb="12px"
          border="1px solid"
          borderColor="pine"
          rounded="4px"
          bg="raised"
          p="12px"
          data-testid="went-live"
        >
          Revision {gone} is live.
        </Box>
      ) : null}
      {pending.count === 0 ? (
        <Empty act={<ActLink href="/revisions">Revisions</ActLink>}>
          Every edit lands in the draft first. When there are some, this page lists each with before and after, and
          makes them live together.
        </Empty>
      ) : null}
      {list.edits.map((e) => (
        <DifferenceView
          key={`${e.kind} ${e.id}`}
          edit={e}
          labels={list.labels}
          aside={
            <>
              {e.by.map(who).join(', ')}
              {e.at ? (
                <>
                  , <Time iso={e.at} />
                </>
              ) : null}
              {data.mayEdit ? (
                <Act h="24px" onClick={() => undo(e)} aria-label={`Undo ${e.label}`}>
                  Undo
                </Act>
              ) : null}
            </>
          }
        />
      ))}
      <MorePages list={list} />
    </Workspace>
  );
}

const filterOf = (asked: GoLiveData['asked']): Input<'edits'>['query'] =>
  ({ kind: asked.kind, by: asked.by }) as Input<'edits'>['query'];

/** How many edits there are of each kind or person, each to be listed alone. */
function Groups({
  title,
  groups,
  chosen,
  onChoose,
  wordsOf,
}: {
  title: string;
  groups: Pending['kinds'];
  chosen: string;
  onChoose: (key: string) => void;
  wordsOf: (group: Pending['kinds'][number]) => string;
}) {
  return (
    <PaneSection title={title}>
      {groups.map((g) => (
        <chakra.button
          key={g.key}
          type="button"
          display="flex"
          w="100%"
          justifyContent="space-between"
          px="4px"
          rounded="3px"
          bg={chosen === g.key ? 'plumTint' : undefined}
          fontWeight={chosen === g.key ? 700 : 400}
          aria-pressed={chosen === g.key}
          onClick={() => onChoose(chosen === g.key ? '' : g.key)}
        >
          <span>{wordsOf(g)}</span>
          <chakra.span color="quiet">{g.count}</chakra.span>
        </chakra.button>
      ))}
    </PaneSection>
  );
}
