'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import type { FieldFacts, ObjectKind } from '@/core/plan';
import { call } from './api';
import { Act, Labelled, SelectBox, TextBox, Wrong } from '@/ui/controls';
import { useKept } from '@/ui/kept';
import { useFocusNote } from '@/ui/workspace';
import { LimitLines, type LimitUse } from './limit-lines';
import { choiceWords } from './choices';
import type { Option } from './form-data';
import { useKinds } from '@/ui/kinds';
import { RefPicker } from './ref-picker';

interface AddProps {
  kind: ObjectKind;
  account: string;
  /** what must be said; the rest is set on the object's page */
  facts: FieldFacts[];
  options: Record<string, Option[]>;
  /** targets whose options are found by typing */
  long?: readonly string[];
  /** what is left of what may be added, read before the first field */
  limits?: readonly LimitUse[];
  /** values that come proposed */
  defaults?: Record<string, unknown>;
  /** last word on the values, such as a place in a list */
  finish?: (value: Record<string, unknown>) => Record<string, unknown>;
  onClose: () => void;
}

/** Adds an object with the few things that must be said, then opens its page. What is typed stays until then. */
export function AddPanel({
  kind,
  account,
  facts,
  options,
  long = [],
  limits = [],
  defaults = {},
  finish = (v) => v,
  onClose,
}: AddProps) {
  const router = useRouter();
  const { pathOf, wordOf } = useKinds();
  const word = wordOf(kind);
  const [kept, setKept] = useKept<Record<string, unknown>>(`${account} new ${kind}`);
  const [errors, setErrors] = useState<{ path: string; sentence: string }[]>([]);
  const value: Record<string, unknown> = { ...defaults, ...kept };
  const add = async () => {
    const unsaid = facts.filter((f) => (f.ref || f.choices) && !f.nullable && !value[f.field]);
    if (unsaid.length > 0)
      return setErrors(unsaid.map((f) => ({ path: f.field, sentence: `${f.title} is not chosen yet.` })));
    const id = uuid();
    const made = await call('edit', {
      body: { edits: [{ kind, id, rowVersion: null, value: { ...finish(value), id } }] },
    });
    if (!made.ok) return setErrors(made.errors.map((e) => ({ ...e, path: e.path.replace(/^edits\.0\.value\.?/, '') })));
    setKept(null);
    router.push(pathOf(kind, id)!);
    router.refresh();
  };
  const elsewhere = errors.find((e) => !facts.some((f) => f.field === e.path.split('.')[0]));
  return (
    <Box border="1px dashed" borderColor="plum" rounded="4px" p="12px" mb="14px" role="form" aria-label={`Add ${word}`}>
      <LimitLines limits={limits} />
      <Flex gap="12px" align="flex-start" wrap="wrap">
        {facts.map((f) => (
          <AddField
            key={f.field}
            fact={f}
            options={options}
            long={long}
            value={value[f.field]}
            error={errors.find((e) => e.path.split('.')[0] === f.field)?.sentence ?? null}
            onChange={(v) => setKept({ ...kept, [f.field]: v })}
            onEnter={add}
          />
        ))}
        <Flex gap="8px" pt="19px">
          <Act look="main" onClick={add}>
            Add {word}
          </Act>
          <Act
            onClick={() => {
              setKept(null);
              onClose();
            }}
          >
            Give up
          </Act>
        </Flex>
      </Flex>
      {elsewhere ? (
        <Box mt="8px">
          <Wrong>{elsewhere.sentence}</Wrong>
        </Box>
      ) : null}
    </Box>
  );
}

function AddField({
  fact,
  options,
  long,
  value,
  error,
  onChange,
  onEnter,
}: {
  fact: FieldFacts;
  options: Record<string, Option[]>;
  long: readonly string[];
  value: unknown;
  error: string | null;
  onChange: (v: unknown) => void;
  onEnter: () => void;
}) {
  const note = useFocusNote(fact.title, fact.description);
  const id = `add-${fact.field}`;
  const common = { id, ...note, 'aria-invalid': error ? true : undefined } as const;
  return (
    <Box flex="1" minW="140px" maxW="260px">
      <Labelled title={fact.title} htmlFor={id} error={error}>
        {fact.ref ? (
          <RefPicker
            {...common}
            value={(value as string | undefined) ?? null}
            nullable={fact.nullable}
            options={options[fact.ref] ?? []}
            search={long.includes(fact.ref) ? fact.ref : undefined}
            onChange={onChange}
            placeholder="choose"
          />
        ) : fact.choices ? (
          <SelectBox {...common} value={String(value ?? '')} onChange={(e) => onChange(e.target.value)}>
            <option value="">choose</option>
            {fact.choices.map((c) => (
              <option key={c} value={c}>
                {choiceWords(c)}
              </option>
            ))}
          </SelectBox>
        ) : (
          <TextBox
            {...common}
            value={value === undefined || value === null ? '' : String(value)}
            onChange={(e) =>
              onChange(
                fact.type === 'number' && /^[0-9]+$/.test(e.target.value) ? Number(e.target.value) : e.target.value,
              )
            }
            onKeyDown={(e) => e.key === 'Enter' && onEnter()}
          />
        )}
      </Labelled>
    </Box>
  );
}
