'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import type { Input } from '@/contract';
import type { ReplayAnswer } from '@/contract/records';
import { Act, Labelled, PartTitle, SelectBox, Wrong } from '@/ui/controls';
import { endOf } from '@/ui/ends';
import { Glyph } from '@/ui/glyph';
import { Link } from '@/ui/link';
import { useWriting } from '@/ui/time';
import { PaneSection, Workspace } from '@/ui/workspace';
import { JobBar } from '@/workbench/job-bar';
import { ReplaySummary } from '@/workbench/replay/summary';
import { useReplay } from '@/workbench/replay/use-replay';
import type { AboutCalls } from './about';
import { DayBars } from './day-bars';
import { Filters } from './filters';
import { Tabs } from './tabs';
import { callsPath, said, useFilter, type Filter } from './use-filter';

type Against = 'live' | 'record';

/** Real calls run through the draft: which would end elsewhere than in what is live, or than they did. */
export function ReplayPage({ about, filter: initial }: { about: AboutCalls; filter: Filter }) {
  const { filter, asked, put } = useFilter(initial);
  const [against, setAgainst] = useState<Against>('live');
  const { work, running, found, wrong, start: run } = useReplay();
  const start = (how: Against) => run({ ...said(asked), against: how } as Input<'replayCalls'>['body']);
  // The calls of the last weeks are run at once: whoever comes here wants to know.
  const begun = useRef(false);
  const begin = useEffectEvent(() => {
    if (begun.current) return;
    begun.current = true;
    void start(against);
  });
  useEffect(() => begin(), []);
  return (
    <Workspace
      title="Calls under this draft"
      lead={
        found ? (
          <ReplaySummary found={found} />
        ) : (
          'Each call in the situation of its moment: who answered, which keys, notices and switches.'
        )
      }
      acts={
        <Act look="main" disabled={running} onClick={() => void start(against)}>
          Run again
        </Act>
      }
      pane={<Pane />}
    >
      <Tabs about={about} />
      <Filters filter={filter} put={put} choices={about} />
      <Box w="280px" mb="14px">
        <Labelled title="Held against" htmlFor="replay-against">
          <SelectBox
            id="replay-against"
            value={against}
            onChange={(e) => {
              const how = e.target.value as Against;
              setAgainst(how);
              void start(how);
            }}
          >
            <option value="live">what is live now</option>
            <option value="record">how each call really went</option>
          </SelectBox>
        </Labelled>
      </Box>
      {running ? <JobBar job={work} what="Replaying" /> : null}
      {wrong ? (
        <Box mb="14px">
          <Wrong>{wrong}</Wrong>
        </Box>
      ) : null}
      {found ? <Found found={found} filter={asked} /> : null}
    </Workspace>
  );
}

function Pane() {
  return (
    <>
      <PaneSection title="What is known of a call">
        Who answered, after how long, whose phones rang in vain, which keys were pressed, and the notices, switches and
        forwarding of its moment. Of all others it is taken that they are free.
      </PaneSection>
      <PaneSection title="A log of another system">
        <Link href="/calls/import" style={{ textDecoration: 'underline' }}>
          Bring it in
        </Link>
        : held against how each call really went, it shows what the plan would miss.
      </PaneSection>
    </>
  );
}

function Found({ found: f, filter }: { found: ReplayAnswer; filter: Filter }) {
  const was = f.against === 'live' ? 'Ends live' : 'Ended';
  return (
    <>
      {f.days.length > 1 ? (
        <DayBars days={f.days} hrefOf={(day) => callsPath({ ...filter, from: day, to: day })} />
      ) : null}
      {f.changed === 0 && f.calls > 0 ? (
        <Box mb="16px">
          Every call that the draft can explain ends where it {f.against === 'live' ? 'ends now' : 'ended'}.
        </Box>
      ) : null}
      {f.calls === 0 ? <Box color="quiet">No calls fit what is chosen.</Box> : null}
      {f.groups.length > 0 ? (
        <Box mb="20px" data-testid="replay-groups">
          <Grid templateColumns={COLUMNS} gap="10px" fontSize="12px" color="quiet" pb="6px">
            <span>Calls</span>
            <span>{was}</span>
            <span />
            <span>Would end</span>
            <chakra.span display={{ base: 'none', md: 'inline' }}>Such as, and the edit behind it</chakra.span>
          </Grid>
          {f.groups.map((g) => (
            <Group key={g.key} group={g} />
          ))}
          {f.moreGroups > 0 ? <Box color="quiet">and {f.moreGroups} more groups, each smaller</Box> : null}
        </Box>
      ) : null}
      {f.unexplained.length > 0 ? (
        <Box data-testid="replay-unexplained">
          <PartTitle>Calls that the draft can’t explain</PartTitle>
          {f.unexplained.map((u) => (
            <Flex key={u.why} gap="10px" minH="28px" align="center" borderTop="1px solid" borderColor="line">
              <chakra.b w="56px" textAlign="right">
                {u.count.toLocaleString('en')}
              </chakra.b>
              <Box flex="1">{u.why}</Box>
              <Link href={`/calls/${encodeURIComponent(u.key)}`}>One of them</Link>
            </Flex>
          ))}
          {f.moreUnexplained > 0 ? <Box color="quiet">and {f.moreUnexplained} more</Box> : null}
        </Box>
      ) : null}
    </>
  );
}

/** Where there is little room, the example stands beneath. */
const COLUMNS = {
  base: '44px minmax(0, 1fr) 14px minmax(0, 1fr)',
  md: '52px minmax(120px, 1fr) 14px minmax(120px, 1fr) minmax(180px, 1.3fr)',
};

type One = ReplayAnswer['groups'][number];

function Group({ group: g }: { group: One }) {
  const write = useWriting();
  const shown = g.was.shownNumber !== g.willBe.shownNumber && g.was.lands?.kind === 'outside';
  return (
    <Grid
      templateColumns={COLUMNS}
      gap="10px"
      borderTop="1px solid"
      borderColor="line"
      py="7px"
      data-testid="replay-group"
    >
      <b>{g.count.toLocaleString('en')}</b>
      <EndIn end={g.was} shown={shown} />
      <chakra.span color="quiet" aria-hidden>
        →
      </chakra.span>
      <EndIn end={g.willBe} shown={shown} strong />
      <Box minW={0} fontSize="13px" gridColumn={{ base: '2 / -1', md: 'auto' }}>
        <Link href={`/calls/${encodeURIComponent(g.key)}`}>
          {g.from} to {g.dial}, {write(g.at, { weekday: true })}
        </Link>
        {g.acts.map((a) => (
          <Box key={a} color="quiet">
            {a}
          </Box>
        ))}
      </Box>
    </Grid>
  );
}

function EndIn({ end, shown, strong = false }: { end: One['was']; shown: boolean; strong?: boolean }) {
  const nobody = end.outcome !== 'routed' || end.lands === null;
  // Whoever was called outside differs from call to call; by which trunk is what they have in common.
  const outside = end.lands?.kind === 'outside';
  return (
    <Flex gap="6px" align="flex-start" minW={0} color={strong && nobody ? 'brick' : undefined}>
      <Box pt="2px">
        <Glyph kind={endOf(end)} />
      </Box>
      <Box minW={0} overflowWrap="anywhere">
        {nobody
          ? (end.lands?.label ?? end.outcome)
          : outside
            ? `outside${through(end.lands!.label)}`
            : end.lands!.label}
        {shown ? (
          <Box color="quiet" fontSize="13px">
            shown {end.shownNumber ?? 'no number'}
          </Box>
        ) : null}
      </Box>
    </Flex>
  );
}

const through = (label: string) => / through .*$/.exec(label)?.[0] ?? '';
