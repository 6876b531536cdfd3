'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
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
import { newKey, type AttendantData, type KeyShown } from './data';
import type { AttendantKey } from '@/core/plan';

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

/**
 * One key of a mode: what it does, and where it leads. What is chosen stands there at once; the page brings it when the draft
 * has it.
 */
export function KeyPanel(props: Props) {
  const edits = useEdits();
  const { page, mode, name, onLevel } = props;
  const [made, setMade] = useState<KeyShown | null>(null);
  const [gone, setGone] = useState<ReadonlySet<string>>(new Set());
  const [refused, setRefused] = useState<string | null>(null);
  // Once the page has brought it, what the page says holds.
  if (made && props.shown?.value.id === made.value.id) setMade(null);
  const shown = [props.shown, made].find((k) => k && !gone.has(k.value.id)) ?? null;
  const make = async (does: KeyAct, leadsTo: string | null) => {
    const edit = newKey(String(page.data.object.id), mode, name, { does, leadsTo, silent: true, note: '' });
    setRefused(null);
    setMade({ value: edit.value as AttendantKey, rowVersion: 0, mark: 'new' });
    const sent = await edits.together([edit], `set ${titleOf(name)} of ${page.data.label} when ${mode}`);
    if (sent.ok) return;
    setMade(null);
    setRefused(sent.errors[0]!.sentence);
  };
  const clear = async ({ value, rowVersion }: KeyShown) => {
    setRefused(null);
    setGone((ids) => new Set([...ids, value.id]));
    const sent = await edits.together(
      [{ do: 'remove', of: { kind: 'attendantKey', id: value.id }, base: { object: { ...value }, rowVersion } }],
      `cleared ${titleOf(name)} of ${page.data.label} when ${mode}`,
    );
    if (sent.ok) return;
    setGone((ids) => new Set([...ids].filter((id) => id !== value.id)));
    setRefused(sent.errors[0]!.sentence);
  };
  return (
    <Box>
      {shown ? (
        <SetKey {...props} shown={shown} />
      ) : (
        <EmptyKey {...props} onMake={(does, leadsTo) => void make(does, leadsTo)} />
      )}
      {refused ? (
        <Box mt="8px">
          <Wrong>{refused}</Wrong>
        </Box>
      ) : null}
      {page.data.canEdit && (shown || onLevel) ? (
        <Flex gap="8px" mt="10px" wrap="wrap">
          {onLevel ? <Act onClick={onLevel}>Make a second level here</Act> : null}
          {shown ? <Act onClick={() => void clear(shown)}>Clear {titleOf(name)}</Act> : null}
        </Flex>
      ) : null}
    </Box>
  );
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

function SetKey({ page, name, shown }: Props & { shown: KeyShown }) {
  const { data, choices } = page;
  const { value } = shown;
  const edit: ObjectEdit = useEdits().of({
    kind: 'attendantKey',
    object: { ...value },
    rowVersion: shown.rowVersion,
    label: `${titleOf(name)} of ${data.label}`,
    titles: useTitles(page.keyFields),
  });
  const [leadsAt, setLeadsAt] = useState(false);
  /** What it does and where it leads are one edit. */
  const choose = (does: KeyAct, leadsTo: string | null) => {
    setLeadsAt(false);
    edit.set('does', does);
    edit.set('leadsTo', leadsTo);
    void edit.commit();
  };
  // A key that leads needs to know where: it is asked before anything changes.
  const does = (next: KeyAct) => (next === 'lead' ? setLeadsAt(true) : choose(next, null));
  const leads = (id: string | null) => {
    if (id !== null) choose('lead', id);
  };
  const now = leadsAt ? 'lead' : (edit.value.does as KeyAct);
  const wrong = edit.general ?? edit.errorOf('leadsTo') ?? edit.errorOf('does');
  return (
    <Box>
      <ConflictPanel edit={edit} fields={page.keyFields} options={choices.options} />
      <Flex gap="8px" wrap="wrap" align="flex-start">
        <ActBox name={name} value={now} disabled={!data.canEdit} onChange={(v) => does(v as KeyAct)} />
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
              onChange={leads}
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
    </Box>
  );
}

function EmptyKey({ page, mode, name, onMake }: Props & { onMake: (does: KeyAct, leadsTo: string | null) => void }) {
  const { data, choices, modes } = page;
  const [does, setDoes] = useState<KeyAct | ''>('');
  const promised = isOther(name) ? undefined : modes[mode].spoken.find((s) => s.key === name);
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
          onChange={(v) => (v === 'lead' || v === '' ? setDoes(v as KeyAct) : onMake(v as KeyAct, null))}
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
            onChange={(id) => id && onMake('lead', id)}
          />
        </Box>
      </Flex>
    </Box>
  );
}
