'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useWatch } from 'react-hook-form';
import type { LeaveChoice, LeaveItem, LeaveWay } from '@/core/acts/people';
import type { Answer } from '@/contract';
import { call } from '@/workbench/api';
import { Act, Labelled, PartTitle, SelectBox, Wrong } from '@/ui/controls';
import { DigitsBox } from '@/ui/digits-box';
import { DayBox } from '@/ui/day-box';
import { PaneSection, Workspace } from '@/ui/workspace';
import { ChangeLines } from '@/workbench/change-lines';
import { FormField } from '@/workbench/form-field';
import { useActForm } from '@/workbench/use-act-form';
import { useAsked } from '@/workbench/use-asked';
import { NotYours } from '@/workbench/not-yours';
import type { Option } from '@/workbench/form-data';
import { RefPicker } from '@/workbench/ref-picker';
import { useRefresh } from '@/ui/refresh';

interface Props {
  id: string;
  account: string;
  first: Answer<'leaveProposal'> & { canEdit: boolean };
  people: Option[];
  destinations: Option[];
  many: boolean;
}

const WAY_WORDS: Record<LeaveWay, string> = {
  delete: 'is deleted',
  empty: 'is removed from it',
  replace: 'is replaced by …',
  'hand over': 'is given to …',
  'keep virtual': 'stays, calls go on until a day',
};

type Choices = Record<string, LeaveChoice>;
interface Typed {
  choices: Choices;
  to: string;
  until: string;
}
const FORWARD: Record<string, 'to' | 'until'> = { 'forward.to': 'to', 'forward.until': 'until' };

/** Somebody leaves: everything of theirs and everything that points there, with a proposal for each; nothing dangles afterwards. */
export function LeavePage({ id, account, first, people, destinations, many }: Props) {
  const router = useRouter();
  const refresh = useRefresh();
  const [proposal, setProposal] = useState<Answer<'leaveProposal'>>(first);
  const [errors, setErrors] = useState<{ path: string; sentence: string }[]>([]);
  const [heir, setHeir] = useState<string | null>(null);
  // Names of those who were found by typing: the list that came with the page is a part.
  const [found, setFound] = useState<Option[]>([]);
  const known = [...people, ...found.filter((f) => !people.some((p) => p.id === f.id))];
  const choiceIn = (choices: Choices, item: LeaveItem): LeaveChoice =>
    choices[item.key] ?? ({ do: item.proposed } as LeaveChoice);
  const keeps = (choices: Choices) => proposal.items.some((i) => choiceIn(choices, i).do === 'keep virtual');
  const { form, submit, busy, general } = useActForm<'leave', Typed>({
    operation: 'leave',
    defaults: { choices: {}, to: '', until: '' },
    input: ({ choices, to, until }) => ({
      params: { id },
      body: { choices, forward: keeps(choices) ? { to, until } : null, draftVersion: proposal.draftVersion },
    }),
    fieldOf: (path) => (path === 'forward' ? 'to' : (FORWARD[path] ?? null)),
    keep: { key: `${account} leave ${id}`, about: { title: `${proposal.name} leaves`, path: `/people/${id}/leave` } },
    send: async (input) => {
      const done = await call('leave', input);
      setErrors(done.ok ? [] : done.errors.filter((e) => e.path.startsWith('choices.')));
      if (!done.ok && done.status === 409) {
        const again = await call('leaveProposal', { params: { id } });
        if (again.ok) setProposal(again.value);
      }
      return done;
    },
    onMade: () => {
      router.push('/people');
      refresh();
    },
  });
  const choices = useWatch({ control: form.control, name: 'choices' }) as Choices;
  const choiceOf = (item: LeaveItem) => choiceIn(choices, item);
  const kept = keeps(choices);
  const preview = useAsked('leavePreview', first.canEdit ? { params: { id }, body: { choices } } : null, {
    keep: true,
  });
  const setChoices = (next: Choices) => form.setValue('choices', next, { shouldDirty: true });
  const choose = (key: string, choice: LeaveChoice) => setChoices({ ...choices, [key]: choice });
  /** Hands over to one person what can be handed over; numbers and references follow their extension. */
  const handOver = (to: string | null, name = '') => {
    setHeir(to);
    if (to) setFound([...found, { id: to, label: name }]);
    const given = to ? proposal.items.filter((i) => i.ways.includes('hand over')) : [];
    setChoices(Object.fromEntries(given.map((i) => [i.key, { do: 'hand over', to: to! }])));
  };
  const errorOf = (key: string) => errors.find((e) => e.path === `choices.${key}`)?.sentence ?? null;
  const own = proposal.items.filter((i) => i.ways.includes('delete') && !i.key.includes(' ', i.key.indexOf(' ') + 1));
  const pointing = proposal.items.filter((i) => !own.includes(i));
  const row = (item: LeaveItem) => (
    <ItemRow
      key={item.key}
      item={item}
      choice={choiceOf(item)}
      error={errorOf(item.key)}
      people={known}
      destinations={destinations}
      many={many}
      onChoose={(c) => choose(item.key, c)}
    />
  );
  if (!first.canEdit) return <NotYours title={`${first.name} leaves`} />;
  return (
    <Workspace
      title={`${proposal.name} leaves`}
      lead="Everything of theirs and everything that points there. Say what becomes of each; all of it is one edit of the draft, undone as one."
      pane={
        <>
          <PaneSection title="Afterwards">
            Nothing refers to anything that is gone. Forwarding of their extensions ends at once; a kept extension goes
            on to the place you name until the day you name.
          </PaneSection>
          <PaneSection title="Live">Calls go as before until you go live.</PaneSection>
        </>
      }
    >
      <Box maxW="820px">
        <Box mb="16px" maxW="360px">
          <Labelled title="Hand everything over to" htmlFor="heir">
            <RefPicker
              id="heir"
              value={heir}
              options={known}
              search={many ? 'person' : undefined}
              nullable
              placeholder="nobody: as proposed below"
              onChange={handOver}
            />
          </Labelled>
        </Box>
        <PartTitle>Theirs</PartTitle>
        {own.length === 0 ? <Box color="quiet">Nothing but their name.</Box> : own.map(row)}
        {pointing.length > 0 ? (
          <Box mt="18px">
            <PartTitle>What points there</PartTitle>
            {pointing.map(row)}
          </Box>
        ) : null}
        {proposal.forwarding.length > 0 ? (
          <Box mt="18px">
            <PartTitle>Forwarding of others to them</PartTitle>
            {proposal.forwarding.map((f) => (
              <Box key={`${f.extension} ${f.when}`} fontSize="13px">
                {f.label} forwards to {f.to}; it ends when {f.to} goes.
              </Box>
            ))}
          </Box>
        ) : null}
        {kept ? (
          <Flex gap="12px" mt="18px" align="flex-start">
            <Box w="240px">
              <FormField
                form={form}
                name="to"
                id="leave-to"
                title="Calls to the kept extension go to"
                more={{ hint: 'Digits as that phone would dial them.' }}
              >
                {({ change, ...rest }) => <DigitsBox {...rest} onChange={change} />}
              </FormField>
            </Box>
            <Box w="170px">
              <FormField form={form} name="until" id="leave-until" title="until the end of">
                {({ change, ...rest }) => <DayBox {...rest} onChange={change} />}
              </FormField>
            </Box>
          </Flex>
        ) : null}
        {preview.value ? (
          <Box mt="18px">
            <PartTitle>What will be</PartTitle>
            <ChangeLines lines={preview.value.lines} count={preview.value.lines.length} />
          </Box>
        ) : null}
        {general ? (
          <Box mt="14px">
            <Wrong>{general}</Wrong>
          </Box>
        ) : null}
        <Flex gap="8px" mt="20px">
          <Act look="danger" disabled={busy} onClick={() => void submit()}>
            Let {proposal.name} leave
          </Act>
          <Act onClick={() => router.push(`/people/${id}`)}>Back</Act>
        </Flex>
      </Box>
    </Workspace>
  );
}

function ItemRow({
  item,
  choice,
  error,
  people,
  destinations,
  many,
  onChoose,
}: {
  item: LeaveItem;
  choice: LeaveChoice;
  error: string | null;
  people: Option[];
  destinations: Option[];
  many: boolean;
  onChoose: (c: LeaveChoice) => void;
}) {
  const target = choice.do === 'hand over' ? 'person' : item.target;
  const options = target === 'person' ? people : target === 'destination' ? destinations : [];
  const whom = choice.do === 'hand over' ? choice.to : choice.do === 'replace' ? choice.by : null;
  return (
    <Box borderTop="1px solid" borderColor="line" py="6px" data-testid="leave-item">
      <Flex gap="12px" align="center" wrap="wrap">
        <chakra.span flex="1" minW="260px">
          {item.what}
        </chakra.span>
        <SelectBox
          w="220px"
          aria-label={`What becomes of ${item.label}`}
          value={choice.do}
          onChange={(e) => {
            const way = e.target.value as LeaveWay;
            if (way === 'hand over') onChoose({ do: way, to: '' });
            else if (way === 'replace') onChoose({ do: way, by: '' });
            else onChoose({ do: way });
          }}
        >
          {item.ways.map((w) => (
            <option key={w} value={w}>
              {WAY_WORDS[w]}
            </option>
          ))}
        </SelectBox>
        {choice.do === 'hand over' || choice.do === 'replace' ? (
          <Box w="200px">
            <RefPicker
              aria-label={`In place of ${item.label}`}
              value={whom === '' ? null : whom}
              options={options}
              search={many || options.length === 0 ? (target ?? 'destination') : undefined}
              nullable={false}
              placeholder="who or what"
              onChange={(to) =>
                to && onChoose(choice.do === 'hand over' ? { do: 'hand over', to } : { do: 'replace', by: to })
              }
            />
          </Box>
        ) : null}
      </Flex>
      {error ? (
        <Box role="alert" color="brick" fontSize="13px">
          {error}
        </Box>
      ) : null}
    </Box>
  );
}
