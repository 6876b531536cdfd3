'use client';

import { Box, Flex, Grid } from '@chakra-ui/react';
import { Fragment } from 'react';
import type { FieldFacts } from '@/core/plan';
import { Act } from '@/ui/controls';
import type { ObjectEdit } from './edit';
import type { Option } from './form-data';
import { ValueText } from './value-text';

/** Two people edited the same thing: the later one sees both and chooses. */
export function ConflictPanel({
  edit,
  fields,
  options,
}: {
  edit: ObjectEdit;
  fields: FieldFacts[];
  options: Record<string, Option[]>;
}) {
  const { conflict } = edit;
  if (!conflict) return null;
  const rows = Object.keys(conflict.mine)
    .map((field) => fields.find((f) => f.field === field)!)
    .filter(Boolean);
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
        {conflict.sentence}
      </Box>
      <Grid templateColumns="auto 1fr 1fr" columnGap="18px" rowGap="6px" mb="12px" fontSize="13px">
        <Box color="quiet">Field</Box>
        <Box color="quiet">Yours</Box>
        <Box color="quiet">Theirs, in the draft now</Box>
        {rows.map((f) => (
          <Fragment key={f.field}>
            <Box>{f.title}</Box>
            <Box fontWeight={700}>
              <ValueText value={conflict.mine[f.field]} options={f.ref ? options[f.ref] : undefined} />
            </Box>
            <Box>
              {conflict.theirs ? (
                <ValueText value={conflict.theirs[f.field]} options={f.ref ? options[f.ref] : undefined} />
              ) : (
                'deleted'
              )}
            </Box>
          </Fragment>
        ))}
      </Grid>
      <Flex gap="8px">
        {conflict.theirs ? (
          <Act look="main" onClick={edit.keepMine}>
            Keep mine in these fields
          </Act>
        ) : null}
        <Act onClick={edit.takeTheirs}>Take theirs</Act>
      </Flex>
    </Box>
  );
}
