'use client';

import { Box } from '@chakra-ui/react';
import { useState } from 'react';
import { useKinds } from '@/ui/kinds';
import { Link } from '@/ui/link';
import { call } from './api';
import { ChoiceBox } from '@/ui/choice-box';
import { SelectBox } from '@/ui/controls';
import { PickList } from '@/ui/pick-list';
import type { Option } from './form-data';
import { useAsked } from './use-asked';

/** Lists this short are a plain choice; longer ones are found by typing. */
const SHORT = 12;

/** Where things of a kind are made, for those who find none to choose. */
const MADE_AT: Readonly<Record<string, string>> = {
  class: '/classes',
  extension: '/extensions/new',
  hours: '/hours',
  inboundRoute: '/inbound',
  ladder: '/outbound',
  mailbox: '/mailboxes',
  number: '/numbers/add',
  person: '/people/join',
  site: '/sites/new',
  team: '/teams',
  trunk: '/trunks/new',
};

interface PickerProps {
  /** what it chooses from, by its kind: said where there is none yet */
  kind?: string;
  id?: string;
  value: string | null;
  options: Option[];
  /** the list is too long to be here: more of it is found by typing, under this name */
  search?: string;
  nullable: boolean;
  disabled?: boolean;
  /** with its name, where it was found by typing */
  onChange: (id: string | null, name?: string) => void;
  onFocus?: () => void;
  placeholder?: string;
  'aria-label'?: string;
  'aria-invalid'?: true;
  'aria-describedby'?: string;
  'data-field'?: string;
}

/** Chooses one object of the plan: from a short list, or by typing. */
export function RefPicker({
  kind,
  value,
  options: given,
  search,
  nullable,
  onChange,
  placeholder,
  ...rest
}: PickerProps) {
  const { wordOf } = useKinds();
  const [typed, setTyped] = useState('');
  const found = useAsked(
    'options',
    search && typed !== '' ? { params: { target: search }, query: { text: typed.slice(0, MOST_TEXT) } } : null,
    { keep: true },
  );
  // What was chosen by typing is not among what the page brought.
  const [chosen, setChosen] = useState<Option | null>(null);
  const more = found.value?.options ?? [];
  const options = search ? [...given, ...more.filter((f) => !given.some((g) => g.id === f.id))] : given;
  if (!search && options.length === 0 && kind && MADE_AT[kind])
    return (
      <Box fontSize="13px" lineHeight="20px" py="6px" color="quiet" data-field={rest['data-field']}>
        There is no {wordOf(kind)} yet.{' '}
        <Link href={MADE_AT[kind]} style={{ textDecoration: 'underline' }}>
          Make one
        </Link>
      </Box>
    );
  // What has a glyph is chosen where the glyph can be seen.
  if (!search && options.length <= SHORT && !options.some((o) => o.kind))
    return (
      <SelectBox
        {...rest}
        value={value ?? ''}
        onChange={(e) => onChange(e.target.value === '' ? null : e.target.value)}
      >
        {nullable || value === null ? <option value="">{placeholder ?? 'none'}</option> : null}
        {options.map((o) => (
          <option key={o.id} value={o.id}>
            {o.label}
          </option>
        ))}
      </SelectBox>
    );
  return (
    <ChoiceBox
      {...rest}
      value={value}
      label={chosen?.id === value ? chosen?.label : undefined}
      choices={options}
      nullable={nullable}
      placeholder={placeholder ?? (nullable ? 'none' : 'type to find')}
      onType={search ? setTyped : undefined}
      find={search ? (text) => findIn(search, text) : undefined}
      onChange={(id) => {
        const option = options.find((o) => o.id === id) ?? null;
        setChosen(option);
        onChange(id, option?.label);
      }}
    />
  );
}

const MOST_TEXT = 100;

async function findIn(search: string, text: string): Promise<Option[]> {
  const got = await call('options', { params: { target: search }, query: { text: text.slice(0, MOST_TEXT) } });
  return got.ok ? got.value.options : [];
}

/** A list of objects, in the order that they were put in; more are added with the picker beneath. */
export function RefList({
  ids,
  options,
  search,
  disabled,
  ordered,
  label,
  onChange,
  onFocus,
}: {
  ids: string[];
  options: Option[];
  search?: string;
  disabled: boolean;
  /** the order says something */
  ordered: boolean;
  label: string;
  onChange: (ids: string[]) => void;
  onFocus?: () => void;
}) {
  // What was added by typing is not among what the page brought.
  const [added, setAdded] = useState<Record<string, string>>({});
  const nameOf = (id: string) => options.find((o) => o.id === id)?.label ?? added[id] ?? id;
  return (
    <PickList
      items={ids.map((id) => ({ id, name: nameOf(id) }))}
      label={label}
      disabled={disabled}
      ordered={ordered}
      onChange={onChange}
      onFocus={onFocus}
    >
      <RefPicker
        aria-label={`Add to ${label}`}
        value={null}
        nullable
        placeholder={ids.length === 0 ? 'none; add one' : 'add one'}
        search={search}
        options={options.filter((o) => !ids.includes(o.id))}
        onChange={(id, name) => {
          if (id === null || ids.includes(id)) return;
          setAdded({ ...added, [id]: name ?? id });
          onChange([...ids, id]);
        }}
      />
    </PickList>
  );
}
