'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Trash2 } from 'lucide-react';
import { useId, useState } from 'react';
import { v7 as uuid } from 'uuid';
import { Act, SelectBox, TickBox, Wrong } from '@/ui/controls';
import { FigureBox } from '@/ui/figure-box';
import { OrderedList } from '@/ui/ordered-list';
import { ConflictPanel } from '@/workbench/conflict-panel';
import { useEdits, useOrder, useTitles } from '@/workbench/edits';
import type { ObjectEdit } from '@/workbench/edits';
import { RefList, RefPicker } from '@/workbench/ref-picker';
import type { ReachPlanData, StepShown } from './data';

type Rings = 'extension' | 'outside';
const TARGET = { extension: 'extension', outside: 'outsideNumber' } as const;
const WORDS = { extension: 'phone', outside: 'outside number' } as const;

/** The steps of a reach plan, in their order: who rings, how long, and whether together with the one before. */
export function Steps({ data: { data, steps, stepFields, choices } }: { data: ReachPlanData }) {
  const edits = useEdits();
  const plan = String(data.object.id);
  const { order, move, wrong } = useOrder(
    'reachStep',
    steps.map((s) => s.value.id),
  );
  const [refused, setRefused] = useState<string | null>(null);
  const [adding, setAdding] = useState<Rings | null>(null);
  const byId = new Map(steps.map((s) => [s.value.id, s]));
  const shown = order.flatMap((id) => byId.get(id) ?? []);
  const add = async (rings: Rings, target: string) => {
    // Chosen once, whatever the line takes: on a slow one it would be chosen again.
    setAdding(null);
    const id = uuid();
    const last = Math.max(0, ...steps.map((s) => s.value.position));
    const value = { id, reachPlan: plan, position: last + 10, [rings]: target };
    const made = await edits.together(
      [{ do: 'add', of: { kind: 'reachStep', id }, value }],
      `added a step to ${data.label}`.slice(0, 80),
    );
    setRefused(made.ok ? null : made.errors[0]!.sentence);
    if (!made.ok) setAdding(rings);
  };
  const remove = async (step: StepShown) => {
    const base = { object: { ...step.value }, rowVersion: step.rowVersion };
    const made = await edits.together(
      [{ do: 'remove', of: { kind: 'reachStep', id: step.value.id }, base }],
      `took a step out of ${data.label}`.slice(0, 80),
    );
    setRefused(made.ok ? null : made.errors[0]!.sentence);
  };
  return (
    <Box>
      <OrderedList
        label="Steps"
        items={shown.map((step, i) => ({ id: step.value.id, name: `Step ${i + 1}`, step }))}
        disabled={!data.canEdit}
        onMove={(id, after) => void move(id, after)}
      >
        {({ step }, i, controls) => (
          <Flex
            data-testid="reach-step"
            gap="8px"
            align="flex-start"
            wrap={{ base: 'wrap', md: 'nowrap' }}
            border="1px solid"
            borderColor={step.mark ? 'saffron' : 'line'}
            borderLeftWidth={step.mark ? '4px' : '1px'}
            rounded="4px"
            bg="raised"
            px="10px"
            py="6px"
          >
            <Box pt="8px">{controls.handle}</Box>
            <StepFields
              step={step}
              index={i}
              fields={stepFields}
              choices={choices}
              plan={data.label}
              canEdit={data.canEdit}
            />
            {data.canEdit ? (
              <Flex gap="4px" align="center" h="32px">
                {controls.arrows}
                <Act h="24px" px="5px" aria-label={`Take out step ${i + 1}`} onClick={() => void remove(step)}>
                  <Trash2 size={14} aria-hidden />
                </Act>
              </Flex>
            ) : null}
          </Flex>
        )}
      </OrderedList>
      {shown.length === 0 ? <Box color="quiet">Nobody is looked for yet: add a phone.</Box> : null}
      {adding ? (
        <Flex gap="8px" mt="8px" maxW="440px">
          <Box flex="1">
            <RefPicker
              kind={TARGET[adding]}
              aria-label={`Which ${WORDS[adding]} rings`}
              value={null}
              nullable={false}
              placeholder={`which ${WORDS[adding]}`}
              options={choices.options[TARGET[adding]] ?? []}
              search={choices.long.includes(TARGET[adding]) ? TARGET[adding] : undefined}
              onChange={(id) => void (id && add(adding, id))}
            />
          </Box>
          <Act onClick={() => setAdding(null)}>Cancel</Act>
        </Flex>
      ) : null}
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      {refused ? <Wrong>{refused}</Wrong> : null}
      {data.canEdit && !adding ? (
        <Flex gap="8px" mt="8px">
          <Act onClick={() => setAdding('extension')}>Add a phone</Act>
          <Act onClick={() => setAdding('outside')}>Add an outside number</Act>
        </Flex>
      ) : null}
    </Box>
  );
}

function StepFields({
  step,
  index,
  fields,
  choices,
  plan,
  canEdit,
}: {
  step: StepShown;
  index: number;
  fields: ReachPlanData['stepFields'];
  choices: ReachPlanData['choices'];
  plan: string;
  canEdit: boolean;
}) {
  const id = useId();
  const nth = index + 1;
  const edit = useEdits().of({
    kind: 'reachStep',
    object: { ...step.value },
    rowVersion: step.rowVersion,
    label: `Step ${nth} of ${plan}`,
    titles: useTitles(fields),
  });
  const rings: Rings = edit.value.outside === null ? 'extension' : 'outside';
  const wrong =
    edit.general ??
    edit.errorOf(rings) ??
    edit.errorOf('seconds') ??
    edit.errorOf('withPrevious') ??
    edit.errorOf('hours') ??
    edit.errorOf('presences');
  const tick = (field: 'withPrevious' | 'keyToTake', words: string) => (
    <Flex as="label" gap="8px" align="center" minH="28px" fontSize="13px">
      <TickBox
        type="checkbox"
        disabled={!canEdit}
        aria-label={`Step ${nth}: ${words}`}
        checked={Boolean(edit.value[field])}
        onChange={(e) => edit.choose(field, e.target.checked)}
      />
      {words}
    </Flex>
  );
  return (
    <Box flex={{ base: '1 1 calc(100% - 60px)', md: '1' }} minW={0}>
      <ConflictPanel edit={edit} fields={fields} options={choices.options} />
      <Flex gap="10px" wrap="wrap" align="center">
        <Box flex="1 1 200px" minW={0} maxW="320px">
          <RefPicker
            kind={TARGET[rings]}
            aria-label={`Step ${nth} rings`}
            value={edit.value[rings] as string}
            nullable={false}
            disabled={!canEdit}
            options={choices.options[TARGET[rings]] ?? []}
            search={choices.long.includes(TARGET[rings]) ? TARGET[rings] : undefined}
            onChange={(to) => to && edit.choose(rings, to)}
          />
        </Box>
        <chakra.label htmlFor={`${id}-seconds`} srOnly>
          Step {nth} rings for
        </chakra.label>
        <FigureBox
          id={`${id}-seconds`}
          title={`Step ${nth} rings for`}
          w="84px"
          unit="seconds"
          disabled={!canEdit}
          value={String(edit.value.seconds ?? '')}
          onChange={(text) => edit.set('seconds', /^[0-9]+$/.test(text) ? Number(text) : text)}
          onLeave={() => void edit.commit()}
        />
      </Flex>
      <Flex gap="4px 18px" wrap="wrap" mt="2px">
        {index > 0 ? tick('withPrevious', 'together with the step before') : null}
        {rings === 'outside' ? tick('keyToTake', 'a key must be pressed to take the call') : null}
      </Flex>
      <Sometimes edit={edit} nth={nth} choices={choices} canEdit={canEdit} />
      {wrong ? (
        <Box role="alert" color="brick" fontSize="13px">
          {wrong}
        </Box>
      ) : null}
    </Box>
  );
}

/** When a step is taken at all: while hours are open or closed, and in which states of presence. */
function Sometimes({
  edit,
  nth,
  choices,
  canEdit,
}: {
  edit: ObjectEdit;
  nth: number;
  choices: ReachPlanData['choices'];
  canEdit: boolean;
}) {
  const hours = edit.value.hours as string | null;
  const presences = edit.value.presences as string[];
  const [wanted, setWanted] = useState(false);
  if (hours === null && presences.length === 0 && !wanted)
    return canEdit ? (
      <Act h="26px" fontSize="13px" aria-label={`Only sometimes: step ${nth}`} onClick={() => setWanted(true)}>
        Only sometimes
      </Act>
    ) : null;
  return (
    <Flex gap="8px 12px" wrap="wrap" align="flex-start" mt="4px" fontSize="13px">
      <Flex gap="8px" flex="1 1 320px" maxW="420px" align="center">
        <Box color="quiet">while</Box>
        <Box flex="1" minW={0}>
          <RefPicker
            kind="hours"
            aria-label={`Hours of step ${nth}`}
            value={hours}
            nullable
            placeholder="at all times"
            disabled={!canEdit}
            options={choices.options.hours ?? []}
            onChange={(to) => edit.choose('hours', to)}
          />
        </Box>
        {hours === null ? null : (
          <SelectBox
            aria-label={`When step ${nth} is taken`}
            w="110px"
            value={String(edit.value.when)}
            disabled={!canEdit}
            onChange={(e) => edit.choose('when', e.target.value)}
          >
            <option value="open">are open</option>
            <option value="closed">are closed</option>
          </SelectBox>
        )}
      </Flex>
      <Flex gap="8px" flex="1 1 280px" maxW="380px" align="flex-start">
        <Box color="quiet" pt="8px" whiteSpace="nowrap">
          and in these states
        </Box>
        <Box flex="1" minW={0}>
          <RefList
            ids={presences}
            options={choices.options.presenceRule ?? []}
            disabled={!canEdit}
            ordered={false}
            label={`States of presence of step ${nth}`}
            onChange={(ids) => edit.choose('presences', ids)}
          />
        </Box>
      </Flex>
    </Flex>
  );
}
