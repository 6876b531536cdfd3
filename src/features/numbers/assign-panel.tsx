'use client';

import { Box, Flex } from '@chakra-ui/react';
import { Controller, useWatch } from 'react-hook-form';
import { Act, SelectBox, Wrong } from '@/ui/controls';
import { useRefresh } from '@/ui/refresh';
import { useActForm } from '@/workbench/use-act-form';
import { useAsked } from '@/workbench/use-asked';

type How = 'last digits' | 'order';

/** Gives chosen numbers to extensions of their sites that have none: which to whom is shown first. */
export function AssignPanel({ numbers, onClose }: { numbers: string[]; onClose: () => void }) {
  const refresh = useRefresh();
  const { form, submit, busy, general } = useActForm<'assignNumbers', { how: How }>({
    operation: 'assignNumbers',
    defaults: { how: 'last digits' },
    input: ({ how }) => ({ body: { numbers, how } }),
    onMade: () => {
      refresh();
      onClose();
    },
  });
  const how = useWatch({ control: form.control, name: 'how' });
  const asked = useAsked('assignPreview', { body: { numbers, how } }, { keep: true });
  const preview = asked.value;
  const wrong = general ?? asked.wrong;
  return (
    <Box
      as="form"
      onSubmit={(e) => void submit(e)}
      border="1px dashed"
      borderColor="plum"
      rounded="4px"
      p="14px"
      mb="14px"
      role="form"
      aria-label="Assign numbers"
      data-shows={asked.waiting ? undefined : how}
    >
      <Flex gap="10px" align="center" wrap="wrap" mb="10px">
        <b>
          Give {numbers.length} {numbers.length === 1 ? 'number' : 'numbers'} to people who have none
        </b>
        <Controller
          control={form.control}
          name="how"
          render={({ field }) => (
            <SelectBox aria-label="How to match" w="auto" {...field}>
              <option value="last digits">by matching last digits</option>
              <option value="order">in their order</option>
            </SelectBox>
          )}
        />
        <Act ml="auto" onClick={onClose}>
          Close
        </Act>
      </Flex>
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      {preview ? (
        <>
          <Box
            maxH="220px"
            overflow="auto"
            border="1px solid"
            borderColor="line"
            rounded="4px"
            bg="raised"
            mb="8px"
            tabIndex={0}
          >
            {preview.pairs.length === 0 ? (
              <Box p="10px" color="quiet">
                No number finds an extension this way.
              </Box>
            ) : null}
            {preview.pairs.map((p) => (
              <Flex key={p.number} gap="16px" px="10px" h="26px" align="center" fontSize="13px">
                <Box w="160px" fontFamily="mono">
                  {p.number}
                </Box>
                → {p.extension}
              </Flex>
            ))}
          </Box>
          {preview.left.slice(0, 6).map((l) => (
            <Box key={l} fontSize="13px" color="quiet">
              {l}
            </Box>
          ))}
          {preview.pairs.length > 0 ? (
            <Act mt="8px" look="main" type="submit" disabled={busy || asked.waiting}>
              Give these {preview.pairs.length}
            </Act>
          ) : null}
        </>
      ) : null}
    </Box>
  );
}
