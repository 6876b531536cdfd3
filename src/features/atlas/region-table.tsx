'use client';

import { MustStay } from '@/workbench/must-stay';
import { Box, chakra } from '@chakra-ui/react';
import type { Answer } from '@/contract';
import { Link } from '@/ui/link';
import { pathOfCall } from '@/workbench/paths';
import { titleOf } from './partition-bars';
import { shortCount } from '@/workbench/count';
import { sortOf } from './sorts';
import { Swatch } from './swatch';

type Region = Answer<'atlas'>['regions'][number];

/** Longest map that is read at a glance; of a longer one the rule's own stands there, with what else must hold. */
const READABLE = 44;

/** Each region in a row: which strings, how many, what becomes of them, and one to trace. */
export function RegionTable({
  phone,
  at,
  of,
  under,
  shown,
  mayEdit,
}: {
  phone: string;
  at: string;
  /** draft, live or the number of a revision */
  of: string;
  /** digits that were opened: an example that begins otherwise is none of these strings */
  under: string;
  shown: readonly Region[];
  mayEdit: boolean;
}) {
  if (shown.length === 0) return <Box color="quiet">No region is of this sort.</Box>;
  return (
    <Box overflowX="auto" tabIndex={0} role="region" aria-label="Regions">
      <chakra.table
        w="100%"
        fontSize="13px"
        data-testid="regions"
        css={{ '& td, & th': { padding: '5px 12px 5px 0', textAlign: 'left', verticalAlign: 'top' } }}
      >
        <thead>
          <chakra.tr color="quiet">
            {['Strings', 'How many', 'Becomes', 'Taken by', 'Trunk', 'Such as', ...(mayEdit ? ['Promise'] : [])].map(
              (title) => (
                <th key={title} scope="col">
                  {title}
                </th>
              ),
            )}
          </chakra.tr>
        </thead>
        <tbody>
          {shown.map((r) => (
            <chakra.tr key={`${r.example} ${r.takenEarly}`} borderTop="1px solid" borderColor="line">
              <chakra.td fontFamily="mono" maxW="330px" overflowWrap="anywhere">
                {stringsOf(r)}
              </chakra.td>
              <chakra.td whiteSpace="nowrap">{shortCount(r.count)}</chakra.td>
              <chakra.td>
                <Swatch sort={sortOf(r)} />
                {becomes(r)}
              </chakra.td>
              <td>{titleOf(r)}</td>
              <chakra.td whiteSpace="nowrap">{r.trunkName}</chakra.td>
              <chakra.td fontFamily="mono">
                {r.example.startsWith(under) ? (
                  <Link href={pathOfCall({ from: phone, dial: r.example, at }, { of, beside: null })}>{r.example}</Link>
                ) : null}
              </chakra.td>
              {mayEdit ? (
                <td>
                  {r.exact && r.example.startsWith(under) ? (
                    <MustStay
                      of={{ from: phone, dial: r.example, at, map: r.map }}
                      about={`strings such as ${r.example}`}
                    />
                  ) : null}
                </td>
              ) : null}
            </chakra.tr>
          ))}
        </tbody>
      </chakra.table>
    </Box>
  );
}

/** The strings of a region as they are read at a glance. */
export function stringsOf({ map, exact }: Pick<Region, 'map' | 'exact'>): string {
  if (exact && map.length <= READABLE) return map;
  return exact ? `${map.slice(0, READABLE)}…` : `some of ${map}`;
}

function becomes({ outcome, right, takenEarly, waits }: Region): string {
  const how = [
    outcome,
    right === 'pin-missing' ? 'a PIN is asked for' : '',
    takenEarly ? 'something shorter is taken before' : '',
    waits && !takenEarly ? 'some wait for more digits' : '',
  ];
  return how.filter(Boolean).join('; ');
}
