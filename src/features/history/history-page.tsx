'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { X } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Input } from '@/contract';
import type { HistoryAct, HistoryEntry as Entry } from '@/contract/work';
import { addressOf, call } from '@/workbench/api';
import { askOfColleague } from '@/workbench/colleague';
import { Act, ActLink, Labelled, SelectBox, TextBox, Wrong } from '@/ui/controls';
import { useConfirm } from '@/ui/confirm';
import { Time } from '@/ui/time';
import { DayBox } from '@/ui/day-box';
import { Workspace } from '@/ui/workspace';
import type { Option } from '@/workbench/form-data';
import { JobBar } from '@/workbench/job-bar';
import { useAsked } from '@/workbench/use-asked';
import { useGrown } from '@/workbench/use-grown';
import { useJob, whyNot } from '@/workbench/use-job';
import { useRefresh } from '@/ui/refresh';

interface Asked {
  object: string;
  kind: string;
  who: string;
  from: string;
  to: string;
  batch: string;
}

/** Who did what, when and from where: of everything, or of one object; what still applies is undone from here. */
export function HistoryPage({
  asked,
  first,
  kinds,
  mayUndo,
}: {
  asked: Asked;
  first: { acts: HistoryAct[]; next: string | null };
  kinds: Option[];
  mayUndo: boolean;
}) {
  const router = useRouter();
  const refresh = useRefresh();
  const [question, confirm] = useConfirm<'undo'>();
  const [wrong, setWrong] = useState<string | null>(null);
  const [job, setJob] = useState<string | null>(null);
  const work = useJob<object>(job, (ended) => {
    setWrong(whyNot(ended));
    refresh();
  });
  const older = useGrown(
    'history',
    first,
    (page) => page.next,
    (before) => call('acts', { query: { ...asked, before } as Input<'acts'>['query'] }),
  );
  const acts = older.pages.flatMap((p) => p.acts);
  const query = (change: Partial<Asked>) => {
    const params = new URLSearchParams();
    for (const [k, v] of Object.entries({ ...asked, ...change })) if (v) params.set(k, v);
    return params;
  };
  const put = (change: Partial<Asked>) => router.replace(`/history?${query(change)}`);
  const undo = async (act: HistoryAct) => {
    if (!act.mine && (await confirm(askOfColleague(act))) !== 'undo') return;
    const batch = act.id!;
    const done = await call('undoBatch', { params: { batch } });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    if (done.ok && 'job' in done.value) setJob(done.value.job);
    refresh();
  };
  return (
    <Workspace
      title="History"
      lead="Who did what, when and from where. Secrets are never shown. What still stands as it was left can be undone."
      acts={
        <ActLink href={addressOf('history', { query: { ...asked, format: 'csv' } as Input<'history'>['query'] })}>
          Export CSV
        </ActLink>
      }
    >
      <Flex gap="10px" wrap="wrap" mb="14px" align="flex-end">
        <Box w="150px">
          <Labelled title="What" htmlFor="history-kind">
            <SelectBox id="history-kind" value={asked.kind} onChange={(e) => put({ kind: e.target.value })}>
              <option value="">everything</option>
              {kinds.map((k) => (
                <option key={k.id} value={k.id}>
                  {k.label}
                </option>
              ))}
            </SelectBox>
          </Labelled>
        </Box>
        <Typed id="who" title="Who" value={asked.who} onSettle={(who) => put({ who })} />
        <Typed id="from" title="From" type="date" value={asked.from} onSettle={(from) => put({ from })} />
        <Typed id="to" title="To" type="date" value={asked.to} onSettle={(to) => put({ to })} />
        {asked.object ? (
          <Act onClick={() => put({ object: '' })}>
            Of one object only <X size={14} aria-hidden />
          </Act>
        ) : null}
        {asked.batch ? (
          <Act onClick={() => put({ batch: '' })}>
            Of one act only <X size={14} aria-hidden />
          </Act>
        ) : null}
      </Flex>
      {(wrong ?? older.wrong) ? (
        <Box mb="12px">
          <Wrong>{wrong ?? older.wrong}</Wrong>
        </Box>
      ) : null}
      {job ? <JobBar job={work} what="Taking it back" /> : null}
      {acts.length === 0 ? <Box color="quiet">Nothing was done that fits.</Box> : null}
      {acts.map((act) => (
        <ActRow
          key={act.key}
          act={act}
          onUndo={mayUndo && act.id !== null && !act.undone ? () => void undo(act) : null}
          onObject={asked.object ? null : (id) => put({ object: id })}
        />
      ))}
      {question}
      {older.more ? (
        <Act mt="12px" disabled={older.busy} onClick={older.more}>
          {older.busy ? 'Fetching …' : 'Older'}
        </Act>
      ) : null}
    </Workspace>
  );
}

const FEW = 2;

/** One act: its name, who and when; unfolded, what it did to each object. */
function ActRow({
  act,
  onUndo,
  onObject,
}: {
  act: HistoryAct;
  onUndo: (() => void) | null;
  onObject: ((id: string) => void) | null;
}) {
  const [open, setOpen] = useState(act.count <= FEW);
  const [asked, setAsked] = useState(false);
  const all = useAsked('history', asked ? { query: { batch: act.id! } as Input<'history'>['query'] } : null);
  const entries = all.value ? [...all.value.entries].reverse() : act.entries;
  const [only] = act.entries;
  const name = act.name || `${only?.action} ${only?.kind} ${only?.label}`;
  // Acts of one name are told apart by their moment.
  const which = `${name}, ${act.at.replace('T', ' ').replace('Z', ' UTC')}`;
  return (
    <Grid
      templateColumns={{ base: '1fr', md: '128px 130px 1fr auto' }}
      gap={{ base: '2px', md: '12px' }}
      borderTop="1px solid"
      borderColor="line"
      py="6px"
      fontSize="13px"
      data-testid="history-act"
    >
      <chakra.span color="quiet">
        <Time iso={act.at} />
      </chakra.span>
      <Box overflow="hidden">
        {act.who}
        <Box color="quiet" fontSize="12px">
          {act.address}
        </Box>
      </Box>
      <Box minW={0}>
        <Flex gap="8px" align="baseline" wrap="wrap">
          <b>{name}</b>
          {act.undone ? <chakra.span color="quiet">undone</chakra.span> : null}
          {act.count > FEW ? (
            <Act
              look="text"
              h="20px"
              aria-expanded={open}
              aria-label={`${open ? 'fold' : `${act.count} objects`}: ${which}`}
              onClick={() => setOpen(!open)}
            >
              {open ? 'fold' : `${act.count} objects`}
            </Act>
          ) : null}
        </Flex>
        {open
          ? entries.map((e, i) => (
              <EntryRow
                key={`${e.id} ${i}`}
                entry={e}
                named={act.name !== ''}
                which={`${which}, ${i + 1}`}
                onObject={onObject}
              />
            ))
          : null}
        {all.wrong ? <Wrong>{all.wrong}</Wrong> : null}
        {open && !all.value && act.id && act.count > act.entries.length ? (
          <Act
            look="text"
            h="20px"
            disabled={all.waiting}
            aria-label={`and ${act.count - act.entries.length} more: ${which}`}
            onClick={() => setAsked(true)}
          >
            {all.waiting ? 'Fetching …' : `and ${act.count - act.entries.length} more`}
          </Act>
        ) : null}
      </Box>
      {onUndo ? (
        <Act h="24px" onClick={onUndo} aria-label={`Undo: ${which}`}>
          {act.count > 1 ? 'Undo all of it' : 'Undo'}
        </Act>
      ) : (
        <span />
      )}
    </Grid>
  );
}

/** What an act did to one object, field by field. */
function EntryRow({
  entry: e,
  named,
  which,
  onObject,
}: {
  entry: Entry;
  named: boolean;
  /** its act, and its place in it */
  which: string;
  onObject: ((id: string) => void) | null;
}) {
  return (
    <Box mt="2px" data-testid="history-entry">
      {named ? (
        <Flex gap="8px" align="baseline" color="quiet">
          <span>
            {e.action} {e.kind} {e.label}
          </span>
          {e.id && e.batch && onObject ? (
            <Act
              look="text"
              h="18px"
              fontSize="12px"
              aria-label={`its history: ${e.label}, ${which}`}
              onClick={() => onObject(e.id!)}
            >
              its history
            </Act>
          ) : null}
        </Flex>
      ) : null}
      {e.fields.slice(0, 6).map((f) => (
        <Box key={f.title} color="quiet" overflowWrap="anywhere">
          {f.title}: {f.before ? `${f.before.slice(0, 160)} → ` : ''}
          <chakra.span color="ink">{f.after.slice(0, 160)}</chakra.span>
        </Box>
      ))}
    </Box>
  );
}

function Typed({
  id,
  title,
  type,
  value,
  onSettle,
}: {
  id: string;
  title: string;
  type?: string;
  value: string;
  onSettle: (text: string) => void;
}) {
  const [typed, setTyped] = useState(value);
  const settle = (text: string) => text !== value && onSettle(text);
  return (
    <Box w={type === 'date' ? '170px' : '150px'}>
      <Labelled title={title} htmlFor={`history-${id}`}>
        {type === 'date' ? (
          <DayBox
            id={`history-${id}`}
            value={typed}
            onChange={(day) => {
              setTyped(day);
              if (day === '' || /^\d{4}-\d{2}-\d{2}$/.test(day)) settle(day);
            }}
          />
        ) : (
          <TextBox
            id={`history-${id}`}
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            onBlur={() => settle(typed)}
            onKeyDown={(e) => e.key === 'Enter' && settle(typed)}
          />
        )}
      </Labelled>
    </Box>
  );
}
