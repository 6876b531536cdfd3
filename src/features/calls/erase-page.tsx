'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { Answer } from '@/contract';
import { Act, ActLink, Labelled, SelectBox, TextBox, Wrong } from '@/ui/controls';
import { useConfirm } from '@/ui/confirm';
import { PaneSection, Workspace } from '@/ui/workspace';
import { call } from '@/workbench/api';
import { FoundPicker } from '@/workbench/found-picker';
import { JobBar } from '@/workbench/job-bar';
import { NotYours } from '@/workbench/not-yours';
import { useJob, whyNot } from '@/workbench/use-job';
import type { AboutCalls } from './about';
import { Tabs } from './tabs';

/** Takes a person or a caller out of the call records: what goes, what stays and why is said before it is done. */
export function ErasePage({ about }: { about: AboutCalls }) {
  const [who, setWho] = useState<'number' | 'person'>('number');
  const [number, setNumber] = useState('');
  const [person, setPerson] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const [job, setJob] = useState<string | null>(null);
  const [done, setDone] = useState<{ erased: number; label: string } | null>(null);
  const [question, confirm] = useConfirm<'erase'>();
  const work = useJob<{ erased: number; label: string }>(job, (ended) => {
    setWrong(whyNot(ended));
    // Other work may have begun meanwhile.
    setJob((now) => (now === ended.id ? null : now));
    if (ended.state === 'done' && ended.result) setDone(ended.result);
  });
  const whom = who === 'number' ? { number: number.trim(), person: '' } : { number: '', person };
  const erase = async () => {
    setWrong(null);
    setDone(null);
    const seen = await call('erasePreview', { body: whom });
    if (!seen.ok) return setWrong(seen.errors[0]!.sentence);
    if ((await confirm(asked(seen.value))) !== 'erase') return;
    const got = await call('eraseCalls', { body: whom });
    if (got.ok) setJob(got.value.job);
    else setWrong(got.errors[0]!.sentence);
  };
  const title = 'Erase somebody from the calls';
  if (!about.mayKeep) return <NotYours title={title} />;
  return (
    <Workspace
      title={title}
      lead="For whoever asks that nothing more is known of them, where the law gives them that right."
      acts={<ActLink href="/calls">All calls</ActLink>}
      pane={
        <>
          <PaneSection title="What goes">
            Who called and who was called, the numbers in every writing, the keys pressed, the number shown, the
            recording; for a person also whose phone it was and where it rang.
          </PaneSection>
          <PaneSection title="What stays, and why">
            When each call was and how long, its trunk, channel, queue, kind of end and cause: lines and queues are
            sized by them, and they name nobody. Calls for help stay whole, since it must be shown that they left and
            from where.
          </PaneSection>
          <PaneSection title="What is recorded">
            That it was done, by whom and when, and how many calls it was about.
          </PaneSection>
        </>
      }
    >
      <Tabs about={about} />
      <Flex gap="12px" align="flex-end" wrap="wrap" mb="14px">
        <Box w="180px">
          <Labelled title="Who" htmlFor="erase-who">
            <SelectBox id="erase-who" value={who} onChange={(e) => setWho(e.target.value as typeof who)}>
              <option value="number">an outside number</option>
              <option value="person">a person of ours</option>
            </SelectBox>
          </Labelled>
        </Box>
        <Box w="240px">
          {who === 'number' ? (
            <Labelled title="Number, as people write it" htmlFor="erase-number">
              <TextBox
                id="erase-number"
                fontFamily="mono"
                maxLength={40}
                value={number}
                onChange={(e) => setNumber(e.target.value)}
              />
            </Labelled>
          ) : (
            <Labelled title="Person" htmlFor="erase-person">
              <FoundPicker id="erase-person" target="person" value={person} onChange={setPerson} />
            </Labelled>
          )}
        </Box>
        <Act
          disabled={job !== null || (who === 'number' ? number.trim() === '' : person === '')}
          onClick={() => void erase()}
        >
          Erase …
        </Act>
      </Flex>
      {job !== null ? <JobBar job={work} what="Erasing" /> : null}
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      {done ? (
        <Box role="status" data-testid="erased">
          {done.erased.toLocaleString('en')} {done.erased === 1 ? 'record names' : 'records name'} {done.label} no more.
        </Box>
      ) : null}
      {question}
    </Workspace>
  );
}

function asked({ label, calls, kept }: Answer<'erasePreview'>) {
  const many = `${calls.toLocaleString('en')} ${calls === 1 ? 'call' : 'calls'}`;
  return {
    title: `Erase ${label} from ${many}?`,
    body: `${label} is caller, called or end of ${many}, and may have rung in others. This can’t be undone.${
      kept > 0 ? ` ${kept} calls for help stay whole.` : ''
    } What differs from nobody else’s calls stays: when, how long, by which trunk.`,
    choices: [{ id: 'erase' as const, words: 'Erase for good', look: 'danger' as const }],
  };
}
