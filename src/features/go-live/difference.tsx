'use client';

import { Box, Grid, chakra } from '@chakra-ui/react';
import { Link } from '@/ui/link';
import { Fragment } from 'react';
import type { DifferenceFacts } from '@/contract/plan';
import { valueWords } from '@/core/plan/facts/value-words';
import { useKinds } from '@/ui/kinds';

export type DifferenceData = DifferenceFacts;

/** One object that differs, field by field: was and will be. */
export function DifferenceView({
  edit,
  labels,
  aside,
}: {
  edit: DifferenceData;
  labels: Record<string, string>;
  aside?: React.ReactNode;
}) {
  const { pathOf } = useKinds();
  const href = edit.after ? pathOf(edit.kind, edit.id) : null;
  const isNew = edit.before === null;
  const gone = edit.after === null;
  const fields = isNew || gone ? edit.fields.filter((f) => meaningful(isNew ? f.after : f.before)) : edit.fields;
  return (
    <Box borderTop="1px solid" borderColor="line" py="10px" data-testid="difference">
      <Box display="flex" alignItems="center" gap="8px" flexWrap="wrap" mb="4px">
        <chakra.b>{href ? <Link href={href}>{edit.label}</Link> : edit.label}</chakra.b>
        <chakra.span color="quiet">{edit.word}</chakra.span>
        {isNew ? (
          <chakra.span bg="saffron" color="saffronInk" rounded="3px" px="5px" fontSize="12px">
            new
          </chakra.span>
        ) : null}
        {gone ? (
          <chakra.span
            bg="brickTint"
            color="brick"
            border="1px solid"
            borderColor="brick"
            rounded="3px"
            px="5px"
            fontSize="12px"
          >
            deleted
          </chakra.span>
        ) : null}
        <Box ml="auto" display="flex" alignItems="center" gap="10px" fontSize="13px" color="quiet">
          {aside}
        </Box>
      </Box>
      <Grid templateColumns={{ base: '1fr', md: '150px 1fr 1fr' }} columnGap="14px" rowGap="2px" fontSize="13px">
        {fields.map((f) => (
          <Fragment key={f.field}>
            <Box color="quiet">{f.title}</Box>
            <Box color="quiet" textDecoration={isNew ? undefined : 'line-through'} overflowWrap="anywhere">
              {isNew ? '' : valueWords(f.field, onlyChanged(f.before, f.after), (id) => labels[id])}
            </Box>
            <Box overflowWrap="anywhere" fontWeight={gone ? 400 : 700}>
              {gone ? '' : valueWords(f.field, onlyChanged(f.after, f.before), (id) => labels[id])}
            </Box>
          </Fragment>
        ))}
      </Grid>
    </Box>
  );
}

const meaningful = (v: unknown) => v !== null && v !== '' && v !== false && !(Array.isArray(v) && v.length === 0);

/** Of a record such as a class's rights, only the entries that differ. */
function onlyChanged(value: unknown, other: unknown): unknown {
  if (!isRecord(value) || !isRecord(other)) return value;
  return Object.fromEntries(Object.entries(value).filter(([k, v]) => JSON.stringify(v) !== JSON.stringify(other[k])));
}

const isRecord = (v: unknown): v is Record<string, unknown> => typeof v === 'object' && v !== null && !Array.isArray(v);
