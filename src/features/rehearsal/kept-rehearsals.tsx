'use client';

import { MustStay } from '@/workbench/must-stay';
import { Box, Flex, chakra } from '@chakra-ui/react';
import { useQueryClient } from '@tanstack/react-query';
import { Check, X } from 'lucide-react';
import { useState } from 'react';
import type { Answer } from '@/contract';
import { Act, PartTitle, TextBox, Wrong } from '@/ui/controls';
import { Link } from '@/ui/link';
import { useWriting } from '@/ui/time';
import { call } from '@/workbench/api';
import { useAsked } from '@/workbench/use-asked';
import { writeDone, type Done } from './run';

type Test = Answer<'rehearsals'>['tests'][number];

/** The rehearsals that are kept as tests: whether each still goes as it went, and the edit that broke it where it does not. */
export function KeptRehearsals({ mayEdit }: { mayEdit: boolean }) {
  const asked = useAsked('rehearsals', {}, { keep: true, fresh: true });
  const queries = useQueryClient();
  const [wrong, setWrong] = useState<string | null>(null);
  const tests = asked.value?.tests ?? [];
  const drop = async (id: string) => {
    const done = await call('dropRehearsal', { params: { id } });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    void queries.invalidateQueries({ queryKey: ['rehearsals'] });
  };
  if (asked.wrong) return <Wrong>{asked.wrong}</Wrong>;
  if (tests.length === 0) return null;
  const broken = tests.filter((t) => !t.went.holds).length;
  return (
    <Box as="section" aria-label="Kept as tests" mt="22px" data-testid="kept-rehearsals">
      <PartTitle>
        Kept as tests:{' '}
        {tests.length === broken
          ? 'none goes'
          : broken === 0
            ? 'all go'
            : `${tests.length - broken} of ${tests.length} go`}{' '}
        as they went
      </PartTitle>
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      {tests.map((t) => (
        <TestRow key={t.kept.id} test={t} onDrop={mayEdit ? () => void drop(t.kept.id) : null} />
      ))}
    </Box>
  );
}

/** Where a call ended, in a few words. */
const endOf = (went: Test['kept']['expects'] | null): string =>
  went === null
    ? 'the call can’t be made'
    : [went.lands?.label ?? went.outcome, ...went.then.map((t) => t.label)].join(', then ');

function TestRow({ test: { kept, went }, onDrop }: { test: Test; onDrop: (() => void) | null }) {
  const write = useWriting();
  const { question, situation } = kept;
  const done: Done = { keys: [], busy: [], away: [], answered: null, ...(situation as Partial<Done>) };
  const path = `/rehearsal?${new URLSearchParams({ from: question.from, dial: question.dial, at: question.at, ...(writeDone(done) ? { did: writeDone(done) } : {}) })}`;
  return (
    <Flex
      data-testid="kept-rehearsal"
      gap="10px"
      align="flex-start"
      borderTop="1px solid"
      borderColor="line"
      py="7px"
      wrap={{ base: 'wrap', md: 'nowrap' }}
    >
      <Box color={went.holds ? 'pine' : 'brick'} pt="2px">
        {went.holds ? <Check size={16} aria-label="goes as it went" /> : <X size={16} aria-label="goes otherwise" />}
      </Box>
      <Box flex="1" minW="220px">
        <Link href={path}>
          <chakra.b color="ink">{kept.name}</chakra.b>
        </Link>
        <Box color="quiet" fontSize="13px">
          {question.from.replace(/^outside:/, '')} calls {question.dial}, {write(question.at, { weekday: true })}:{' '}
          {endOf(kept.expects)}
        </Box>
        {went.holds ? null : (
          <Box fontSize="13px" color="brick">
            Now: {endOf(went.now)}.{' '}
            {went.brokenBy
              ? `Since ${went.brokenBy.by} ${went.brokenBy.name}, ${write(went.brokenBy.at, {})}.`
              : 'Which edit did it can’t be told.'}
          </Box>
        )}
      </Box>
      {onDrop && went.holds ? (
        <MustStay of={{ from: question.from, dial: question.dial, at: question.at }} about={kept.name} />
      ) : null}
      {onDrop ? (
        <Act aria-label={`Keep ${kept.name} no longer`} onClick={onDrop}>
          Keep no longer
        </Act>
      ) : null}
    </Flex>
  );
}

/** Keeps the rehearsal that was played, under a name. */
export function KeepThis({ question, done }: { question: { from: string; dial: string; at: string }; done: Done }) {
  const queries = useQueryClient();
  const [name, setName] = useState('');
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const keep = async () => {
    setBusy(true);
    const { keys, busy: engaged, away } = done;
    const made = await call('keepRehearsal', { body: { ...question, name, does: { keys, busy: engaged, away } } });
    setBusy(false);
    setWrong(made.ok ? null : made.errors[0]!.sentence);
    if (!made.ok) return;
    setName('');
    void queries.invalidateQueries({ queryKey: ['rehearsals'] });
  };
  return (
    <chakra.form
      mt="14px"
      onSubmit={(e) => {
        e.preventDefault();
        void keep();
      }}
    >
      <Flex gap="8px" align="center" wrap="wrap">
        <TextBox
          aria-label="Name of the test"
          placeholder="Freight by key 2"
          w="240px"
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        <Act type="submit" disabled={busy || name.trim() === ''}>
          {busy ? 'Keeping …' : 'Keep as a test'}
        </Act>
        <chakra.span color="quiet" fontSize="13px">
          It is run again on each edit, and names the edit that breaks it.
        </chakra.span>
      </Flex>
      {wrong ? <Wrong>{wrong}</Wrong> : null}
    </chakra.form>
  );
}
