'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { Answer } from '@/contract';
import { call } from '@/workbench/api';
import { Act, SelectBox, Wrong } from '@/ui/controls';
import { useRefresh } from '@/ui/refresh';

/** Gives chosen numbers to extensions of their sites that have none: which to whom is shown first. */
export function AssignPanel({ numbers, onClose }: { numbers: string[]; onClose: () => void }) {
  const refresh = useRefresh();
  const [how, setHow] = useState<'last digits' | 'order'>('last digits');
  const [preview, setPreview] = useState<Answer<'assignPreview'> | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const look = async () => {
    const got = await call('assignPreview', { body: { numbers, how } });
    setWrong(got.ok ? null : got.errors[0]!.sentence);
    if (got.ok) setPreview(got.value);
  };
  const give = async () => {
    const got = await call('assignNumbers', { body: { numbers, how } });
    setWrong(got.ok ? null : got.errors[0]!.sentence);
    return got.ok;
  };
  return (
    <Box
      border="1px dashed"
      borderColor="plum"
      rounded="4px"
      p="14px"
      mb="14px"
      role="form"
      aria-label="Assign numbers"
    >
      <Flex gap="10px" align="center" wrap="wrap" mb="10px">
        <b>
          Give {numbers.length} {numbers.length === 1 ? 'number' : 'numbers'} to people who have none
        </b>
        <SelectBox
          aria-label="How to match"
          w="auto"
          value={how}
          onChange={(e) => {
            setHow(e.target.value as typeof how);
            setPreview(null);
          }}
        >
          <option value="last digits">by matching last digits</option>
          <option value="order">in their order</option>
        </SelectBox>
        <Act look={preview ? 'plain' : 'main'} onClick={look}>
          Show who gets which
        </Act>
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
            <Act
              mt="8px"
              look="main"
              onClick={async () => {
                if (!(await give())) return;
                refresh();
                onClose();
              }}
            >
              Give these {preview.pairs.length}
            </Act>
          ) : null}
        </>
      ) : null}
    </Box>
  );
}
