'use client';

import { Box, Flex, Grid } from '@chakra-ui/react';
import { useState } from 'react';
import type { Input } from '@/contract';
import type { LimitName } from '@/core/acts/limits';
import { Act, Wrong } from '@/ui/controls';
import { FigureBox } from '@/ui/figure-box';
import { useRefresh } from '@/ui/refresh';
import { useAccount } from '@/workbench/edits';
import { FormField } from '@/workbench/form-field';
import { useActForm } from '@/workbench/use-act-form';

type Typed = Record<LimitName, string>;

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
  const account = useAccount();
  const names = Object.keys(limits) as LimitName[];
  const [set, setSet] = useState(false);
  const { form, submit, busy, general, touched, clear } = useActForm<'setLimits', Typed>({
    operation: 'setLimits',
    defaults: Object.fromEntries(names.map((l) => [l, limits[l] === null ? '' : String(limits[l])])) as Typed,
    input: (typed) => ({ body: bodyOf(typed) }),
    keep: { key: `${account} limits`, about: { title: 'Limits of the organisation', path: '/settings' } },
    onMade: (_, typed) => {
      clear(typed);
      setSet(true);
      refresh();
    },
  });
  return (
    <form
      noValidate
      onSubmit={(e) => {
        setSet(false);
        void submit(e);
      }}
    >
      <Grid templateColumns="repeat(auto-fill, minmax(200px, 1fr))" gap="12px" mb="10px">
        {names.map((l) => (
          <FormField
            key={l}
            form={form}
            name={l}
            id={`limit-${l}`}
            title={words[l]}
            more={{ hint: `${used[l]} in the draft` }}
          >
            {({ change, onBlur, name: _name, ref: _ref, ...rest }) => (
              <FigureBox
                {...rest}
                title={words[l]}
                placeholder="no limit"
                disabled={!may}
                onChange={change}
                onLeave={onBlur}
              />
            )}
          </FormField>
        ))}
      </Grid>
      {general ? <Wrong>{general}</Wrong> : null}
      {may ? (
        <Flex gap="10px" align="center">
          <Act type="submit" disabled={busy || !touched}>
            Set limits
          </Act>
          {touched ? <Act onClick={() => clear()}>Clear what was typed</Act> : null}
          <Box role="status" color="quiet" fontSize="13px">
            {set && !touched ? 'They hold from now on; what is there already stays.' : null}
          </Box>
        </Flex>
      ) : null}
    </form>
  );
}

/** Figures as numbers, empty as no limit; what is no figure goes as it was typed, and is refused where it is read. */
const bodyOf = (typed: Typed) =>
  Object.fromEntries(
    Object.entries(typed).map(([l, text]) => [l, text.trim() === '' ? null : /^\d+$/.test(text) ? Number(text) : text]),
  ) as Input<'setLimits'>['body'];
