'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useId } from 'react';
import type { FieldFacts } from '@/core/plan';
import { compileDigitMap, countDialable, mapInWords } from '@/core/digits';
import { AreaBox, Labelled, SelectBox, TextBox, TickBox } from '@/ui/controls';
import { MapText } from '@/ui/digits';
import { useFocusNote } from '@/ui/workspace';
import { choiceWords } from './choices';
import { bigCount } from './count';
import type { ObjectEdit } from './edits';
import type { Option } from './form-data';
import { RefList, RefPicker } from './ref-picker';

const MAP_FIELDS = new Set(['map', 'calledMap', 'callingMap', 'blockedCallers']);
const MONO_FIELDS = new Set([
  'digits',
  'e164',
  'from',
  'to',
  'area',
  'outsidePrefix',
  'siteCode',
  'prepend',
  'deliveredHead',
  'carrierPrefix',
  'host',
  'account',
]);

interface ControlProps {
  fact: FieldFacts;
  edit: ObjectEdit;
  options: Record<string, Option[]>;
  long?: readonly string[];
  disabled: boolean;
}

/** The control of one field, from what the schema knows of it. Leaving it makes the draft edit. */
export function FieldControl({ fact, edit, options, long = [], disabled }: ControlProps) {
  const id = useId();
  const note = useFocusNote(fact.title, fact.description);
  const { field } = fact;
  const value = edit.value[field];
  // The reader knows the field by its title, not by its name in the plan.
  const error = edit.errorOf(field)?.replace(new RegExp(`^${field}\\b`), fact.title ?? field) ?? null;
  const typed =
    edit.pending.includes(field) && !error ? (
      <Box as="span" color="saffronText">
        {' '}
        · typed, not in the draft yet
      </Box>
    ) : null;
  const title = (
    <>
      {fact.title}
      {typed}
    </>
  );
  const common = { id, disabled, 'aria-invalid': error ? true : undefined, 'data-field': field, ...note } as const;
  const commit = () => void edit.commit();

  if (fact.type === 'boolean')
    return (
      <Flex as="label" gap="8px" align="center" minH="32px" mt="18px">
        <TickBox
          type="checkbox"
          {...common}
          checked={Boolean(value)}
          onChange={(e) => edit.choose(field, e.target.checked)}
        />
        <span>{title}</span>
      </Flex>
    );
  if (fact.choices)
    return (
      <Labelled title={title} htmlFor={id} error={error}>
        <SelectBox {...common} value={String(value)} onChange={(e) => edit.choose(field, e.target.value)}>
          {fact.choices.map((c) => (
            <option key={c} value={c}>
              {choiceWords(c)}
            </option>
          ))}
        </SelectBox>
      </Labelled>
    );
  if (fact.ref && fact.many)
    return (
      <Labelled title={title} error={error}>
        <RefList
          ids={value as string[]}
          options={options[fact.ref] ?? []}
          search={long.includes(fact.ref) ? fact.ref : undefined}
          disabled={disabled}
          label={fact.title ?? field}
          onFocus={note.onFocus}
          onChange={(next) => edit.choose(field, next)}
        />
      </Labelled>
    );
  if (fact.ref)
    return (
      <Labelled title={title} htmlFor={id} error={error}>
        <RefPicker
          {...common}
          value={value as string | null}
          options={options[fact.ref] ?? []}
          search={long.includes(fact.ref) ? fact.ref : undefined}
          nullable={fact.nullable}
          onChange={(next) => edit.choose(field, next)}
        />
      </Labelled>
    );
  if (field === 'note')
    return (
      <Labelled title={title} htmlFor={id} error={error}>
        <AreaBox
          {...common}
          value={String(value ?? '')}
          onChange={(e) => edit.set(field, e.target.value)}
          onBlur={commit}
        />
      </Labelled>
    );
  const isMap = MAP_FIELDS.has(field);
  return (
    <Labelled
      title={title}
      htmlFor={id}
      error={error}
      hint={isMap && value && !error ? <MapHint map={String(value)} /> : undefined}
    >
      <TextBox
        {...common}
        fontFamily={isMap || MONO_FIELDS.has(field) ? 'mono' : undefined}
        inputMode={fact.type === 'number' ? 'numeric' : undefined}
        value={value === null || value === undefined ? '' : String(value)}
        onChange={(e) => edit.set(field, fromText(fact, e.target.value))}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === 'Enter') commit();
        }}
      />
    </Labelled>
  );
}

function fromText(fact: FieldFacts, text: string): unknown {
  if (text === '' && fact.nullable) return null;
  if (fact.type !== 'number') return text;
  return /^-?[0-9]+(\.[0-9]+)?$/.test(text) ? Number(text) : text;
}

/** A map said in words and counted while it is typed, or where it is wrong. */
function MapHint({ map }: { map: string }) {
  const read = compileDigitMap(map);
  if (!read.ok) return <Box color="brick">{read.error.sentence}</Box>;
  return (
    <>
      <MapText map={map} /> says: {mapInWords(read.compiled.map)}; takes{' '}
      {bigCount(String(countDialable(read.compiled.automaton)))}.
    </>
  );
}
