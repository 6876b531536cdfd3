'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Going, Leave } from '@/contract/going-live';
import type { Pending, PendingAct, PendingEdit } from '@/contract/plan';
import { RealCalls } from '@/workbench/replay/real-calls';
import { BrokenRehearsals } from '@/workbench/broken-rehearsals';
import { call, type ApiResult } from '@/workbench/api';
import { ActLink, Empty, Wrong } from '@/ui/controls';
import { Time } from '@/ui/time';
import { PaneSection, Workspace } from '@/ui/workspace';
import { askOfColleague } from '@/workbench/colleague';
import { useKeptThings } from '@/ui/kept';
import { useConfirm } from '@/ui/confirm';
import { TypedList } from '@/workbench/typed-list';
import { Later } from '@/ui/later';
import { ActOfDraft } from './act-of-draft';
import { CallsThatChange } from './calls-that-change';
import { GateList, GoPart, type GateData } from './gate';
import { AfterLive } from './after-live';
import { Goings } from './goings';
import { LaterAct, LeftPart, type Later as LaterOf } from './later-part';
import { useAsked } from '@/workbench/use-asked';
import { useRefresh } from '@/ui/refresh';

/** What the server gives this page: a first page of edits, and how they group. */
export interface GoLiveData {
  pending: Pending;
  /** chosen kind and person, and the act that is unfolded at first */
  asked: { kind: string; by: string; act: string };
  mayGoLive: boolean;
  /** what waits to go live, and what became of the last ones */
  goings: Going[];
  /** how the organisation goes live */
  policy: { secondPerson: boolean; quietUntil: number | null };
  /** may let errors through that are not about emergency calls */
  mayOverride: boolean;
  /** what stands between the draft and going live; null: not for this reader */
  gate: Promise<GateData> | null;
  /** what acts at once and would lose what it is about */
  losing: string[];
  mayEdit: boolean;
  /** may run real calls through the draft */
  mayReplay: boolean;
  /** may ask what happens to calls */
  mayAsk: boolean;
  me: string;
  account: string;
  live: { number: number; note: string; by: string; at: string } | null;
}

/** Objects up to which the impact is asked for unasked. */
const MOST_COMPARED = 200;

const NONE: Leave[] = [];

const plural = (n: number) => `${n} ${n === 1 ? 'edit' : 'edits'}`;

/** What going live would change: act by act, each unfolding to its objects; undo of one; a note; go. */
export function GoLivePage({ data }: { data: GoLiveData }) {
  const router = useRouter();
  const refresh = useRefresh();
  const { pending, asked, me } = data;
  const [wrong, setWrong] = useState<string | null>(null);
  const [gone, setGone] = useState<number | null>(null);
  const [leave, setLeave] = useState<Leave[]>([]);
  const leaving = useAsked('leaving', leave.length > 0 ? { body: { leave } } : null, { keep: true });
  const later: LaterOf | null = data.mayGoLive ? { leave, onLeave: setLeave } : null;
  const onGone = (number: number) => {
    setGone(number);
    setLeave([]);
    refresh();
  };
  const [question, confirm] = useConfirm<'undo' | 'only'>();
  const told = (done: ApiResult<unknown>) => {
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    refresh();
  };
  const undoAct = async (act: PendingAct) => {
    if (!act.mine && (await confirm(askOfColleague({ name: act.name, who: act.by }))) !== 'undo') return;
    told(await call('undoBatch', { params: { batch: act.id } }));
  };
  /** One object of an act: what would be left half is said, and the whole is offered. */
  const undoOne = async (act: PendingAct, edit: PendingEdit) => {
    const choice = act.objects > 1 ? await confirm(askOfPart(act, edit.label)) : 'undo';
    if (choice === 'undo') return undoAct(act);
    if (choice === 'only') told(await call('undo', { body: { kind: edit.kind, id: edit.id } }));
  };
  const filter = (change: Partial<typeof asked>) => {
    const params = new URLSearchParams(Object.entries({ ...asked, ...change }).filter(([, v]) => v !== ''));
    router.push(`/go-live${params.size > 0 ? `?${params}` : ''}`);
  };
  const who = (name: string) => (name === me ? 'you' : name);
  return (
    <Workspace
      title={pending.objects === 0 ? 'Draft and live are the same' : 'What going live would change'}
      count={
        pending.count > 0
          ? `${plural(pending.count)}, ${pending.objects} ${pending.objects === 1 ? 'object differs' : 'objects differ'}`
          : undefined
      }
      lead={
        data.live ? (
          <>
            Revision {data.live.number} is live since <Time iso={data.live.at} />, by {data.live.by}.
          </>
        ) : (
          'Nothing was ever live.'
        )
      }
      pane={
        pending.objects > 0 ? (
          <>
            <TypedSection account={data.account} />
            {data.mayAsk && pending.objects <= MOST_COMPARED ? <CallsThatChange /> : null}
            {leave.length > 0 && leaving.value ? (
              <LeftPart leaving={leaving.value} onNone={() => setLeave([])} />
            ) : null}
            {leaving.wrong ? <Wrong>{leaving.wrong}</Wrong> : null}
            <PaneSection title="Go live">
              {leave.length > 0 ? (
                leaving.value && leaving.value.errors.length === 0 && leaving.value.objects > 0 ? (
                  <GoPart
                    key="part"
                    gate={leaving.value.gate}
                    account={data.account}
                    mayOverride={data.mayOverride}
                    edits={plural(leaving.value.acts)}
                    draftVersion={pending.draftVersion}
                    revision={pending.revision + 1}
                    leave={leave}
                    policy={data.policy}
                    onPlanned={refresh}
                    busy={leaving.waiting}
                    onGone={onGone}
                  />
                ) : leaving.waiting ? (
                  'What can go without them is being looked up.'
                ) : (
                  'Nothing would go live.'
                )
              ) : data.gate ? (
                <Later of={data.gate}>
                  {(gate) => (
                    <GoPart
                      gate={gate}
                      account={data.account}
                      mayOverride={data.mayOverride}
                      edits={plural(pending.count)}
                      draftVersion={pending.draftVersion}
                      revision={pending.revision + 1}
                      leave={NONE}
                      policy={data.policy}
                      onPlanned={refresh}
                      onGone={onGone}
                    />
                  )}
                </Later>
              ) : (
                'An administrator makes the draft live.'
              )}
            </PaneSection>
            <Groups
              title="What"
              groups={pending.kinds}
              chosen={asked.kind}
              onChoose={(kind) => filter({ kind })}
              wordsOf={(g) => g.words}
            />
            <Groups
              title="Edited by"
              groups={pending.people}
              chosen={asked.by}
              onChoose={(by) => filter({ by })}
              wordsOf={(g) => who(g.key)}
              asideOf={
                later
                  ? (g) => <LaterAct later={later} one={{ by: g.key }} name={`all that ${who(g.key)} edited`} />
                  : undefined
              }
            />
          </>
        ) : undefined
      }
    >
      {wrong ? (
        <Box mb="12px">
          <Wrong>{wrong}</Wrong>
        </Box>
      ) : null}
      {gone ? <AfterLive revision={gone} /> : null}
      <Goings goings={data.goings} mayGoLive={data.mayGoLive} onDone={refresh} />
      {data.gate ? <BrokenRehearsals /> : null}
      {data.losing.length > 0 ? (
        <Box
          mb="12px"
          border="1px solid"
          borderColor="saffron"
          borderLeftWidth="4px"
          rounded="4px"
          p="10px"
          data-testid="losing"
        >
          <b>Set at once, and without what it is about once this is live</b>
          {data.losing.map((s) => (
            <Box key={s}>{s}</Box>
          ))}
        </Box>
      ) : null}
      {leave.length > 0 && leaving.value ? (
        <GateList gate={leaving.value.gate} />
      ) : data.gate && pending.objects > 0 ? (
        <Later of={data.gate}>{(gate) => <GateList gate={gate} />}</Later>
      ) : null}
      {data.mayReplay && pending.objects > 0 ? <RealCalls draftVersion={pending.draftVersion} /> : null}
      {pending.objects === 0 ? <TypedSection account={data.account} /> : null}
      {pending.objects === 0 ? (
        <Empty act={<ActLink href="/revisions">Revisions</ActLink>}>
          Every edit lands in the draft first. When there are some, this page lists each with before and after, and
          makes them live together.
        </Empty>
      ) : null}
      {pending.acts.map((act) => (
        <ActOfDraft
          key={act.id}
          act={act}
          asked={asked}
          brought={broughtWith(act, pending)}
          open={asked.act === act.id || asked.kind !== ''}
          who={who}
          onUndo={data.mayEdit && act.at !== null ? () => void undoAct(act) : null}
          onUndoOne={data.mayEdit ? (edit) => void undoOne(act, edit) : null}
          later={act.at === null ? null : later}
        />
      ))}
      {pending.actsLeft > 0 ? <Box color="quiet">and {pending.actsLeft} older edits, see History</Box> : null}
      {question}
    </Workspace>
  );
}

/** What the reader typed that would not go live, since it is in no draft. */
function TypedSection({ account }: { account: string }) {
  const things = useKeptThings(account);
  if (things.length === 0) return null;
  return (
    <PaneSection title="Typed, and not among these edits">
      <TypedList account={account} />
    </PaneSection>
  );
}

/** The objects of an act where the page brought them all; null: they are fetched when it is unfolded. */
function broughtWith(act: PendingAct, pending: Pending): Pending | null {
  const edits = act.keys.flatMap((key) => pending.edits.find((e) => `${e.kind} ${e.id}` === key) ?? []);
  return edits.length === act.objects ? { ...pending, edits, next: null } : null;
}

/** What is asked before a part of an act is undone. */
const askOfPart = (act: PendingAct, label: string) => ({
  title: `${label} is part of “${act.name}”`,
  body: `Taking only ${label} back to how it is live leaves ${act.objects === 2 ? 'the other object' : `the other ${act.objects - 1} objects`} of that edit as edited: half of it stays in the draft.`,
  choices: [
    { id: 'undo' as const, words: 'Undo all of it', look: 'main' as const },
    { id: 'only' as const, words: `Only ${label}` },
  ],
});

/** How many edits there are of each kind or person, each to be listed alone. */
function Groups({
  title,
  groups,
  chosen,
  onChoose,
  wordsOf,
  asideOf,
}: {
  title: string;
  groups: Pending['kinds'];
  chosen: string;
  onChoose: (key: string) => void;
  wordsOf: (group: Pending['kinds'][number]) => string;
  asideOf?: ((group: Pending['kinds'][number]) => React.ReactNode) | undefined;
}) {
  return (
    <PaneSection title={title}>
      {groups.map((g) => (
        <Flex key={g.key} gap="6px" align="center">
          <chakra.button
            type="button"
            display="flex"
            flex="1"
            minW={0}
            justifyContent="space-between"
            px="4px"
            rounded="3px"
            bg={chosen === g.key ? 'plumTint' : undefined}
            fontWeight={chosen === g.key ? 700 : 400}
            aria-pressed={chosen === g.key}
            onClick={() => onChoose(chosen === g.key ? '' : g.key)}
          >
            <span>{wordsOf(g)}</span>
            <chakra.span color="quiet">{g.count}</chakra.span>
          </chakra.button>
          {asideOf?.(g)}
        </Flex>
      ))}
    </PaneSection>
  );
}
