'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Link } from '@/ui/link';
import { useState } from 'react';
import { proposedPosition, type PlacedRule } from '@/core/analysis/placement';
import { countryName } from '@/core/plan/facts/value-words';
import { Act, ActLink, Empty, Wrong } from '@/ui/controls';
import { Digits, MapChip } from '@/ui/digits';
import { Glyph } from '@/ui/glyph';
import { OrderedList } from '@/ui/ordered-list';
import { Workspace } from '@/ui/workspace';
import { AddPanel } from '@/workbench/add-panel';
import type { LedgerPageData } from '@/workbench/ledger-page';
import { useOrder } from '@/workbench/edits';

export interface InboundData extends LedgerPageData {
  routes: {
    id: string;
    rowVersion: number;
    value: {
      name: string;
      position: number;
      calledMap: string | null;
      callingMap: string | null;
      callingCountries: string[];
      callingNumbers: string[];
      callingWithheld: boolean;
      enabled: boolean;
    };
    /** how many time rules it has */
    rules: number;
    mark: 'new' | 'changed' | null;
    numbers: string[];
    trunk: string | null;
    /** its map fits none of our numbers */
    neverFits: boolean;
    leads: { kind: string; label: string };
    then: string;
  }[];
  direct: number;
  ends: { trunk: string; otherwise: string | null }[];
}

type Route = InboundData['routes'][number];

/** Every number and all private digits. */
const EVERY_CALL = '+x{1,15}|x{1,15}';
const MOST_CHIPS = 4;
/** Routes drawn at first, and with each further press. */
const SHOWN_AT_ONCE = 30;

/** A route's place and what it takes. Routes for some callers or one trunk leave the rest to those below. */
function placed(r: Route): PlacedRule {
  const { callingMap, callingCountries, callingNumbers, callingWithheld } = r.value;
  const forSome = callingMap !== null || callingCountries.length > 0 || callingNumbers.length > 0 || callingWithheld;
  const forAll = r.trunk === null && !forSome;
  return {
    position: r.value.position,
    maps: forAll ? [...r.numbers, ...(r.value.calledMap ? [r.value.calledMap] : [])] : [],
  };
}

/** Which callers it is for, where not for everyone. */
function Callers({ of: { callingCountries, callingNumbers, callingMap, callingWithheld } }: { of: Route['value'] }) {
  const some = callingCountries.slice(0, MOST_CHIPS).map(countryName);
  const more = callingCountries.length - some.length;
  const words = [
    ...(some.length > 0 ? [some.join(', ') + (more > 0 ? ` and ${more} more` : '')] : []),
    ...(callingNumbers.length > 0
      ? [callingNumbers.length === 1 ? callingNumbers[0]! : `${callingNumbers.length} numbers`]
      : []),
    ...(callingWithheld ? ['withheld'] : []),
  ];
  if (words.length === 0 && !callingMap) return null;
  return (
    <>
      from {words.join(' or ')} {words.length > 0 && callingMap ? 'or' : ''}{' '}
      {callingMap ? <MapChip map={callingMap} /> : null}
    </>
  );
}

/** The list of inbound routes: read top to bottom; direct numbers stand at its foot, then each trunk's otherwise. */
export function InboundPage({ data }: { data: InboundData }) {
  const { order, move, wrong } = useOrder(
    'inboundRoute',
    data.routes.map((r) => r.id),
  );
  const byId = new Map(data.routes.map((r) => [r.id, r]));
  const routes = order.flatMap((id) => byId.get(id) ?? []);
  const [adding, setAdding] = useState<'route' | 'trunk' | null>(null);
  const [most, setMost] = useState(SHOWN_AT_ONCE);
  const act =
    data.canEdit && adding === null ? (
      <Flex gap="8px" wrap="wrap">
        {data.mayBulk ? <ActLink href="/import/inboundRoute">Import or export</ActLink> : null}
        <Act onClick={() => setAdding('trunk')}>All of a trunk…</Act>
        <Act look="main" onClick={() => setAdding('route')}>
          Add inbound route
        </Act>
      </Flex>
    ) : null;
  const facts = data.add.facts.filter((f) => adding !== 'trunk' || f.field !== 'calledMap');
  return (
    <Workspace
      title="Inbound"
      count={String(data.routes.length)}
      lead="Calls from outside, read top to bottom; the first that fits decides."
      acts={act}
    >
      {adding !== null ? (
        <AddPanel
          kind="inboundRoute"
          account={data.account}
          key={adding}
          {...data.add}
          facts={adding === 'trunk' ? facts.map((f) => (f.field === 'trunk' ? { ...f, nullable: false } : f)) : facts}
          finish={(given) => {
            // All of a trunk: whatever digits it delivers.
            const v = adding === 'trunk' ? { ...given, calledMap: EVERY_CALL } : given;
            return {
              ...v,
              position: proposedPosition(
                data.routes.map(placed),
                'calledMap' in v && v.calledMap ? [String(v.calledMap)] : [],
              ),
            };
          }}
          onClose={() => setAdding(null)}
        />
      ) : null}
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      <Flex direction="column" gap="6px">
        {data.routes.length === 0 ? (
          <Empty act={act}>
            A route takes called numbers and leads them somewhere. Numbers that belong to an extension need none.
          </Empty>
        ) : null}
        <OrderedList
          label="Inbound routes"
          items={routes.slice(0, most).map((r) => ({ id: r.id, name: r.value.name, r }))}
          disabled={!data.canEdit}
          onMove={(id, after) => void move(id, after)}
        >
          {({ r }, i, { handle, arrows }) => (
            <Flex
              data-testid="route"
              align="center"
              wrap={{ base: 'wrap', md: 'nowrap' }}
              columnGap="12px"
              rowGap="4px"
              border="1px solid"
              borderColor={r.mark ? 'saffron' : 'line'}
              borderLeftWidth={r.mark ? '4px' : '1px'}
              bg={r.mark ? 'saffronTint' : undefined}
              rounded="4px"
              px="12px"
              py="7px"
            >
              {handle}
              <Box w="22px" fontSize="16px" color="quiet">
                {i + 1}
              </Box>
              <Box flex={{ base: '1 1 120px', md: '1.4' }} minW={0}>
                <Link href={`/inbound/${r.id}`}>
                  <chakra.b color="ink">{r.value.name}</chakra.b>
                </Link>
                <Flex gap="4px" mt="3px" wrap="wrap" align="center" fontSize="13px" color="quiet">
                  {r.numbers.slice(0, MOST_CHIPS).map((n) => (
                    <MapChip key={n} map={n} />
                  ))}
                  {r.numbers.length > MOST_CHIPS ? `and ${r.numbers.length - MOST_CHIPS} more` : null}
                  {r.value.calledMap ? <MapChip map={r.value.calledMap} /> : null}
                  {r.trunk ? `only by ${r.trunk}` : null}
                  <Callers of={r.value} />
                  {r.rules > 0 ? `${r.rules} time ${r.rules === 1 ? 'rule' : 'rules'}` : null}
                  {r.value.enabled ? null : <chakra.b color="saffronText">not in use</chakra.b>}
                  {r.neverFits ? (
                    <chakra.span color="brick">none of our numbers fits: never reached</chakra.span>
                  ) : null}
                </Flex>
              </Box>
              <Flex
                order={{ base: 1, md: 0 }}
                flex={{ base: '1 1 100%', md: '1' }}
                minW={0}
                pl={{ base: '50px', md: 0 }}
                gap="8px"
                align="center"
              >
                <Glyph kind={r.leads.kind} />
                <Box minW={0}>
                  {r.leads.label}
                  {r.then ? (
                    <Box color="quiet" fontSize="12px">
                      then {r.then}
                    </Box>
                  ) : null}
                </Box>
              </Flex>
              {data.canEdit ? arrows : null}
            </Flex>
          )}
        </OrderedList>
        {data.routes.length > most ? (
          <Box>
            <Act onClick={() => setMost(most + SHOWN_AT_ONCE)}>
              Show the next {Math.min(SHOWN_AT_ONCE, data.routes.length - most)} of {data.routes.length}
            </Act>
          </Box>
        ) : null}
        <Flex border="1px solid" borderColor="line" rounded="4px" px="12px" py="8px" gap="8px" align="center">
          <Glyph kind="number" />
          <b>Direct numbers</b>
          <chakra.span color="quiet">
            {data.direct} numbers that no route takes go to what they belong to.{' '}
            <Link href="/numbers" style={{ textDecoration: 'underline' }}>
              Numbers
            </Link>
          </chakra.span>
        </Flex>
        <Flex border="1px dashed" borderColor="fieldLine" rounded="4px" px="12px" py="8px" gap="8px" align="flex-start">
          <Box pt="2px">
            <Glyph kind="refused" />
          </Box>
          <Box>
            <b>Otherwise</b>
            {data.ends.map((e) => (
              <Box key={e.trunk} color="quiet" fontSize="13px">
                by {e.trunk}:{' '}
                {e.otherwise ?? (
                  <>
                    released as unallocated, <Digits>Q.850 1</Digits>
                  </>
                )}
              </Box>
            ))}
          </Box>
        </Flex>
      </Flex>
    </Workspace>
  );
}
