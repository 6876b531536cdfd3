'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import type { Answer, Input } from '@/contract';
import { Act, ActLink, Empty, Wrong } from '@/ui/controls';
import { Link } from '@/ui/link';
import { Workspace } from '@/ui/workspace';
import { call } from '@/workbench/api';
import { CallCell, GroupTable, sayShare } from '@/workbench/call-groups';
import { LongWait } from '@/workbench/long-wait';
import { useLong } from '@/workbench/use-long';
import { useGrown } from '@/workbench/use-grown';
import { isAt, type HourOfWeek } from './hour-of-week';
import { HourChoice, WeekBar } from './week-times';

type Found = Answer<'reach'>;
type Group = Found['groups'][number];
type End = Group['ends'][number];
type Query = NonNullable<Input<'reach'>['query']>;

/** Columns of the matrix: kinds of ends, in the order in which callers hope for them. */
const COLUMNS: readonly End['end'][] = [
  'a phone',
  'a queue or group',
  'an attendant',
  'a mailbox',
  'an announcement',
  'a fax',
  'the outside',
  'a service',
  'a release',
];

/** What has to happen on the way, in words. */
const NEEDS: Readonly<Record<string, string>> = {
  blocked: 'the caller is blocked',
  keys: 'the caller presses keys',
  busy: 'somebody is busy',
  off: 'a phone is off',
  away: 'nobody answers',
  doNotDisturb: 'somebody is not to be disturbed',
  presence: 'somebody is in a state',
  'trunk down': 'a trunk is down',
};

/** Where calls to our numbers can end up, or who can end up at one place. */
export function ReachPage({ to, of }: { to: string; of: string }) {
  const query = { of, to } as Query;
  const first = useLong('reach', { query });
  const { value, wrong } = first;
  return (
    <Workspace
      title={to === '' ? 'Reach' : `Who can end up at ${value?.to ?? 'this place'}`}
      lead={
        to === ''
          ? 'Where calls to each number can end up, and those to other digits that trunks bring: at any time of the next 53 weeks, whatever the caller does and whoever is busy or away.'
          : 'Every number and phone whose calls can come there, and what has to happen on the way.'
      }
      acts={to === '' ? undefined : <ActLink href="/reach">Where all numbers lead</ActLink>}
    >
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      <LongWait asked={first} doing="Every call is being followed." />
      <Box aria-busy={first.waiting} minH="200px">
        {value?.phones ? <Phones found={value.phones} /> : null}
        {value && value.groups.length === 0 ? (
          <Empty>{to === '' ? 'No number is active yet.' : 'No call from outside can come there.'}</Empty>
        ) : null}
        {value && value.groups.length > 0 ? (
          to === '' ? (
            <Matrix first={value} query={query} />
          ) : (
            <Ledger groups={value.groups} weekFrom={value.weekFrom} />
          )
        ) : null}
      </Box>
    </Workspace>
  );
}

function Phones({ found: { count, of, example } }: { found: NonNullable<Found['phones']> }) {
  return (
    <Box mb="12px" data-testid="phones-reach">
      {count === 0 ? 'No phone dials it.' : `${count} of ${of} phones can dial it`}
      {example ? `, such as ${example.from} with ${example.dial}.` : ''}
    </Box>
  );
}

const numbersOf = ({ numbers, count, brought }: Group): string =>
  brought
    ? `${brought.dial} by ${brought.trunk}`
    : numbers.length < count
      ? `${numbers.slice(0, 2).join(', ')} and ${count - 2} alike`
      : numbers.join(', ');

/** Numbers by kinds of ends; a row unfolds to the places themselves. */
function Matrix({ first, query }: { first: Found; query: Query }) {
  const grown = useGrown(
    `reach ${query.of ?? ''}`,
    useMemo(() => first, [first]),
    (page) => (page.next === null ? null : String(page.next)),
    async (from) => call('reach', { query: { ...query, from: Number(from) } }),
  );
  const [chosen, setChosen] = useState<HourOfWeek>({ day: null, hour: null });
  const [flat, setFlat] = useState(false);
  const { weekFrom } = first;
  const groups = grown.pages
    .flatMap((p) => p.groups)
    .map((g) => ({ ...g, ends: g.ends.filter((e) => isAt(e.week, chosen, g.zone, weekFrom)) }));
  const [open, setOpen] = useState<string | null>(null);
  const ledger = flat ? groups.flatMap((g) => g.ends.map((end) => ({ ...g, ends: [end] }))) : [];
  return (
    <>
      <Flex gap="12px" mb="10px" wrap="wrap" align="center">
        <HourChoice chosen={chosen} onChoose={setChosen} />
        <Flex role="group" aria-label="How it is shown" gap="4px">
          <Act aria-pressed={!flat} onClick={() => setFlat(false)}>
            matrix
          </Act>
          <Act aria-pressed={flat} onClick={() => setFlat(true)}>
            ledger
          </Act>
        </Flex>
      </Flex>
      {flat ? <Ledger groups={ledger} weekFrom={weekFrom} toEach /> : null}
      <Box
        display={flat ? 'none' : 'block'}
        overflowX="auto"
        tabIndex={0}
        role="region"
        aria-label="Numbers and where they lead"
      >
        <chakra.table
          w="100%"
          minW="860px"
          fontSize="13px"
          data-testid="reach"
          css={{ '& td, & th': { padding: '6px 10px 6px 0', textAlign: 'left', verticalAlign: 'top' } }}
        >
          <thead>
            <chakra.tr color="quiet">
              {['Numbers', ...COLUMNS].map((t) => (
                <th key={t} scope="col">
                  {t}
                </th>
              ))}
            </chakra.tr>
          </thead>
          <tbody>
            {groups.map((g) => (
              <Row
                key={numbersOf(g)}
                group={g}
                weekFrom={weekFrom}
                open={open === numbersOf(g)}
                onOpen={() => setOpen(open === numbersOf(g) ? null : numbersOf(g))}
              />
            ))}
          </tbody>
        </chakra.table>
      </Box>
      {grown.wrong ? <Wrong>{grown.wrong}</Wrong> : null}
      <Flex mt="10px" gap="12px" align="center" color="quiet">
        {groups.length} of {first.count} groups that nothing tells apart
        {grown.more ? (
          <Act disabled={grown.busy} onClick={grown.more}>
            {grown.busy ? 'Following calls …' : 'Show more'}
          </Act>
        ) : null}
      </Flex>
    </>
  );
}

function Row({ group, weekFrom, open, onOpen }: { group: Group; weekFrom: number; open: boolean; onOpen: () => void }) {
  return (
    <>
      <chakra.tr borderTop="1px solid" borderColor="line">
        <chakra.td fontFamily="mono">
          <chakra.button
            type="button"
            textAlign="left"
            textDecoration="underline"
            aria-expanded={open}
            aria-label={`Where ${numbersOf(group)} can end up`}
            onClick={onOpen}
          >
            {numbersOf(group)}
          </chakra.button>
        </chakra.td>
        {COLUMNS.map((column) => {
          const here = group.ends.filter((e) => e.end === column);
          const sure = here.filter((e) => e.needs.length === 0);
          return (
            <chakra.td key={column} color={sure.length > 0 ? undefined : 'quiet'} whiteSpace="nowrap">
              {here.length === 0 ? '' : sure.length > 0 ? sayShare(Math.max(...sure.map((e) => e.share))) : 'may be'}
              {here.length > 1 ? <chakra.span color="quiet">{` (${here.length})`}</chakra.span> : null}
            </chakra.td>
          );
        })}
      </chakra.tr>
      {open ? (
        <tr>
          <chakra.td colSpan={COLUMNS.length + 1} pl="18px">
            <Ends group={group} weekFrom={weekFrom} />
          </chakra.td>
        </tr>
      ) : null}
    </>
  );
}

const needsOf = (end: End): string =>
  end.needs.length === 0 ? 'nothing' : end.needs.map((n) => NEEDS[n] ?? n).join(', ');

function Ends({ group: { ends, zone }, weekFrom }: { group: Group; weekFrom: number }) {
  return (
    <GroupTable titles={['Where', 'When', 'In the coming week', 'What has to happen', 'Such as']}>
      {ends.map((e) => (
        <chakra.tr key={`${e.end} ${e.object?.id ?? e.label}`} borderTop="1px solid" borderColor="line">
          <Where end={e} />
          <td>{sayShare(e.share)}</td>
          <td>
            <WeekBar spans={e.week} zone={zone} weekFrom={weekFrom} />
          </td>
          <td>{needsOf(e)}</td>
          <CallCell call={e.example} />
        </chakra.tr>
      ))}
    </GroupTable>
  );
}

const Where = ({ end: e }: { end: End }) => (
  <td>
    {e.object ? (
      <Link href={`/reach?to=${encodeURIComponent(e.object.id)}`} style={{ textDecoration: 'underline' }}>
        {e.label}
      </Link>
    ) : (
      e.label
    )}
    <Box color="quiet" fontSize="12px">
      {e.end}
    </Box>
  </td>
);

/** Numbers with one end each, in a row: of what is asked about, or each of all (`toEach`). */
function Ledger({ groups, weekFrom, toEach }: { groups: readonly Group[]; weekFrom: number; toEach?: boolean }) {
  const rest = ['When', 'In the coming week', 'What has to happen', 'Such as'];
  return (
    <GroupTable titles={['Numbers', ...(toEach ? ['Where'] : []), ...rest]}>
      {groups.map((g, i) => {
        const end = g.ends[0]!;
        return (
          <chakra.tr key={i} borderTop="1px solid" borderColor="line">
            <chakra.td fontFamily="mono">{numbersOf(g)}</chakra.td>
            {toEach ? <Where end={end} /> : null}
            <td>{sayShare(end.share)}</td>
            <td>
              <WeekBar spans={end.week} zone={g.zone} weekFrom={weekFrom} />
            </td>
            <td>{needsOf(end)}</td>
            <CallCell call={end.example} />
          </chakra.tr>
        );
      })}
    </GroupTable>
  );
}
