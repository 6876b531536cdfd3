'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import type { Answer } from '@/contract';
import type { MissedCaller } from '@/contract/records';
import { ActLink, Empty, SelectBox, TickBox } from '@/ui/controls';
import { Ledger } from '@/ui/ledger';
import { useRefresh } from '@/ui/refresh';
import { Time } from '@/ui/time';
import { Workspace } from '@/ui/workspace';
import type { AboutCalls } from './about';
import { BlockAct } from './block-act';
import { Party } from './party';
import { Tabs } from './tabs';
import { callsPath } from './use-filter';

interface Props {
  about: AboutCalls;
  asked: { days: number; all: boolean };
  missed: Answer<'missedCalls'>;
}

const DAYS = [1, 3, 7, 14, 30, 60];

/** Callers whom nobody took, as a list of work: who, how often, and whether somebody has called back since. */
export function MissedPage({ about, asked, missed }: Props) {
  const router = useRouter();
  const refresh = useRefresh();
  const put = (change: Partial<Props['asked']>) => {
    const next = { ...asked, ...change };
    router.replace(`/calls/missed?${new URLSearchParams({ days: String(next.days), all: String(next.all) })}`);
  };
  const { callers } = missed;
  return (
    <Workspace
      title="To call back"
      count={String(callers.length)}
      lead="Callers from outside whom nobody took, each once. Whoever was called back and talked with leaves the list."
    >
      <Tabs about={about} />
      <Flex gap="14px" align="center" mb="12px" wrap="wrap">
        <chakra.label htmlFor="missed-days">Of the last</chakra.label>
        <SelectBox
          id="missed-days"
          w="110px"
          value={String(asked.days)}
          onChange={(e) => put({ days: Number(e.target.value) })}
        >
          {[...new Set([...DAYS, asked.days])]
            .sort((a, b) => a - b)
            .map((d) => (
              <option key={d} value={d}>
                {d === 1 ? 'day' : `${d} days`}
              </option>
            ))}
        </SelectBox>
        <Flex as="label" gap="8px" align="center">
          <TickBox type="checkbox" checked={asked.all} onChange={(e) => put({ all: e.target.checked })} />
          also those who were reached since
        </Flex>
      </Flex>
      <Ledger
        name="callers to call back"
        rows={callers}
        idOf={(c) => c.key}
        hrefOf={(c) => `/calls/${encodeURIComponent(c.key)}`}
        empty={<Empty>Nobody waits for a call back.</Empty>}
        columns={[
          {
            key: 'caller',
            title: 'Who',
            width: 'minmax(190px, 1fr)',
            text: (c) => c.caller,
            cell: (c) => <Party party={{ kind: 'caller', id: null, label: c.caller }} />,
          },
          { key: 'times', title: 'Times', width: '56px', text: (c) => String(c.times) },
          {
            key: 'last',
            title: 'Last',
            width: '150px',
            text: (c) => c.last,
            cell: (c) => <Time iso={c.last} zone={about.zone} />,
          },
          {
            key: 'at',
            title: 'Ended at',
            width: 'minmax(180px, 1.2fr)',
            text: (c) => c.at.map((a) => a.label).join('; '),
            cell: (c) => (
              <Flex gap="8px" overflow="hidden">
                {c.at.slice(0, 1).map((a) => (
                  <Party key={a.id ?? a.label} party={a} />
                ))}
                {c.at.length > 1 ? (
                  <chakra.span color="quiet" flexShrink={0}>
                    and {c.at.length - 1} more
                  </chakra.span>
                ) : null}
              </Flex>
            ),
          },
          {
            key: 'since',
            title: 'Since then',
            width: 'minmax(170px, 1.2fr)',
            text: (c) => sinceText(c),
            cell: (c) => <Since caller={c} zone={about.zone} />,
          },
          {
            key: 'acts',
            title: 'Acts',
            width: '190px',
            text: () => '',
            cell: (c) => <Acts caller={c} about={about} onDone={refresh} />,
          },
        ]}
      />
      {missed.more ? (
        <Box mt="10px" color="quiet">
          Only the last {callers.length} are listed; choose fewer days to see all of a shorter time.
        </Box>
      ) : null}
    </Workspace>
  );
}

const sinceText = ({ since }: MissedCaller): string =>
  since ? `${since.what}${since.by ? `, ${since.by.label}` : ''}` : 'nothing yet';

function Since({ caller, zone }: { caller: MissedCaller; zone: string }) {
  const { since } = caller;
  if (!since) return <chakra.span color="quiet">nothing yet</chakra.span>;
  return (
    <chakra.span title={sinceText(caller)}>
      {sinceText(caller)} <Time iso={since.at} zone={zone} />
    </chakra.span>
  );
}

function Acts({ caller, about, onDone }: { caller: MissedCaller; about: AboutCalls; onDone: () => void }) {
  const { number } = caller;
  if (number === null) return null;
  return (
    <Flex gap="6px">
      <ActLink h="26px" href={callsPath({ number })} aria-label={`All calls with ${caller.caller}`}>
        Calls
      </ActLink>
      {/^\+[0-9]+$/.test(number) ? (
        <ActLink h="26px" href={`tel:${number}`} aria-label={`Call ${caller.caller}`}>
          Call
        </ActLink>
      ) : null}
      {about.mayBlock && /^\+[0-9]+$/.test(number) ? (
        <BlockAct
          number={number}
          shown={caller.caller}
          blocked={caller.blocked}
          reason={`Called ${caller.times} times in vain`}
          onDone={onDone}
        />
      ) : null}
    </Flex>
  );
}
