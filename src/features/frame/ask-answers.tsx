'use client';

import { Flex, chakra } from '@chakra-ui/react';
import type { AskAnswer, ShortAnswer } from '@/contract/calls';
import { endOf } from '@/ui/ends';
import { Glyph } from '@/ui/glyph';

/** What the server says of what is typed. */
export type Answer = AskAnswer;
type Short = ShortAnswer;

/** The answer at the right end of the line. */
export function InLine({ answer }: { answer: Extract<Answer, { type: 'answer' }> }) {
  const one = (short: Short) => (
    <Flex as="span" gap="6px" align="center" whiteSpace="nowrap" minW={0}>
      <Glyph kind={endOf(short)} />
      <chakra.b overflow="hidden" textOverflow="ellipsis">
        {short.lands?.label ?? short.outcome}
      </chakra.b>
    </Flex>
  );
  return (
    <Flex fontSize="13px" gap="10px" align="center" justify="flex-end">
      {answer.same ? (
        <>
          {one(answer.draft)}
          <chakra.span color="quiet" whiteSpace="nowrap" overflow="hidden" textOverflow="ellipsis">
            {answer.draft.detail}
          </chakra.span>
        </>
      ) : (
        <>
          {one(answer.live)}
          <chakra.span color="quiet">live</chakra.span>
          {one(answer.draft)}
          <chakra.span bg="saffron" color="saffronInk" rounded="3px" px="5px">
            draft
          </chakra.span>
        </>
      )}
    </Flex>
  );
}

/** One plan's answer beneath the line. */
export function BothLine({ word, short, draft }: { word: string; short: Short; draft?: boolean }) {
  return (
    <Flex gap="8px" align="center" minH="24px" wrap="wrap">
      <chakra.span
        w="100px"
        color={draft ? 'saffronInk' : 'quiet'}
        bg={draft ? 'saffron' : undefined}
        px={draft ? '5px' : 0}
        rounded="3px"
      >
        {word}
      </chakra.span>
      <Glyph kind={endOf(short)} />
      <b>{short.lands?.label ?? short.outcome}</b>
      <chakra.span color="quiet">{short.detail}</chakra.span>
    </Flex>
  );
}
