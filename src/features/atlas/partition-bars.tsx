'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import type { Answer } from '@/contract';
import { Link } from '@/ui/link';
import { shortCount } from '@/workbench/count';
import { sortOf, type Sort } from './sorts';

type Parts = Answer<'atlas'>['next'][number]['parts'];

/** A bar's parts are drawn by the length of their count, so that one string beside millions is still seen. */
const weight = (count: bigint): number => count.toString().length;

/** Longest names of regions that stand beside a bar. */
const MOST_NAMED = 3;

/** For each symbol that may come next a bar: what becomes of the strings that begin so. */
export function PartitionBars({
  value,
  under,
  pathTo,
}: {
  value: Answer<'atlas'>;
  under: string;
  pathTo: (digits: string) => string;
}) {
  return (
    <Box mb="18px" data-testid="partition" role="list" aria-label="What strings become by their next symbol">
      {value.next.map(({ symbol, parts }) => (
        <Flex
          key={symbol}
          role="listitem"
          align="center"
          gap="12px"
          h="32px"
          borderBottom="1px solid"
          borderColor="line"
        >
          <chakra.span fontFamily="mono" fontSize="16px" w={`${under.length + 2}ch`}>
            <Link href={pathTo(under + symbol)} aria-label={`Open ${under}${symbol}`}>
              {under}
              <b>{symbol}</b>
            </Link>
          </chakra.span>
          <Bar sorts={bySort(value, parts)} />
          <chakra.span
            flex="2"
            minW="0"
            fontSize="13px"
            color="quiet"
            overflow="hidden"
            textOverflow="ellipsis"
            whiteSpace="nowrap"
          >
            {named(value, parts)}
          </chakra.span>
        </Flex>
      ))}
    </Box>
  );
}

function Bar({ sorts }: { sorts: readonly (readonly [Sort, bigint])[] }) {
  const words = sorts.map(([s, count]) => `${s.words} ${shortCount(String(count))}`).join(', ');
  return (
    <Flex
      flex="1"
      minW="120px"
      h="14px"
      rounded="2px"
      overflow="hidden"
      role="img"
      aria-label={words}
      title={words}
      gap="1px"
    >
      {sorts.map(([s, count]) => (
        <Box key={s.id} bg={s.colour} flexGrow={weight(count)} flexBasis="0" />
      ))}
    </Flex>
  );
}

function bySort({ regions }: Answer<'atlas'>, parts: Parts): (readonly [Sort, bigint])[] {
  const sums = new Map<Sort, bigint>();
  for (const { region, count } of parts) {
    const sort = sortOf(regions[region]!);
    // What leads nowhere is nearly everything there is; it is drawn where nothing else is.
    if (sort.id !== 'nothing') sums.set(sort, (sums.get(sort) ?? 0n) + BigInt(count));
  }
  if (sums.size === 0 && parts.length > 0) return [[sortOf(regions[parts[0]!.region]!), 1n]];
  return [...sums];
}

/** What most of the strings that lead somewhere are taken by. */
function named({ regions }: Answer<'atlas'>, parts: Parts): string {
  const somewhere = parts
    .filter((p) => sortOf(regions[p.region]!).id !== 'nothing')
    .sort((a, b) => (BigInt(a.count) < BigInt(b.count) ? 1 : -1));
  if (somewhere.length === 0) return 'leads nowhere';
  const names = [...new Set(somewhere.map(({ region }) => regions[region]!.label))];
  const more = names.length > MOST_NAMED ? `, and ${names.length - MOST_NAMED} more` : '';
  return names.slice(0, MOST_NAMED).join(', ') + more;
}

/** What took the strings of a region, and as what. */
export const titleOf = ({
  label,
  kind,
  outcome,
}: Pick<Answer<'atlas'>['regions'][number], 'label' | 'kind' | 'outcome'>): string =>
  [
    label || (outcome === 'incomplete' ? 'Too short' : 'Nothing'),
    kind && kind !== 'internal' && kind !== 'emergency' ? kind : '',
  ]
    .filter(Boolean)
    .join(', ');
