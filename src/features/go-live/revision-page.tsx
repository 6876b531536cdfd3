'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call } from '@/workbench/api';
import { Act, ActLink, Empty, SelectBox, Wrong } from '@/ui/controls';
import { Link } from '@/ui/link';
import { say } from '@/ui/toasts';
import { Workspace } from '@/ui/workspace';
import type { Comparison } from '@/contract/plan';
import { DifferenceView } from './difference';
import { MorePages, useMorePages } from './more-pages';
import { Time } from '@/ui/time';
import type { RevisionRow } from './revisions-page';
import { useRefresh } from '@/ui/refresh';

interface Props {
  revision: RevisionRow;
  revisions: RevisionRow[];
  against: number | 'draft';
  from: number;
  to: number | 'draft';
  comparison: Comparison;
  mayEdit: boolean;
}

export function RevisionPage({ revision, revisions, against, from, to, comparison, mayEdit }: Props) {
  const router = useRouter();
  const refresh = useRefresh();
  const list = useMorePages('comparison', comparison, (after) =>
    call('compare', { params: { number: String(from) }, query: { to, after } }),
  );
  const [asking, setAsking] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const bringBack = async () => {
    const done = await call('bringBack', { params: { number: String(revision.number) } });
    if (!done.ok) {
      setAsking(false);
      return setWrong(done.errors[0]!.sentence);
    }
    router.push('/go-live');
    refresh();
  };
  /** One object of the draft becomes what it was; whatever can't stand without that, too. */
  const bringBackOne = async ({ kind, id, label }: Comparison['edits'][number]) => {
    const done = await call('bringBackOne', { params: { number: String(revision.number), kind, id } });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    if (done.ok) say(`${label} is in the draft as it was in revision ${revision.number}. Ctrl Z takes it back.`);
    refresh();
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
          <Link href={`/impact?from=${from}&to=${to}`} style={{ textDecoration: 'underline' }}>
            Calls that end otherwise
          </Link>
        </Box>
        <Box color="quiet">
          {comparison.count} {comparison.count === 1 ? 'object differs' : 'objects differ'}, from {comparison.from} to{' '}
          {comparison.to}
        </Box>
      </Flex>
      {comparison.count === 0 ? <Empty>They are the same.</Empty> : null}
      {list.edits.map((e) => (
        <DifferenceView
          key={`${e.kind} ${e.id}`}
          edit={e}
          labels={list.labels}
          aside={
            mayEdit && against === 'draft' ? (
              <Act h="24px" onClick={() => void bringBackOne(e)} aria-label={`Bring back only ${e.label}`}>
                Bring back only this
              </Act>
            ) : null
          }
        />
      ))}
      <MorePages list={list} />
    </Workspace>
  );
}
