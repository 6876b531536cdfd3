'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import { HOURS_MODES } from '@/core/plan/facts/hours-modes';
import { Act, SelectBox, Wrong } from '@/ui/controls';
import { OrderedList } from '@/ui/ordered-list';
import { ConflictPanel } from '@/workbench/conflict-panel';
import { useEdits, useOrder, useTitles, type ObjectEdit } from '@/workbench/edits';
import { nameIn, type Option } from '@/workbench/form-data';
import { PlacePicker } from '@/workbench/place-picker';
import { RefPicker } from '@/workbench/ref-picker';
import type { RouteRulesData } from './data';

const MODE_WORDS: Record<(typeof HOURS_MODES)[number], string> = {
  open: 'are open',
  closed: 'are closed',
  holiday: 'are on a holiday',
  notice: 'are under a notice',
};

type Rule = RouteRulesData['rules'][number];

/** What each rule is called above the week: its place, and in words; null is the otherwise. */
export function ruleNames(rules: readonly Rule[], hours: readonly Option[]) {
  const nameOf = nameIn(hours);
  return (id: string | null) => {
    const at = rules.findIndex((r) => r.value.id === id);
    const rule = rules[at];
    if (!rule) return { short: rules.length === 0 ? '' : '—', long: 'the otherwise' };
    const { hours: of, when } = rule.value;
    return { short: String(at + 1), long: `rule ${at + 1}: ${nameOf(of) ?? 'hours'} ${MODE_WORDS[when]}` };
  };
}

/** The time rules of a route, top to bottom, and its otherwise last: each with the hours that it asks and where it leads. */
export function TimeRules({
  route,
  data,
  canEdit,
}: {
  /** the route itself: its own end is the otherwise */
  route: ObjectEdit;
  data: RouteRulesData;
  canEdit: boolean;
}) {
  const edits = useEdits();
  const { order, move, wrong } = useOrder(
    'routeRule',
    data.rules.map((r) => r.value.id),
  );
  const [refused, setRefused] = useState<string | null>(null);
  const byId = new Map(data.rules.map((r) => [r.value.id, r]));
  const rules = order.flatMap((id) => byId.get(id) ?? []);
  const hours = data.choices.options.hours ?? [];
  const places = data.choices.options.destination ?? [];
  const [adding, setAdding] = useState<{ hours: string | null; when: string; leadsTo: string | null } | null>(null);
  const add = async (now: NonNullable<typeof adding>) => {
    setAdding(now);
    if (!now.hours || !now.leadsTo) return;
    const id = uuid();
    const last = Math.max(0, ...data.rules.map((r) => r.value.position));
    const made = await edits.together(
      [{ do: 'add', of: { kind: 'routeRule', id }, value: { ...now, id, route: data.id, position: last + 10 } }],
      `added a time rule to ${data.name}`,
    );
    setRefused(made.ok ? null : made.errors[0]!.sentence);
    if (made.ok) setAdding(null);
  };
  const remove = async (rule: Rule) => {
    const made = await edits.together(
      [
        {
          do: 'remove',
          of: { kind: 'routeRule', id: rule.value.id },
          base: { object: { ...rule.value }, rowVersion: rule.rowVersion },
        },
      ],
      `took a time rule out of ${data.name}`,
    );
    setRefused(made.ok ? null : made.errors[0]!.sentence);
  };
  return (
    <Box>
      <OrderedList
        label="Time rules"
        items={rules.map((r, i) => ({ id: r.value.id, name: `Rule ${i + 1}`, r }))}
        disabled={!canEdit}
        gap="0px"
        onMove={(id, after) => void move(id, after)}
      >
        {({ r }, i, controls) => (
          <Rung mark={r.mark} handle={controls.handle} label={String(i + 1)}>
            <RuleFields rule={r} index={i} data={data} canEdit={canEdit} />
            {canEdit ? (
              <Flex gap="4px" align="center">
                {controls.arrows}
                <Act px="6px" aria-label={`Take out rule ${i + 1}`} onClick={() => void remove(r)}>
                  <Trash2 size={14} aria-hidden />
                </Act>
              </Flex>
            ) : null}
          </Rung>
        )}
      </OrderedList>
      {adding ? (
        <Rung mark="new" label={String(rules.length + 1)}>
          <Line
            when={
              <>
                <RefPicker
                  kind="hours"
                  aria-label="Hours of the new rule"
                  value={adding.hours}
                  nullable={false}
                  placeholder="which hours"
                  options={hours}
                  search={data.choices.long.includes('hours') ? 'hours' : undefined}
                  onChange={(id) => void add({ ...adding, hours: id })}
                />
                <ModeBox
                  label="When the new rule fits"
                  value={adding.when}
                  disabled={false}
                  onChange={(when) => void add({ ...adding, when })}
                />
              </>
            }
            leads={
              <PlacePicker
                aria-label="Where the new rule leads"
                value={adding.leadsTo}
                nullable={false}
                placeholder="where to"
                options={places}
                long={data.choices.long.includes('destination')}
                site={data.site}
                onChange={(id) => void add({ ...adding, leadsTo: id })}
              />
            }
          />
          <Act onClick={() => setAdding(null)}>Cancel</Act>
        </Rung>
      ) : null}
      <Rung label="—" last>
        <Line
          when={<chakra.b lineHeight="32px">{rules.length > 0 || adding ? 'Otherwise' : 'Always'}</chakra.b>}
          leads={
            <Box>
              <PlacePicker
                data-field="leadsTo"
                aria-label={rules.length > 0 ? 'Where the otherwise leads' : 'Where it leads'}
                value={route.value.dialledExtension ? null : (route.value.leadsTo as string | null)}
                nullable
                disabled={!canEdit || route.value.dialledExtension === true}
                placeholder={
                  route.value.dialledExtension ? 'the extension that was dialled' : 'nowhere: released as unallocated'
                }
                options={places}
                long={data.choices.long.includes('destination')}
                site={data.site}
                onChange={(id) => route.choose('leadsTo', id)}
              />
              {route.errorOf('leadsTo') ? (
                <Box role="alert" color="brick" fontSize="13px">
                  {route.errorOf('leadsTo')}
                </Box>
              ) : null}
            </Box>
          }
        />
      </Rung>
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      {refused ? <Wrong>{refused}</Wrong> : null}
      {canEdit && !adding ? (
        <Act
          mt="8px"
          onClick={() => setAdding({ hours: hours.length === 1 ? hours[0]!.id : null, when: 'closed', leadsTo: null })}
        >
          Add a time rule
        </Act>
      ) : null}
    </Box>
  );
}

/** One rung of the ladder, with its place. */
function Rung({
  label,
  mark = null,
  handle,
  last = false,
  children,
}: {
  label: string;
  mark?: 'new' | 'changed' | null;
  handle?: React.ReactNode;
  last?: boolean;
  children: React.ReactNode;
}) {
  return (
    <Flex
      data-testid="time-rule"
      gap="8px"
      align="flex-start"
      wrap={{ base: 'wrap', md: 'nowrap' }}
      border="1px solid"
      borderStyle={last ? 'dashed' : 'solid'}
      borderColor={mark ? 'saffron' : 'line'}
      borderLeftWidth={mark ? '4px' : '1px'}
      rounded="4px"
      bg="raised"
      px="10px"
      py="6px"
      mb="6px"
    >
      {handle ? <Box pt="8px">{handle}</Box> : null}
      <Box w="18px" flexShrink={0} lineHeight="32px" color="quiet">
        {label}
      </Box>
      {children}
    </Flex>
  );
}

function Line({ when, leads }: { when: React.ReactNode; leads: React.ReactNode }) {
  return (
    <Flex flex="1" minW={0} gap="10px" wrap={{ base: 'wrap', md: 'nowrap' }} align="flex-start">
      <Flex
        flex={{ base: '1 1 100%', md: '1 1 300px' }}
        minW={0}
        gap="6px"
        wrap={{ base: 'wrap', md: 'nowrap' }}
        css={{ '& > *:first-of-type': { flex: '1 1 150px', minWidth: 0 } }}
      >
        {when}
      </Flex>
      <Box flex={{ base: '1 1 100%', md: '1 1 260px' }} minW={0}>
        {leads}
      </Box>
    </Flex>
  );
}

function ModeBox({
  label,
  value,
  disabled,
  onChange,
}: {
  label: string;
  value: string;
  disabled: boolean;
  onChange: (when: string) => void;
}) {
  return (
    <SelectBox
      aria-label={label}
      w="150px"
      flexShrink={0}
      value={value}
      disabled={disabled}
      onChange={(e) => onChange(e.target.value)}
    >
      {HOURS_MODES.map((m) => (
        <option key={m} value={m}>
          {MODE_WORDS[m]}
        </option>
      ))}
    </SelectBox>
  );
}

function RuleFields({
  rule,
  index,
  data,
  canEdit,
}: {
  rule: Rule;
  index: number;
  data: RouteRulesData;
  canEdit: boolean;
}) {
  const titles = useTitles(data.ruleFields);
  const edit = useEdits().of({
    kind: 'routeRule',
    object: { ...rule.value },
    rowVersion: rule.rowVersion,
    label: `Rule ${index + 1} of ${data.name}`,
    titles,
  });
  const hours = data.choices.options.hours ?? [];
  const places = data.choices.options.destination ?? [];
  const wrong = edit.general ?? edit.errorOf('hours') ?? edit.errorOf('when') ?? edit.errorOf('leadsTo');
  return (
    <Box flex={{ base: '1 1 calc(100% - 60px)', md: '1' }} minW={0}>
      <ConflictPanel edit={edit} fields={data.ruleFields} options={{ hours, destination: places }} />
      <Line
        when={
          <>
            <RefPicker
              kind="hours"
              aria-label={`Hours of rule ${index + 1}`}
              value={edit.value.hours as string}
              nullable={false}
              disabled={!canEdit}
              options={hours}
              search={data.choices.long.includes('hours') ? 'hours' : undefined}
              onChange={(id) => id && edit.choose('hours', id)}
            />
            <ModeBox
              label={`When rule ${index + 1} fits`}
              value={edit.value.when as string}
              disabled={!canEdit}
              onChange={(when) => edit.choose('when', when)}
            />
          </>
        }
        leads={
          <PlacePicker
            aria-label={`Where rule ${index + 1} leads`}
            value={edit.value.leadsTo as string}
            nullable={false}
            disabled={!canEdit}
            options={places}
            long={data.choices.long.includes('destination')}
            site={data.site}
            onChange={(id) => id && edit.choose('leadsTo', id)}
          />
        }
      />
      {wrong ? (
        <Box role="alert" color="brick" fontSize="13px">
          {wrong}
        </Box>
      ) : null}
    </Box>
  );
}
