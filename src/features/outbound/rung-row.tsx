'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Link } from '@/ui/link';
import { MapChip } from '@/ui/digits';
import type { MoveControls } from '@/ui/ordered-list';
import { bigCount } from '@/workbench/count';
import type { RungRow } from './data';

/** What else a rule says, in a few words. */
function asideOf(row: RungRow): string {
  const shows = { usual: '', extension: 'shows the extension', hidden: 'shows nothing', fixed: 'shows a fixed number' };
  return [
    shows[row.value.show],
    row.isFor.length > 0 ? `for ${row.isFor.join(', ')}` : '',
    row.notFor.length > 0 ? `not for ${row.notFor.join(', ')}` : '',
  ]
    .filter(Boolean)
    .join(', ');
}

/** On a narrow screen what a rule does stands beneath what it is. */
const NARROW = { base: '50px', md: 0 } as const;

/** One rule of a ladder: crossed out when those above leave it nothing, marked when it takes the digits that are tried. */
export function Rung({
  row,
  index,
  taken,
  controls,
}: {
  row: RungRow;
  index: number;
  taken: boolean;
  /** what it is moved by; null: not by this reader */
  controls: MoveControls | null;
}) {
  const dead = row.coveredBy !== null;
  const aside = asideOf(row);
  return (
    <Flex
      data-testid="rung"
      data-taken={taken}
      align="center"
      wrap={{ base: 'wrap', md: 'nowrap' }}
      columnGap="12px"
      rowGap="4px"
      border="1px solid"
      borderColor={taken ? 'plum' : row.mark ? 'saffron' : 'line'}
      borderLeftWidth={taken || row.mark ? '4px' : '1px'}
      rounded="4px"
      bg={taken ? 'raised' : row.mark ? 'saffronTint' : 'transparent'}
      px="12px"
      py="7px"
      backgroundImage={
        dead ? 'repeating-linear-gradient(135deg, transparent 0 9px, var(--chakra-colors-line) 9px 10px)' : undefined
      }
    >
      {controls?.handle}
      <Box w="22px" fontSize="16px" color="quiet">
        {index + 1}
      </Box>
      <Box flex={{ base: '1 1 120px', md: '1.3' }} minW={0}>
        <Link href={`/outbound/rule/${row.id}`}>
          <chakra.b color="ink" textDecoration={dead ? 'line-through' : 'none'}>
            {row.value.name}
          </chakra.b>
        </Link>
        {aside ? (
          <chakra.span color="quiet" fontSize="13px">
            {' '}
            {aside}
          </chakra.span>
        ) : null}
        <Box mt="3px">
          <MapChip map={row.value.map} />
        </Box>
      </Box>
      <Box order={{ base: 1, md: 0 }} flex="1" minW={0} pl={NARROW} fontSize="13px">
        {row.trunks.length === 0 ? <chakra.span color="brick">no trunk</chakra.span> : row.trunks.join(' → ')}
      </Box>
      <Box order={{ base: 1, md: 0 }} w="130px" fontSize="13px" color={dead ? 'brick' : 'quiet'}>
        {dead
          ? `nothing: ${row.coveredBy!.length === 1 ? 'rule' : 'rules'} ${row.coveredBy!.join(', ')} ${row.coveredBy!.length === 1 ? 'takes' : 'take'} all of it`
          : bigCount(row.count)}
      </Box>
      {controls?.arrows}
      <Box hideFrom="md" flexBasis="100%" h={0} />
    </Flex>
  );
}
