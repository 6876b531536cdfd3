'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState, type ComponentProps } from 'react';
import { useWatch } from 'react-hook-form';
import type { Input } from '@/contract';
import type { OperationName } from '@/contract/paths';
import { Act, TextBox } from '@/ui/controls';
import { useRefresh } from '@/ui/refresh';
import { FormField } from './form-field';
import { useActForm } from './use-act-form';

/** One field and the button that sends it: a PIN, a password, a figure that acts at once. It is kept nowhere in the browser. */
export function OneFieldForm<N extends OperationName>({
  operation,
  input,
  id,
  title,
  note,
  act,
  done,
  first = '',
  may = true,
  empties = false,
  wrong,
  onDone,
  ...box
}: {
  operation: N;
  input: (value: string) => Input<N>;
  id: string;
  title: string;
  note?: string;
  /** what the button says */
  act: string;
  /** what is said once it is done */
  done: string;
  /** what stands there at first */
  first?: string;
  may?: boolean;
  /** nothing typed says something too */
  empties?: boolean;
  /** what is wrong with what is typed; null: nothing */
  wrong?: (value: string) => string | null;
  onDone?: () => void;
} & Omit<ComponentProps<typeof TextBox>, 'id' | 'title' | 'value' | 'onChange'>) {
  const refresh = useRefresh();
  const [said, setSaid] = useState(false);
  const { form, submit, busy, general, clear } = useActForm<N, { value: string }>({
    operation,
    checked: false,
    defaults: { value: first },
    input: ({ value }) => input(value),
    fieldOf: () => 'value',
    onMade: () => {
      setSaid(true);
      clear();
      refresh();
      onDone?.();
    },
  });
  const value = useWatch({ control: form.control, name: 'value' as never }) as unknown as string;
  const refused = value === '' ? null : (wrong?.(value) ?? null);
  return (
    <form
      noValidate
      onSubmit={(e) => {
        setSaid(false);
        void submit(e);
      }}
    >
      <Flex gap="8px" align="flex-start">
        <Box minW={0}>
          <FormField
            form={form}
            name={'value' as never}
            id={id}
            title={title}
            note={note}
            more={{ error: refused ?? general ?? undefined }}
          >
            {({ change, value: shown, ...rest }) => (
              <TextBox
                {...box}
                {...rest}
                value={shown as string}
                disabled={!may}
                onChange={(e) => change(e.target.value as never)}
              />
            )}
          </FormField>
        </Box>
        <Act mt="21px" type="submit" disabled={!may || busy || (value === '' && !empties) || refused !== null}>
          {act}
        </Act>
      </Flex>
      {said && value === first ? (
        <Box role="status" color="pine" fontSize="13px" mt="3px">
          {done}
        </Box>
      ) : null}
    </form>
  );
}
