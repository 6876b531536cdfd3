'use client';

import { Box, Flex, Grid } from '@chakra-ui/react';
import { useState } from 'react';
import type { Input } from '@/contract';
import type { LimitName } from '@/core/acts/limits';
import { call } from '@/workbench/api';
import { Act, Labelled, TextBox } from '@/ui/controls';
import { useRefresh } from '@/ui/refresh';

/** The limits of the organisation with what is used; empty is no limit. */
export function LimitsPart({
  limits,
  words,
  used,
  may,
}: {
  limits: Record<LimitName, number | null>;
  words: Record<LimitName, string>;
  used: Record<LimitName, number>;
  may: boolean;
}) {
  const refresh = useRefresh();
  const names = Object.keys(limits) as LimitName[];
  const [typed, setTyped] = useState(
    Object.fromEntries(names.map((l) => [l, limits[l] === null ? '' : String(limits[l])])) as Record<LimitName, string>,
  );
  const [said, setSaid] = useState<string | null>(null);
  const save = async () => {
    const body = Object.fromEntries(
      names.map((l) => [l, typed[l] === '' ? null : Number(typed[l])]),
    ) as Input<'setLimits'>['body'];
    const done = await call('setLimits', { body });
    setSaid(done.ok ? 'They hold from now on; what is there already stays.' : done.errors[0]!.sentence);
    refresh();
  };
  return (
    <Box>
      <Grid templateColumns="repeat(auto-fill, minmax(200px, 1fr))" gap="12px" mb="10px">
        {names.map((l) => (
          <Labelled key={l} title={words[l]} htmlFor={`limit-${l}`} hint={`${used[l]} in the draft`}>
            <TextBox
              id={`limit-${l}`}
              inputMode="numeric"
              placeholder="no limit"
              disabled={!may}
              value={typed[l]}
              onChange={(e) => setTyped({ ...typed, [l]: e.target.value.replace(/\D/g, '') })}
            />
          </Labelled>
        ))}
      </Grid>
      {may ? (
        <Flex gap="10px" align="center">
          <Act onClick={save}>Set limits</Act>
          <Box role="status" color="quiet" fontSize="13px">
            {said}
          </Box>
        </Flex>
      ) : null}
    </Box>
  );
}
