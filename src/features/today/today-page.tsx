'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { Link } from '@/ui/link';
import type { Answer } from '@/contract';
import type { Work } from '@/core/analysis/order-of-work';
import { ActLink, PartTitle, Wrong } from '@/ui/controls';
import { Digits } from '@/ui/digits';
import { Glyph } from '@/ui/glyph';
import { PaneSection, Workspace } from '@/ui/workspace';
import { Time } from '@/ui/time';
import { useKeptThings } from '@/ui/kept';
import { Later } from '@/ui/later';
import { useKinds } from '@/ui/kinds';
import { BrokenRehearsals } from '@/workbench/broken-rehearsals';
import { AllNotices, useNotice } from '@/workbench/notices-here';
import { tracePath } from '@/workbench/paths';
import { TypedList } from '@/workbench/typed-list';
import { OrderOfWork } from './order-of-work';
import { Problems } from '@/workbench/problem-list';

export interface TodayData {
  me: string;
  account: string;
  canEdit: boolean;
  mayActNow: boolean;
  mayAsk: boolean;
  pending: { id: string; name: string; by: string; at: string; object: { kind: string; id: string } | null }[];
  live: { number: number; note: string; by: string; at: string } | null;
  edits: number;
  unsound: Promise<string[]>;
  work: Promise<Work[] | null>;
  problems: Promise<Answer<'problems'>>;
  emergency: Promise<
    {
      site: string;
      number: string;
      ok: boolean;
      trunk: string | null;
      shown: string | null;
      from: string | null;
    }[]
  >;
  forwarding: Promise<{ id: string; label: string; when: string; to: string; since: string }[]>;
  counts: { people: number; extensions: number; numbers: number; free: number };
  ask: { from: string; dial: string; at: string }[];
}

/** What somebody who comes in the morning wants to know: what waits, what is doubtful, whether emergency calls get out. */
export function TodayPage({ data }: { data: TodayData }) {
  const { pathOf } = useKinds();
  const notice = useNotice(null, data.account, data.mayActNow);
  return (
    <Workspace
      title="Today"
      lead={
        data.live ? (
          <>
            Revision {data.live.number} is live since <Time iso={data.live.at} />, by {data.live.by}
            {data.live.note ? `: ${data.live.note}` : ''}.
          </>
        ) : (
          'Nothing is live yet.'
        )
      }
      acts={
        <>
          {notice.act}
          {data.canEdit ? (
            <ActLink look="main" href="/extensions/new">
              Add extension
            </ActLink>
          ) : null}
        </>
      }
      pane={
        <>
          {data.ask.length > 0 ? (
            <PaneSection title="Ask for example">
              {data.ask.map((q) => (
                <Box key={`${q.from} ${q.dial}`} mb="5px">
                  <Link href={tracePath(q.from, q.dial, q.at)}>
                    <Digits whiteSpace="normal">
                      {q.from.replace('outside:', '')} &gt; {q.dial}
                      {q.at === 'now' ? '' : ` @ ${q.at}`}
                    </Digits>
                  </Link>
                </Box>
              ))}
            </PaneSection>
          ) : null}
          <PaneSection title="Here">
            <Count n={data.counts.people} what="people" href="/people" />
            <Count n={data.counts.extensions} what="extensions" href="/extensions" />
            <Count n={data.counts.numbers} what="numbers" href="/numbers" />
            <Count n={data.counts.free} what="of them free" href="/numbers" />
          </PaneSection>
          <PaneSection title="Forwarded now">
            <Later of={data.forwarding}>
              {(forwarding) =>
                forwarding.length === 0 ? (
                  <Box color="quiet">Nobody forwards calls.</Box>
                ) : (
                  forwarding.map((f) => (
                    <Box key={f.id + f.when}>
                      <Link href={`/extensions/${f.id}`}>{f.label}</Link> {f.when} to <Digits>{f.to}</Digits>
                    </Box>
                  ))
                )
              }
            </Later>
          </PaneSection>
        </>
      }
    >
      <Later of={data.unsound} waiting={null}>
        {(sentences) =>
          sentences.map((s) => (
            <Box key={s} mb="14px">
              <Wrong>{s}</Wrong>
            </Box>
          ))
        }
      </Later>
      <Later of={data.work} waiting={null}>
        {(steps) => (steps ? <OrderOfWork steps={steps} canEdit={data.canEdit} /> : null)}
      </Later>
      {notice.panel}
      <AllNotices none={null} />
      <Grid templateColumns={{ base: '1fr', xl: '1fr 1fr' }} gap="26px">
        <Box minW={0}>
          <TypedHere account={data.account} />
          <PartTitle
            aside={
              data.pending.length > 0 ? (
                <chakra.a href="/go-live" fontSize="13px">
                  Read all
                </chakra.a>
              ) : null
            }
          >
            Waiting in the draft
          </PartTitle>
          {data.pending.length === 0 ? <Box color="quiet">Draft and live are the same.</Box> : null}
          {data.pending.map((act) => (
            <Flex key={act.id} gap="8px" align="baseline" borderTop="1px solid" borderColor="line" py="6px">
              <Box w="8px" h="8px" bg="saffron" rounded="2px" flexShrink={0} />
              <Box minW={0} flex="1" overflowWrap="anywhere">
                <Link href={(act.object && pathOf(act.object.kind, act.object.id)) ?? `/go-live?act=${act.id}`}>
                  {act.name}
                </Link>
              </Box>
              <Box color="quiet" fontSize="13px">
                {act.by === data.me ? 'you' : act.by}
              </Box>
            </Flex>
          ))}
          {data.edits > data.pending.length ? (
            <Box color="quiet">and {data.edits - data.pending.length} more</Box>
          ) : null}
        </Box>
        <Box minW={0}>
          <PartTitle>Emergency calls, live</PartTitle>
          <Later of={data.emergency}>
            {(sites) =>
              sites.length === 0 ? (
                <Box color="quiet">No site is live yet, so nobody can call for help through here.</Box>
              ) : (
                sites.map((e) => <Emergency key={e.site} of={e} />)
              )
            }
          </Later>
        </Box>
        <Box gridColumn="1 / -1" minW={0} id="problems">
          <PartTitle>To look at in the draft</PartTitle>
          {data.mayAsk ? <BrokenRehearsals /> : null}
          <Later of={data.problems}>
            {(found) => <Problems key={found.draftVersion} found={found} mayEdit={data.canEdit} />}
          </Later>
        </Box>
      </Grid>
    </Workspace>
  );
}

/** What the reader typed and is in no draft; nothing where there is none. */
function TypedHere({ account }: { account: string }) {
  const things = useKeptThings(account);
  if (things.length === 0) return null;
  return (
    <Box mb="18px">
      <PartTitle>Typed here, not in the draft</PartTitle>
      <TypedList account={account} />
    </Box>
  );
}

function Emergency({ of: e }: { of: Awaited<TodayData['emergency']>[number] }) {
  return (
    <Flex gap="10px" align="center" borderTop="1px solid" borderColor="line" py="6px">
      <Glyph kind={e.ok ? 'outside' : 'refused'} />
      <Box w="120px">{e.site}</Box>
      <Box flex="1" minW={0} color={e.ok ? 'ink' : 'brick'}>
        {e.ok ? (
          <>
            {e.number} leaves by <b>{e.trunk}</b>
            <Box color="quiet" fontSize="13px">
              shows <Digits>{e.shown ?? 'no number'}</Digits>
            </Box>
          </>
        ) : (
          `${e.number} does not get out`
        )}
      </Box>
      {e.from ? (
        <chakra.a fontSize="13px" href={tracePath(e.from, e.number)} aria-label={`Trace ${e.number} from ${e.site}`}>
          Trace
        </chakra.a>
      ) : null}
    </Flex>
  );
}

function Count({ n, what, href }: { n: number; what: string; href: string }) {
  return (
    <Flex gap="8px">
      <Box w="40px" textAlign="right" fontWeight={700}>
        {n}
      </Box>
      <chakra.a href={href} color="ink">
        {what}
      </chakra.a>
    </Flex>
  );
}
