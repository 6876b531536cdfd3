'use client';

import { Box, Grid, chakra } from '@chakra-ui/react';
import { Fragment } from 'react';
import { Act } from '@/ui/controls';

const KEYS: [string, string][] = [
  ['/', 'to the Ask line'],
  ['?', 'these keys'],
  ['Esc', 'back out'],
  ['j  k', 'next and previous row'],
  ['Enter or e', 'open the row'],
  ['x', 'select the row'],
  ['n', 'new'],
  ['d', 'another like the row'],
  ['w', 'the week strip shows the week after'],
  ['.', 'to the next problem'],
  ['g then l', 'go live'],
  ['Ctrl Z', 'undo my last edit of the draft (outside a field)'],
  ['Ctrl S', 'make the draft edit; leaving the field does the same'],
];

export default function KeysPanel({ onClose }: { onClose: () => void }) {
  return (
    <Box
      role="dialog"
      aria-label="Keys"
      position="fixed"
      right="24px"
      top="64px"
      bg="raised"
      border="1px solid"
      borderColor="fieldLine"
      rounded="4px"
      p="16px"
      zIndex={30}
      boxShadow="lg"
      fontSize="13px"
    >
      <Grid templateColumns="auto 1fr" columnGap="18px" rowGap="6px" mb="12px">
        {KEYS.map(([key, what]) => (
          <Fragment key={key}>
            <chakra.kbd fontFamily="mono">{key}</chakra.kbd>
            <span>{what}</span>
          </Fragment>
        ))}
      </Grid>
      <Act onClick={onClose}>Close</Act>
    </Box>
  );
}
