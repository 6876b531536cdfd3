'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { Answer } from '@/contract';
import { Act, Empty } from '@/ui/controls';
import { Link } from '@/ui/link';
import { useWriting } from '@/ui/time';
import { shortCount } from '@/workbench/count';
import { pathOfCall } from '@/workbench/paths';
import { titleOf } from './partition-bars';
import { stringsOf } from './region-table';
import { SORTS, sortOf } from './sorts';
import { Swatch } from './swatch';

type Compared = Answer<'atlasApart'>;
type Fate = Compared['groups'][number]['was'];
type Side = Compared['two'][number];

const planWords = (of: string): string => (of === 'draft' || of === 'live' ? of : `revision ${of}`);

/** Every string that goes otherwise in one atlas than in another, in groups. */
export function ApartTable({ value }: { value: Compared }) {
  const write = useWriting();
  const [costs, setCosts] = useState(false);
  const [one, other] = value.two as [Side, Side];
  // Each is called by what it differs in.
  const nameOf = (side: Side): string =>
    [
      one.digits === other.digits ? '' : `${side.digits} ${side.name}`,
      one.at === other.at ? '' : write(side.at, { zone: side.zone, weekday: true }),
      one.of === other.of ? '' : planWords(side.of),
    ]
      .filter(Boolean)
      .join(', ');
  const groups = costs ? value.groups.filter((g) => isDear(g.was) || isDear(g.willBe)) : value.groups;
  if (value.groups.length === 0)
    return <Empty>Nothing goes otherwise: every string of 1 to 32 symbols becomes the same in both.</Empty>;
  return (
    <>
      <Flex gap="12px" align="center" wrap="wrap" mb="10px">
        <Box>
          {shortCount(value.differ)} strings go otherwise, {shortCount(value.alike)} alike.
        </Box>
        <Act aria-pressed={costs} onClick={() => setCosts(!costs)}>
          only what may be dear
        </Act>
      </Flex>
      <Box overflowX="auto" tabIndex={0} role="region" aria-label="What goes otherwise">
        <chakra.table
          w="100%"
          fontSize="13px"
          data-testid="apart"
          css={{ '& td, & th': { padding: '5px 12px 5px 0', textAlign: 'left', verticalAlign: 'top' } }}
        >
          <thead>
            <chakra.tr color="quiet">
              {['Strings', 'How many', nameOf(one) || 'one', nameOf(other) || 'the other', 'Such as'].map(
                (title, i) => (
                  <th key={i} scope="col">
                    {title}
                  </th>
                ),
              )}
            </chakra.tr>
          </thead>
          <tbody>
            {groups.map((g, i) => (
              <chakra.tr key={i} borderTop="1px solid" borderColor="line">
                <chakra.td fontFamily="mono" maxW="260px" overflowWrap="anywhere">
                  {g.map === null ? (
                    <chakra.span fontFamily="body">such as {g.example}</chakra.span>
                  ) : (
                    stringsOf({ map: g.map, exact: true })
                  )}
                </chakra.td>
                <chakra.td whiteSpace="nowrap">{shortCount(g.count)}</chakra.td>
                <FateCell fate={g.was} />
                <FateCell fate={g.willBe} />
                <chakra.td fontFamily="mono">
                  {g.example}{' '}
                  <chakra.span fontFamily="body">
                    <Traced side={one} dial={g.example} words="one" />,{' '}
                    <Traced side={other} dial={g.example} words="other" />
                  </chakra.span>
                </chakra.td>
              </chakra.tr>
            ))}
          </tbody>
        </chakra.table>
      </Box>
      {groups.length === 0 ? <Box color="quiet">Of what may be dear nothing goes otherwise.</Box> : null}
    </>
  );
}

const Traced = ({ side, dial, words }: { side: Side; dial: string; words: string }) => (
  <Link
    href={pathOfCall({ from: side.digits, dial, at: side.at }, { of: side.of, beside: null })}
    aria-label={`Trace ${dial} from ${side.digits}, ${words}`}
    style={{ textDecoration: 'underline' }}
  >
    {words}
  </Link>
);

const isDear = (fate: Fate): boolean => SORTS.find((s) => s.takes(fate))!.id === 'dear';

function FateCell({ fate }: { fate: Fate }) {
  return (
    <td>
      <Swatch sort={sortOf(fate)} />
      {fate.outcome}
      <Box color="quiet" fontSize="12px">
        {[
          titleOf(fate),
          fate.trunkName,
          fate.right === 'pin-missing' ? 'a PIN is asked for' : '',
          fate.takenEarly ? 'something shorter is taken before' : '',
        ]
          .filter(Boolean)
          .join(' · ')}
      </Box>
    </td>
  );
}
