'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { call } from './api';
import { ChoiceBox } from '@/ui/choice-box';
import { Act, SelectBox } from '@/ui/controls';
import type { Option } from './form-data';
import { useAsked } from './use-asked';

/** Lists this short are a plain choice; longer ones are found by typing. */
const SHORT = 12;

interface PickerProps {
  id?: string;
  value: string | null;
  options: Option[];
  /** the list is too long to be here: more of it is found by typing, under this name */
  search?: string;
  nullable: boolean;
  disabled?: boolean;
  onChange: (id: string | null) => void;
  onFocus?: () => void;
  placeholder?: string;
  'aria-label'?: string;
  'aria-invalid'?: true;
  'aria-describedby'?: string;
  'data-field'?: string;
}

/** Chooses one object of the plan: from a short list, or by typing. */
export function RefPicker({ value, options: given, search, nullable, onChange, placeholder, ...rest }: PickerProps) {
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
  if (!search && options.length <= SHORT)
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
        setChosen(options.find((o) => o.id === id) ?? null);
        onChange(id);
      }}
    />
  );
}

const MOST_TEXT = 100;

async function findIn(search: string, text: string): Promise<Option[]> {
  const got = await call('options', { params: { target: search }, query: { text: text.slice(0, MOST_TEXT) } });
  return got.ok ? got.value.options : [];
}

/** An ordered list of objects: moved and removed with buttons, added with the picker beneath. */
export function RefList({
  ids,
  options,
  search,
  disabled,
  label,
  onChange,
  onFocus,
}: {
  ids: string[];
  options: Option[];
  search?: string;
  disabled: boolean;
  label: string;
  onChange: (ids: string[]) => void;
  onFocus?: () => void;
}) {
  const labelOf = (id: string) => options.find((o) => o.id === id)?.label ?? id;
  const swap = (i: number, j: number) => onChange(ids.map((id, k) => (k === i ? ids[j]! : k === j ? ids[i]! : id)));
  const small = { h: '24px', px: '7px', disabled };
  return (
    <Box border="1px solid" borderColor="line" rounded="4px" bg="raised" onFocus={onFocus}>
      {ids.map((id, i) => (
        <Flex key={id} align="center" gap="4px" px="8px" h="32px" borderBottom="1px solid" borderColor="line">
          <Box color="quiet" w="18px" fontSize="12px">
            {i + 1}
          </Box>
          <Box flex="1" minW={0} overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
            {labelOf(id)}
          </Box>
          {disabled ? null : (
            <>
              <Act {...small} aria-label={`Move ${labelOf(id)} up`} disabled={i === 0} onClick={() => swap(i, i - 1)}>
                ↑
              </Act>
              <Act
                {...small}
                aria-label={`Move ${labelOf(id)} down`}
                disabled={i === ids.length - 1}
                onClick={() => swap(i, i + 1)}
              >
                ↓
              </Act>
              <Act
                {...small}
                aria-label={`Remove ${labelOf(id)}`}
                onClick={() => onChange(ids.filter((x) => x !== id))}
              >
                ✕
              </Act>
            </>
          )}
        </Flex>
      ))}
      {disabled ? (
        ids.length === 0 ? (
          <Box px="8px" py="5px" color="quiet">
            none
          </Box>
        ) : null
      ) : (
        <Box p="4px">
          <RefPicker
            aria-label={`Add to ${label}`}
            value={null}
            nullable
            placeholder={ids.length === 0 ? 'none; add one' : 'add one'}
            search={search}
            options={options.filter((o) => !ids.includes(o.id))}
            onChange={(id) => id && onChange([...ids, id])}
          />
        </Box>
      )}
    </Box>
  );
}
