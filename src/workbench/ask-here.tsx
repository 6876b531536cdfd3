'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { ShortAnswer } from '@/contract/calls';
import { TextBox } from '@/ui/controls';
import { endOf } from '@/ui/ends';
import { Glyph } from '@/ui/glyph';
import { Link } from '@/ui/link';
import { useSettled } from '@/ui/settled';
import { useWriting } from '@/ui/time';
import { tracePath } from './paths';
import { useAsked } from './use-asked';

/** Who gets a call to a number at some time: asked where the number stands, answered while the time is typed. */
export function AskHere({ dial }: { dial: string }) {
  const write = useWriting();
  const [when, setWhen] = useState('sun 18:05');
  const settled = useSettled(when.trim(), 150);
  const asked = useAsked(
    'ask',
    settled === '' ? null : { query: { text: `outside > ${dial} @ ${settled}`.slice(0, 200) } },
    {
      keep: true,
      fresh: true,
    },
  );
  const answer = asked.value;
  return (
    <Flex
      data-testid="ask-here"
      gap="10px"
      align="center"
      wrap="wrap"
      mt="14px"
      maxW="760px"
      border="1px solid"
      borderColor="line"
      rounded="4px"
      bg="raised"
      px="12px"
      py="8px"
    >
      <chakra.label htmlFor="ask-here" fontWeight={700}>
        Who gets a call at
      </chakra.label>
      <TextBox
        id="ask-here"
        w="150px"
        maxLength={60}
        autoComplete="off"
        value={when}
        onChange={(e) => setWhen(e.target.value)}
      />
      <Box flex="1" minW="200px" minH="44px" display="flex" alignItems="center" aria-live="polite">
        {asked.wrong ? <chakra.span color="brick">{asked.wrong}</chakra.span> : null}
        {answer?.type === 'unclear' ? <chakra.span color="brick">{answer.sentence}</chakra.span> : null}
        {answer?.type === 'answer' ? (
          <Flex gap="12px" wrap="wrap" align="center">
            <One answer={answer.draft} />
            {answer.same ? null : (
              <Flex gap="6px" color="quiet" align="baseline">
                <One answer={answer.live} /> <chakra.span whiteSpace="nowrap">as it is live</chakra.span>
              </Flex>
            )}
            <Link href={tracePath('outside', dial, answer.at)} style={{ textDecoration: 'underline', fontSize: 13 }}>
              {write(answer.at, { zone: answer.zone, weekday: true })}: why
            </Link>
          </Flex>
        ) : null}
      </Box>
    </Flex>
  );
}

function One({ answer }: { answer: ShortAnswer }) {
  return (
    <Flex gap="6px" align="center">
      <Glyph kind={endOf(answer)} />
      <span>
        <b>{answer.lands?.label ?? answer.outcome}</b> <chakra.span color="quiet">{answer.detail}</chakra.span>
      </span>
    </Flex>
  );
}
