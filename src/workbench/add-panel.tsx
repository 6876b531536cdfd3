'use client';

import { Box, Flex } from '@chakra-ui/react';
import { usePathname, useRouter } from 'next/navigation';
import { useState } from 'react';
import type { UseFormReturn } from 'react-hook-form';
import { v7 as uuid } from 'uuid';
import type { FieldFacts, ObjectKind } from '@/core/plan';
import { Act, Wrong } from '@/ui/controls';
import { useKinds } from '@/ui/kinds';
import { useEdits } from './edits';
import { FactBox } from './fact-box';
import { saidOf } from './fact-said';
import type { Option } from './form-data';
import { FormField } from './form-field';
import { LimitLines, type LimitUse } from './limit-lines';
import { useActForm } from './use-act-form';

type Values = Record<string, unknown>;

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
  const path = usePathname();
  const { pathOf, wordOf } = useKinds();
  const edits = useEdits();
  const [id] = useState(() => uuid());
  const word = wordOf(kind);
  const fields = facts.map((f) => f.field);
  const { form, submit, busy, general, clear } = useActForm<'edit', Values>({
    operation: 'edit',
    defaults: Object.fromEntries(facts.map((f) => [f.field, defaults[f.field] ?? ''])),
    input: (typed) => ({
      body: { edits: [{ kind, id, rowVersion: null, value: { ...finish(valueOf(facts, defaults, typed)), id } }] },
    }),
    send: ({ body }) => edits.together([{ do: 'add', of: { kind, id }, value: body.edits[0]!.value! }]),
    unsaid: (typed) =>
      facts
        .filter((f) => (f.ref || f.choices) && !f.nullable && !typed[f.field])
        .map((f) => ({ field: f.field, sentence: `${f.title} is not chosen yet.` })),
    fieldOf: (p) => {
      const field = p.replace(/^edits\.0\.value\.?/, '').split('.')[0]!;
      return fields.includes(field) ? field : null;
    },
    keep: { key: `${account} new ${kind}`, about: { title: `New ${word}`, path } },
    onMade: () => router.push(pathOf(kind, id)!),
  });
  return (
    <Box
      as="form"
      border="1px dashed"
      borderColor="plum"
      rounded="4px"
      p="12px"
      mb="14px"
      role="form"
      aria-label={`Add ${word}`}
      onSubmit={(e) => void submit(e)}
    >
      <LimitLines limits={limits} />
      <Flex gap="12px" align="flex-start" wrap="wrap">
        {facts.map((f) => (
          <Box key={f.field} flex="1" minW="140px" maxW="260px">
            <AddField form={form} fact={f} options={options} long={long} />
          </Box>
        ))}
        <Flex gap="8px" pt="19px">
          <Act look="main" type="submit">
            {busy ? 'Adding …' : `Add ${word}`}
          </Act>
          <Act
            onClick={() => {
              clear();
              onClose();
            }}
          >
            Cancel
          </Act>
        </Flex>
      </Flex>
      {general ? (
        <Box mt="8px">
          <Wrong>{general}</Wrong>
        </Box>
      ) : null}
    </Box>
  );
}

/** What was typed as values: nothing where nothing may stand, numbers as numbers. */
function valueOf(facts: readonly FieldFacts[], defaults: Values, typed: Values): Values {
  const said = facts.flatMap((f): [string, unknown][] => {
    const v = typed[f.field];
    if (v === '') return f.nullable ? [[f.field, null]] : f.ref || f.choices ? [] : [[f.field, '']];
    return [[f.field, saidOf(f, String(v))]];
  });
  return { ...defaults, ...Object.fromEntries(said) };
}

function AddField({
  form,
  fact,
  options,
  long,
}: {
  form: UseFormReturn<Values>;
  fact: FieldFacts;
  options: Record<string, Option[]>;
  long: readonly string[];
}) {
  return (
    <FormField
      form={form}
      name={fact.field}
      title={fact.title ?? fact.field}
      note={fact.description}
      id={`add-${fact.field}`}
    >
      {(control) => (
        <FactBox
          fact={fact}
          control={{ ...control, value: String(control.value ?? '') }}
          options={options[fact.ref ?? ''] ?? []}
          search={fact.ref && long.includes(fact.ref) ? fact.ref : undefined}
          unsaid={fact.ref || fact.choices ? 'choose' : ''}
        />
      )}
    </FormField>
  );
}
