'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import {
  KEY_ACTS,
  KEY_ACT_WORDS,
  OTHER_KEYS,
  type AttendantKeyName,
  type AttendantMode,
  type KeyAct,
} from '@/core/plan/facts/attendants';
import { Act, SelectBox, TickBox, Wrong } from '@/ui/controls';
import { ConflictPanel } from '@/workbench/conflict-panel';
import { useEdits, useTitles, type ObjectEdit } from '@/workbench/edits';
import { PlacePicker } from '@/workbench/place-picker';
import type { AttendantData, KeyShown } from './data';

/** What a caller does without a right key can't ask anything more of them. */
const ACTS_WITHOUT_KEY = new Set<KeyAct>(['lead', 'back', 'end']);
const isOther = (key: string) => (OTHER_KEYS as readonly string[]).includes(key);

interface Props {
  page: AttendantData;
  mode: AttendantMode;
  name: AttendantKeyName;
  shown: KeyShown | null;
  /** makes a second level and leads the key there */
  onLevel?: (() => void) | undefined;
}

/** One key of a mode: what it does, and where it leads. */
export function KeyPanel(props: Props) {
  return props.shown ? <SetKey {...props} shown={props.shown} /> : <EmptyKey {...props} />;
}

const titleOf = (name: string) => (isOther(name) ? name : `key ${name}`);

function ActBox({
  name,
  value,
  disabled,
  onChange,
}: {
  name: AttendantKeyName;
  value: string;
  disabled: boolean;
  onChange: (does: string) => void;
}) {
  const acts = KEY_ACTS.filter((a) => !isOther(name) || ACTS_WITHOUT_KEY.has(a));
  const empty = value === '';
  return (
    <SelectBox
      aria-label={`What ${titleOf(name)} does`}
      w="180px"
      flexShrink={0}
      value={value}
      disabled={disabled}
      onChange={(e) => onChange(e.target.value)}
    >
      {empty ? <option value="">{isOther(name) ? OTHERWISE[name] : 'is a wrong key'}</option> : null}
      {acts.map((a) => (
        <option key={a} value={a}>
          {KEY_ACT_WORDS[a]}
        </option>
      ))}
    </SelectBox>
  );
}

/** What happens where nothing is said. */
const OTHERWISE: Record<string, string> = {
  'no key': 'as after too many tries',
  'wrong key': 'is said so, choose again',
  'too many tries': 'as with no key',
};

function SetKey({ page, mode, name, shown, onLevel }: Props & { shown: KeyShown }) {
  const edits = useEdits();
  const { data, choices } = page;
  const { value } = shown;
  const edit: ObjectEdit = edits.of({
    kind: 'attendantKey',
    object: { ...value },
    rowVersion: shown.rowVersion,
    label: `${titleOf(name)} of ${data.label}`,
    titles: useTitles(page.keyFields),
  });
  const [refused, setRefused] = useState<string | null>(null);
  const [leadsAt, setLeadsAt] = useState(false);
  const base = { object: { ...edit.value }, rowVersion: shown.rowVersion };
  const does = async (next: KeyAct) => {
    // A key that leads needs to know where: it is asked before anything changes.
    if (next === 'lead') return setLeadsAt(true);
    setLeadsAt(false);
    const made = await edits.together(
      [{ do: 'set', of: { kind: 'attendantKey', id: value.id }, base, fields: { does: next, leadsTo: null } }],
      `set ${titleOf(name)} of ${data.label}`,
    );
    setRefused(made.ok ? null : made.errors[0]!.sentence);
  };
  const leads = async (id: string | null) => {
    if (id === null) return;
    if (edit.value.does === 'lead') return edit.choose('leadsTo', id);
    setLeadsAt(false);
    const made = await edits.together(
      [{ do: 'set', of: { kind: 'attendantKey', id: value.id }, base, fields: { does: 'lead', leadsTo: id } }],
      `set ${titleOf(name)} of ${data.label}`,
    );
    setRefused(made.ok ? null : made.errors[0]!.sentence);
  };
  const clear = async () => {
    const made = await edits.together(
      [{ do: 'remove', of: { kind: 'attendantKey', id: value.id }, base }],
      `cleared ${titleOf(name)} of ${data.label} when ${mode}`,
    );
    setRefused(made.ok ? null : made.errors[0]!.sentence);
  };
  const now = leadsAt ? 'lead' : (edit.value.does as KeyAct);
  const wrong = refused ?? edit.general ?? edit.errorOf('leadsTo') ?? edit.errorOf('does');
  return (
    <Box>
      <ConflictPanel edit={edit} fields={page.keyFields} options={choices.options} />
      <Flex gap="8px" wrap="wrap" align="flex-start">
        <ActBox name={name} value={now} disabled={!data.canEdit} onChange={(v) => void does(v as KeyAct)} />
        {now === 'lead' ? (
          <Box flex="1 1 220px" minW={0}>
            <PlacePicker
              aria-label={`Where ${titleOf(name)} leads`}
              value={leadsAt ? null : (edit.value.leadsTo as string | null)}
              nullable={false}
              placeholder="where to"
              disabled={!data.canEdit}
              options={choices.options.destination ?? []}
              long={choices.long.includes('destination')}
              site={data.object.site as string}
              onChange={(id) => void leads(id)}
            />
          </Box>
        ) : null}
      </Flex>
      {now === 'lead' && !isOther(name) ? (
        <chakra.label display="flex" gap="8px" alignItems="center" mt="8px">
          <TickBox
            type="checkbox"
            checked={edit.value.silent === false}
            disabled={!data.canEdit}
            onChange={(e) => edit.choose('silent', !e.target.checked)}
          />
          Tells the caller that they are being connected
        </chakra.label>
      ) : null}
      {wrong ? (
        <Box mt="8px">
          <Wrong>{wrong}</Wrong>
        </Box>
      ) : null}
      {data.canEdit ? (
        <Flex gap="8px" mt="10px" wrap="wrap">
          {onLevel ? <Act onClick={onLevel}>Make a second level here</Act> : null}
          <Act onClick={() => void clear()}>Clear {titleOf(name)}</Act>
        </Flex>
      ) : null}
    </Box>
  );
}

function EmptyKey({ page, mode, name, onLevel }: Props) {
  const edits = useEdits();
  const { data, choices, modes } = page;
  const [does, setDoes] = useState<KeyAct | ''>('');
  const [refused, setRefused] = useState<string | null>(null);
  const promised = isOther(name) ? undefined : modes[mode].spoken.find((s) => s.key === name);
  const make = async (act: KeyAct, leadsTo: string | null) => {
    const id = uuid();
    const made = await edits.together(
      [
        {
          do: 'add',
          of: { kind: 'attendantKey', id },
          value: { id, attendant: String(data.object.id), mode, key: name, does: act, leadsTo },
        },
      ],
      `set ${titleOf(name)} of ${data.label} when ${mode}`,
    );
    setRefused(made.ok ? null : made.errors[0]!.sentence);
  };
  if (!data.canEdit) return <Box color="quiet">{OTHERWISE[name] ?? 'A wrong key.'}</Box>;
  return (
    <Box>
      {promised ? (
        <Box mb="8px" color="brick">
          The greeting says {name}
          {promised.what ? ` for ${promised.what}` : ''}; nothing is set.
        </Box>
      ) : null}
      <Flex gap="8px" wrap="wrap" align="flex-start">
        <ActBox
          name={name}
          value={does}
          disabled={false}
          onChange={(v) => (v === 'lead' || v === '' ? setDoes(v as KeyAct) : void make(v as KeyAct, null))}
        />
        <Box flex="1 1 220px" minW={0}>
          <PlacePicker
            aria-label={`Where ${titleOf(name)} leads`}
            value={null}
            nullable={false}
            placeholder="leads to …"
            options={choices.options.destination ?? []}
            long={choices.long.includes('destination')}
            site={data.object.site as string}
            onChange={(id) => id && void make('lead', id)}
          />
        </Box>
      </Flex>
      {refused ? (
        <Box mt="8px">
          <Wrong>{refused}</Wrong>
        </Box>
      ) : null}
      {onLevel ? (
        <Act mt="10px" onClick={onLevel}>
          Make a second level here
        </Act>
      ) : null}
    </Box>
  );
}
