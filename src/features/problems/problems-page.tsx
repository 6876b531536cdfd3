'use client';

import { Box } from '@chakra-ui/react';
import type { Answer } from '@/contract';
import { ActLink, Empty } from '@/ui/controls';
import { Later } from '@/ui/later';
import { Workspace } from '@/ui/workspace';
import { Problems } from '@/workbench/problem-list';

export interface ProblemsData {
  /** those that are left as they are, instead of those that are counted */
  muted: boolean;
  mayEdit: boolean;
  found: Promise<Answer<'problems'>>;
}

/** All that is wrong or doubtful in the draft, each with what mends it. */
export function ProblemsPage({ data }: { data: ProblemsData }) {
  const { muted, mayEdit, found } = data;
  return (
    <Workspace
      title={muted ? 'Problems that are left as they are' : 'Problems'}
      lead={
        muted
          ? 'Somebody looked at these and said why they may stay; they are counted again when their day is over.'
          : 'What is wrong or doubtful in the draft, the gravest first. The key . goes from one to the next.'
      }
      acts={
        <ActLink href={muted ? '/problems' : '/problems?muted=true'}>
          {muted ? 'Those that are counted' : 'Those left as they are'}
        </ActLink>
      }
    >
      <Box maxW="900px" data-testid="problems">
        <Later of={found}>
          {(known) =>
            known.count === 0 ? (
              <Empty>{muted ? 'None is left as it is.' : 'Nothing wrong or doubtful was found in the draft.'}</Empty>
            ) : (
              <Problems key={`${known.draftVersion} ${muted}`} found={known} muted={muted} mayEdit={mayEdit} />
            )
          }
        </Later>
      </Box>
    </Workspace>
  );
}
