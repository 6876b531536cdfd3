'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call } from '@/workbench/api';
import { Act, ActLink, AreaBox, Empty, Labelled, Wrong } from '@/ui/controls';
import { useKept } from '@/ui/kept';
import { Time } from '@/ui/time';
import { PaneSection, Workspace } from '@/ui/workspace';
import { DifferenceView, type DifferenceData } from './difference';

export interface GoLiveData {
  draftVersion: number;
  revision: number;
  edits: (DifferenceData & { by: string[]; at: string | null })[];
  labels: Record<string, string>;
  mayGoLive: boolean;
  mayEdit: boolean;
  me: string;
  live: { number: number; note: string; by: string; at: string } | null;
}

/** What going live would change, edit by edit; undo of one; a note; go. */
export function GoLivePage({ data }: { data: GoLiveData }) {
  const router = useRouter();
  const [note, setNote] = useKept<string>(`${data.me} go-live note`);
  const [wrong, setWrong] = useState<string | null>(null);
  const [gone, setGone] = useState<number | null>(null);
  const [busy, setBusy] = useState(false);
  const go = async () => {
    setBusy(true);
    const done = await call<{ number: number }>('POST', '/live', { draftVersion: data.draftVersion, note: note ?? '' });
    setBusy(false);
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    if (done.ok) {
      setNote(null);
      setGone(done.value.number);
    }
    router.refresh();
  };
  const undo = async (kind: string, id: string) => {
    const done = await call('POST', '/edits/undo', { kind, id });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    router.refresh();
  };
  const people = [...new Set(data.edits.flatMap((e) => e.by))];
  return (
    <Workspace
      title={data.edits.length === 0 ? 'Draft and live are the same' : 'What going live would change'}
      count={data.edits.length > 0 ? `${data.edits.length} ${data.edits.length === 1 ? 'edit' : 'edits'}` : undefined}
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
        data.edits.length > 0 ? (
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
                    {busy
                      ? 'Going live …'
                      : `Go live with ${data.edits.length} ${data.edits.length === 1 ? 'edit' : 'edits'}`}
                  </Act>
                  <Box color="quiet" mt="8px">
                    All of them at once, as revision {data.revision + 1}. You can bring any revision back.
                  </Box>
                </>
              ) : (
                'An administrator makes the draft live.'
              )}
            </PaneSection>
            <PaneSection title="Edited by">
              {people.map((p) => (
                <Flex key={p} justify="space-between">
                  <Box>{p === data.me ? 'you' : p}</Box>
                  <Box color="quiet">{data.edits.filter((e) => e.by.includes(p)).length}</Box>
                </Flex>
              ))}
            </PaneSection>
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
      {data.edits.length === 0 ? (
        <Empty act={<ActLink href="/revisions">Revisions</ActLink>}>
          Every edit lands in the draft first. When there are some, this page lists each with before and after, and
          makes them live together.
        </Empty>
      ) : null}
      {data.edits.map((e) => (
        <DifferenceView
          key={`${e.kind} ${e.id}`}
          edit={e}
          labels={data.labels}
          aside={
            <>
              {e.by.map((p) => (p === data.me ? 'you' : p)).join(', ')}
              {e.at ? (
                <>
                  , <Time iso={e.at} />
                </>
              ) : null}
              {data.mayEdit ? (
                <Act h="24px" onClick={() => undo(e.kind, e.id)} aria-label={`Undo ${e.label}`}>
                  Undo
                </Act>
              ) : null}
            </>
          }
        />
      ))}
    </Workspace>
  );
}
