'use client';

import { Box, chakra } from '@chakra-ui/react';
import { Link } from '@/ui/link';
import { ActLink, Empty } from '@/ui/controls';
import { Workspace } from '@/ui/workspace';
import { Time } from '@/ui/time';

export interface RevisionRow {
  number: number;
  note: string;
  override: string;
  by: string;
  at: string;
  edits: number;
  left: number;
}

export function RevisionsPage({ revisions }: { revisions: RevisionRow[] }) {
  return (
    <Workspace
      title="Revisions"
      count={String(revisions.length)}
      acts={<ActLink href="/plan-text">Plan as text</ActLink>}
      lead="Each plan that ever was live, never changed again. Read one, compare, or bring it back as the draft."
    >
      {revisions.length === 0 ? <Empty>Nothing was ever live. Going live makes the first revision.</Empty> : null}
      {revisions.map((r, i) => (
        <Box
          key={r.number}
          display="grid"
          gridTemplateColumns="60px 1fr auto"
          gap="14px"
          borderTop="1px solid"
          borderColor="line"
          py="9px"
          alignItems="baseline"
        >
          <Box fontSize="18px" fontWeight={700}>
            <Link href={`/revisions/${r.number}`}>{r.number}</Link>
          </Box>
          <Box>
            {r.note || <chakra.span color="quiet">no note</chakra.span>}
            <Box color="quiet" fontSize="13px">
              {r.by}, <Time iso={r.at} /> · {r.edits} {r.edits === 1 ? 'edit' : 'edits'}
              {r.left > 0 ? `, ${r.left} ${r.left === 1 ? 'object' : 'objects'} left for later` : ''}
            </Box>
            {r.override ? (
              <Box color="brick" fontSize="13px">
                in spite of errors: {r.override}
              </Box>
            ) : null}
          </Box>
          {i === 0 ? (
            <chakra.span bg="plumTint" color="plum" rounded="3px" px="6px" fontSize="12px">
              live
            </chakra.span>
          ) : (
            <span />
          )}
        </Box>
      ))}
    </Workspace>
  );
}
