'use client';

import { Box, chakra } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import type { Answer } from '@/contract';
import { assumedIn, callersWords } from '@/core/proof/call-words';
import { Link } from '@/ui/link';
import { shortCount } from './count';
import { pathOfCall, type TracedPlans } from './paths';

/* Groups of calls that change alike, as rows of a table. */

type Group = Answer<'drill'>['groups'][number];
type End = NonNullable<Group['was']>;

/** A table of groups, which scrolls by itself where it is wide. */
export const GroupTable = ({ titles, children }: { titles: readonly string[]; children: ReactNode }) => (
  <Box overflowX="auto" tabIndex={0} role="region" aria-label="Calls that change">
    <chakra.table
      w="100%"
      minW="720px"
      fontSize="13px"
      data-testid="groups"
      css={{ '& td, & th': { padding: '6px 14px 6px 0', textAlign: 'left', verticalAlign: 'top' } }}
    >
      <thead>
        <chakra.tr color="quiet">
          {titles.map((t) => (
            <th key={t} scope="col">
              {t}
            </th>
          ))}
        </chakra.tr>
      </thead>
      <tbody>{children}</tbody>
    </chakra.table>
  </Box>
);

/** How many phones and numbers, and how many strings of digits each. */
export function HowMany({ group }: { group: Pick<Group, 'phones' | 'numbers' | 'brought' | 'strings'> }) {
  const { phones, strings } = group;
  return (
    <td>
      {callersWords(group)}
      {phones > 0 && strings !== '1' ? <Box color="quiet">{`${shortCount(strings)} strings of digits`}</Box> : null}
    </td>
  );
}

/** Where calls of a group end, and what follows there. */
export function EndCell({ end, nothing }: { end: End | null; nothing: string }) {
  if (!end) return <chakra.td color="quiet">{nothing}</chakra.td>;
  const { outcome, lands, cause, then, shownNumber, afterSeconds } = end;
  const after = then[0];
  return (
    <chakra.td maxW="220px">
      {outcome === 'routed' ? (lands?.label ?? 'released') : outcome}
      <Box color="quiet" fontSize="12px">
        {[
          outcome !== 'routed' && cause ? `cause ${cause.q850}` : '',
          afterSeconds > 0 ? `after ${afterSeconds} s` : '',
          end.trunk && shownNumber ? `shows ${shownNumber}` : '',
          after ? `${after.when} after ${after.afterSeconds} s: ${after.lands.label}` : '',
        ]
          .filter(Boolean)
          .join('; ')}
      </Box>
    </chakra.td>
  );
}

/** One call of a group, which opens as a trace. */
export function CallCell({ call, plans }: { call: Group['example']['call']; plans?: TracedPlans }) {
  return (
    <chakra.td fontFamily="mono" whiteSpace="nowrap">
      <Link href={pathOfCall(call, plans)}>
        {call.from.replace(/^outside:/, '')} › {call.dial}
      </Link>
      {call.situation ? (
        <Box fontFamily="body" color="quiet" fontSize="12px" whiteSpace="normal">
          {assumedIn(call.situation).join(', ')}
        </Box>
      ) : null}
    </chakra.td>
  );
}

/** A part of the time in words. */
export function sayShare(share: number): string {
  if (share >= 0.9995) return 'always';
  const percent = share * 100;
  return percent < 0.1 ? 'seldom' : `${percent.toFixed(percent < 10 ? 1 : 0)} % of the time`;
}
