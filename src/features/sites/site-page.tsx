'use client';

import { bandwidthOf, callsWithin, type LinkLayer } from '@/core/load';
import { Box, Flex } from '@chakra-ui/react';
import { X } from 'lucide-react';
import { Act, ActLink, PartTitle } from '@/ui/controls';
import { DigitsBox } from '@/ui/digits-box';
import { useFocusNote } from '@/ui/workspace';
import type { ObjectEdit } from '@/workbench/edits';
import { ObjectPage } from '@/workbench/object-page';
import { Picture } from '@/workbench/picture';
import type { ObjectPageData } from '@/workbench/form-data';

export function SitePage({ data, moves }: { data: ObjectPageData; moves: string[] | null }) {
  return (
    <ObjectPage
      data={data}
      listPath="/sites"
      acts={<ActLink href={`/book?site=${data.object.id}`}>Call-flow book</ActLink>}
      top={() => (
        <>
          {moves && moves.length > 0 ? <Moves moves={moves} /> : null}
          <Picture around={data.around} />
        </>
      )}
      parts={[
        { title: 'Where it is', fields: ['name', 'address', 'country', 'zone', 'language', 'music'] },
        { title: 'What people dial here', fields: ['outsidePrefix', 'area', 'siteCode', 'ladder', 'mainNumber'] },
        {
          title: 'Which digits new extensions get',
          draw: (edit) => <Ranges edit={edit} disabled={!data.canEdit} />,
        },
        { title: 'Emergency calls', fields: ['emergencyTrunks', 'emergencyNotify', 'emergencyCallback'] },
        {
          title: 'What its link to other sites carries',
          fields: ['linkKbitPerSecond', 'linkLayer', 'linkIp'],
          draw: (edit) => <LinkCalls edit={edit} />,
        },
        { title: 'Callers who are turned away here', fields: ['blockedCallers', 'blockedLeadTo'], rare: true },
        { title: 'Note', fields: ['note'], rare: true },
      ]}
    />
  );
}

/** What the edited site moves against the one that is live. */
function Moves({ moves }: { moves: string[] }) {
  return (
    <Box
      border="1px solid"
      borderColor="saffron"
      bg="saffronTint"
      rounded="4px"
      p="12px"
      maxW="760px"
      role="status"
      data-testid="site-moves"
    >
      <PartTitle>What this edit moves</PartTitle>
      {moves.map((m) => (
        <Box key={m} mb="4px">
          {m}
        </Box>
      ))}
    </Box>
  );
}

/** Codecs that calls between sites are likely to use, from the fullest to the thinnest. */
const SAMPLE_CODECS = ['G.711A', 'opus-32', 'G.729'] as const;

/** What the link budget means in calls, said while it is typed. */
function LinkCalls({ edit }: { edit: ObjectEdit }) {
  const { linkKbitPerSecond: budget, linkLayer, linkIp } = edit.value;
  if (typeof budget !== 'number') return <Quiet>The link is not limited: any number of calls.</Quiet>;
  const parts = SAMPLE_CODECS.flatMap((codec) => {
    const per = bandwidthOf(codec, 20, linkIp === '6' ? 6 : 4, linkLayer as LinkLayer);
    if (!per.ok) return [];
    const calls = callsWithin(budget, per.kbitPerSecond);
    return [`${calls} ${calls === 1 ? 'call' : 'calls'} with ${codec} at ${per.kbitPerSecond.toFixed(1)} kbit/s each`];
  });
  return <Quiet>{`${budget} kbit/s carry ${parts.join(', or ')}.`}</Quiet>;
}

function Quiet({ children }: { children: string }) {
  return (
    <Box color="quiet" fontSize="14px" data-testid="link-calls">
      {children}
    </Box>
  );
}

interface Range {
  from: string;
  to: string;
}

/** From and to, one range a line. */
function Ranges({ edit, disabled }: { edit: ObjectEdit; disabled: boolean }) {
  const ranges = edit.value.ranges as Range[];
  const note = useFocusNote(
    'Extension ranges',
    'Digits that new extensions of this site are offered. Example: 2000 to 2199.',
  );
  const put = (i: number, change: Partial<Range>) =>
    edit.set(
      'ranges',
      ranges.map((r, j) => (i === j ? { ...r, ...change } : r)),
    );
  return (
    <Box maxW="380px">
      {ranges.map((r, i) => (
        <Flex key={i} gap="8px" align="center" mb="6px">
          <DigitsBox
            aria-label="First digits"
            disabled={disabled}
            value={r.from}
            {...note}
            onChange={(from) => put(i, { from })}
            onBlur={() => void edit.commit()}
          />
          to
          <DigitsBox
            aria-label="Last digits"
            disabled={disabled}
            value={r.to}
            {...note}
            onChange={(to) => put(i, { to })}
            onBlur={() => void edit.commit()}
          />
          {disabled ? null : (
            <Act
              aria-label={`Remove ${r.from} to ${r.to}`}
              onClick={() =>
                edit.choose(
                  'ranges',
                  ranges.filter((_, j) => j !== i),
                )
              }
            >
              <X size={14} aria-hidden />
            </Act>
          )}
        </Flex>
      ))}
      {disabled ? null : <Act onClick={() => edit.set('ranges', [...ranges, { from: '', to: '' }])}>Add a range</Act>}
      {edit.errorOf('ranges') ? (
        <Box role="alert" color="brick" fontSize="13px">
          {edit.errorOf('ranges')}
        </Box>
      ) : null}
    </Box>
  );
}
