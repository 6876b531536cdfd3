'use client';

import { Box, Flex, Grid } from '@chakra-ui/react';
import { Fragment } from 'react';
import type { FieldFacts } from '@/core/plan';
import { valueWords } from '@/core/plan/facts/value-words';
import { Act } from '@/ui/controls';
import type { ObjectEdit } from './edits';
import { nameIn, type Option } from './form-data';

/** Two people edited the same field: the later one sees both and chooses. What they edited in others stands already. */
export function ConflictPanel({
  edit,
  fields,
  options,
}: {
  edit: ObjectEdit;
  fields: FieldFacts[];
  options: Record<string, Option[]>;
}) {
  const { contested, gone } = edit;
  const who = edit.by ?? 'Somebody';
  const named = gone ? edit.pending : Object.keys(contested);
  if (named.length === 0) return null;
  const said = (f: FieldFacts, value: unknown) => valueWords(f.field, value, nameIn(options[f.ref ?? '']));
  const rows = named.map((field) => fields.find((f) => f.field === field)!).filter(Boolean);
  return (
    <Box
      role="alertdialog"
      aria-label="Edited meanwhile"
      data-testid="conflict"
      border="1px solid"
      borderColor="brick"
      bg="brickTint"
      rounded="4px"
      p="14px"
      mb="16px"
    >
      <Box fontWeight={700} mb="8px">
        {gone
          ? `${who} has deleted this meanwhile; what you typed is kept here.`
          : `${who} has changed ${rows.length === 1 ? rows[0]!.title : 'the same fields'} meanwhile; compare both and choose.`}
      </Box>
      <Grid templateColumns="auto 1fr 1fr" columnGap="18px" rowGap="6px" mb="12px" fontSize="13px">
        <Box color="quiet">Field</Box>
        <Box color="quiet">Yours</Box>
        <Box color="quiet">Theirs, in the draft now</Box>
        {rows.map((f) => (
          <Fragment key={f.field}>
            <Box>{f.title}</Box>
            <Box fontWeight={700}>{said(f, edit.value[f.field])}</Box>
            <Box>{gone ? 'deleted' : said(f, contested[f.field]!.theirs)}</Box>
          </Fragment>
        ))}
      </Grid>
      <Flex gap="8px">
        {gone ? null : (
          <Act look="main" onClick={edit.keepMine}>
            Keep mine in these fields
          </Act>
        )}
        <Act onClick={edit.takeTheirs}>{gone ? 'Throw away what I typed' : 'Take theirs'}</Act>
      </Flex>
    </Box>
  );
}
