'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useEffect, useId, useState } from 'react';
import { call } from './api';
import { Act, SelectBox, TextBox } from '@/ui/controls';
import type { Option } from './form-data';

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
  'data-field'?: string;
}

/** Chooses one object of the plan. */
export function RefPicker({ value, options: given, search, nullable, onChange, placeholder, ...rest }: PickerProps) {
  const listId = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const found = useFound(search, typed);
  const options = search ? [...given, ...found.filter((f) => !given.some((g) => g.id === f.id))] : given;
  const current = options.find((o) => o.id === value)?.label ?? '';
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
  const settle = (text: string) => {
    const wanted = text.trim().toLowerCase();
    if (wanted === '' && nullable) {
      setTyped(null);
      if (value !== null) onChange(null);
      return;
    }
    const exact = options.find((o) => o.label.toLowerCase() === wanted);
    const starting = options.filter((o) => o.label.toLowerCase().startsWith(wanted));
    const one = exact ?? (starting.length === 1 ? starting[0] : undefined);
    if (!one) return;
    setTyped(null);
    if (one.id !== value) onChange(one.id);
  };
  const unknown = typed !== null && typed.trim() !== '';
  return (
    <Box>
      <TextBox
        {...rest}
        list={listId}
        value={typed ?? current}
        placeholder={placeholder ?? (nullable ? 'none' : 'type to find')}
        onChange={(e) => {
          setTyped(e.target.value);
          if (options.some((o) => o.label === e.target.value)) settle(e.target.value);
        }}
        onBlur={(e) => settle(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Enter') settle(e.currentTarget.value);
          if (e.key === 'Escape') setTyped(null);
        }}
      />
      <datalist id={listId}>
        {options.map((o) => (
          <option key={o.id} value={o.label} />
        ))}
      </datalist>
      {unknown && !options.some((o) => o.label.toLowerCase().includes(typed.trim().toLowerCase())) ? (
        <Box color="brick" fontSize="13px" mt="3px">
          Nothing is called “{typed}”; choose one of the list.
        </Box>
      ) : null}
    </Box>
  );
}

const SEARCH_AFTER_MS = 120;

/** Options found on the server for what is typed, where the list is too long to be here. */
function useFound(search: string | undefined, typed: string | null): Option[] {
  const [found, setFound] = useState<Option[]>([]);
  useEffect(() => {
    if (!search || typed === null) return;
    const aborter = new AbortController();
    const timer = setTimeout(async () => {
      const got = await call(
        'options',
        { params: { target: search }, query: { text: typed.slice(0, 100) } },
        aborter.signal,
      );
      if (got.ok) setFound(got.value.options);
    }, SEARCH_AFTER_MS);
    return () => {
      clearTimeout(timer);
      aborter.abort();
    };
  }, [search, typed]);
  return found;
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
