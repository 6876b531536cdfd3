'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call } from '@/workbench/api';
import { Act, ActLink, Empty, SelectBox, Wrong } from '@/ui/controls';
import { Workspace } from '@/ui/workspace';
import { DifferenceView, type DifferenceData } from './difference';
import { Time } from '@/ui/time';
import type { RevisionRow } from './revisions-page';

interface Props {
  revision: RevisionRow;
  revisions: RevisionRow[];
  against: number | 'draft';
  comparison: { from: string; to: string; edits: DifferenceData[] };
  labels: Record<string, string>;
  mayEdit: boolean;
}

const MOST_SHOWN = 200;

export function RevisionPage({ revision, revisions, against, comparison, labels, mayEdit }: Props) {
  const router = useRouter();
  const [asking, setAsking] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const bringBack = async () => {
    const done = await call('POST', `/revisions/${revision.number}/draft`);
    if (!done.ok) {
      setAsking(false);
      return setWrong(done.errors[0]!.sentence);
    }
    router.push('/go-live');
    router.refresh();
  };
  return (
    <Workspace
      title={`Revision ${revision.number}`}
      lead={
        <>
          {revision.note || 'No note'} · {revision.by}, <Time iso={revision.at} />
        </>
      }
      acts={
        <>
          <ActLink href={`/api/v1/plan?of=${revision.number}`} download={`plan-revision-${revision.number}.json`}>
            Save as JSON
          </ActLink>
          {mayEdit ? <Act onClick={() => setAsking(true)}>Bring back as draft…</Act> : null}
        </>
      }
    >
      {asking ? (
        <Box
          role="alertdialog"
          aria-label="Bring back"
          border="1px solid"
          borderColor="saffron"
          bg="saffronTint"
          rounded="4px"
          p="12px"
          mb="14px"
        >
          <Box mb="8px">
            The draft becomes what revision {revision.number} was; edits in the draft that are not live yet are
            replaced. Live does not change until you go live. Passwords stay as they are today.
          </Box>
          <Flex gap="8px">
            <Act look="main" onClick={bringBack}>
              Bring revision {revision.number} back
            </Act>
            <Act onClick={() => setAsking(false)}>Leave the draft as it is</Act>
          </Flex>
        </Box>
      ) : null}
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      <Flex align="center" gap="8px" my="10px">
        <Box color="quiet">Compared with</Box>
        <SelectBox
          aria-label="Compare with"
          w="auto"
          value={String(against)}
          onChange={(e) => router.push(`/revisions/${revision.number}?against=${e.target.value}`)}
        >
          <option value="draft">the draft</option>
          {revisions
            .filter((r) => r.number !== revision.number)
            .map((r) => (
              <option key={r.number} value={r.number}>
                revision {r.number}
              </option>
            ))}
        </SelectBox>
        <Box color="quiet">
          {comparison.edits.length} {comparison.edits.length === 1 ? 'object differs' : 'objects differ'}, from{' '}
          {comparison.from} to {comparison.to}
        </Box>
      </Flex>
      {comparison.edits.length === 0 ? <Empty>They are the same.</Empty> : null}
      {comparison.edits.slice(0, MOST_SHOWN).map((e) => (
        <DifferenceView key={`${e.kind} ${e.id}`} edit={e} labels={labels} />
      ))}
      {comparison.edits.length > MOST_SHOWN ? (
        <Box color="quiet">and {comparison.edits.length - MOST_SHOWN} more; save both as JSON to see them all.</Box>
      ) : null}
    </Workspace>
  );
}
