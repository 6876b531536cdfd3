'use client';

import { Box, Dialog, Flex, Portal } from '@chakra-ui/react';
import { useCallback, useRef, useState, type ReactNode } from 'react';
import { Act } from './controls';

/** Something asked before it is done. */
export interface Question<C extends string> {
  title: string;
  body: ReactNode;
  /** in the order of the buttons; the first is what is meant most likely */
  choices: readonly { id: C; words: string; look?: 'main' | 'plain' | 'danger' }[];
}

/**
 * Asks before something is done: gives the question's element, and a function that comes back with the choice, or null when
 * the question was put away.
 */
export function useConfirm<C extends string>(): [ReactNode, (question: Question<C>) => Promise<C | null>] {
  const [question, setQuestion] = useState<Question<C> | null>(null);
  const answer = useRef<(choice: C | null) => void>(() => undefined);
  const ask = useCallback(
    (q: Question<C>) =>
      new Promise<C | null>((done) => {
        answer.current = done;
        setQuestion(q);
      }),
    [],
  );
  const say = (choice: C | null) => {
    setQuestion(null);
    answer.current(choice);
  };
  const element = (
    <Dialog.Root
      role="alertdialog"
      open={question !== null}
      onOpenChange={(e) => !e.open && say(null)}
      lazyMount
      unmountOnExit
    >
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content
            bg="raised"
            color="ink"
            rounded="4px"
            border="1px solid"
            borderColor="line"
            maxW="480px"
            p="18px"
          >
            <Dialog.Title fontSize="16px" lineHeight="22px" fontWeight={700} mb="8px">
              {question?.title}
            </Dialog.Title>
            <Dialog.Description asChild>
              <Box mb="16px" overflowWrap="anywhere">
                {question?.body}
              </Box>
            </Dialog.Description>
            <Flex gap="8px" wrap="wrap">
              {question?.choices.map((c) => (
                <Act key={c.id} look={c.look ?? 'plain'} onClick={() => say(c.id)}>
                  {c.words}
                </Act>
              ))}
              <Act onClick={() => say(null)}>Leave it as it is</Act>
            </Flex>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
  return [element, ask];
}
