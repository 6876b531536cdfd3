'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { KEY_LETTERS, PHONE_KEYS } from '@/core/plan/facts/attendants';
import { Act, PartTitle } from '@/ui/controls';
import { Glyph } from '@/ui/glyph';
import type { Done, Line } from './run';

/** The keys of the caller's telephone. */
export function Pad({ disabled, onPress }: { disabled: boolean; onPress: (key: string) => void }) {
  return (
    <Grid role="group" aria-label="Your keypad" templateColumns="repeat(3, 1fr)" gap="6px" data-testid="pad">
      {PHONE_KEYS.map((key) => (
        <chakra.button
          key={key}
          type="button"
          aria-label={`Press ${key}`}
          disabled={disabled}
          h="46px"
          border="1px solid"
          borderColor="fieldLine"
          rounded="4px"
          bg="raised"
          _active={{ bg: 'plumTint' }}
          _disabled={{ opacity: 0.5 }}
          onClick={() => onPress(key)}
        >
          <chakra.span fontFamily="mono" fontSize="17px" fontWeight={700}>
            {key}
          </chakra.span>
          <chakra.span display="block" fontFamily="mono" fontSize="10px" color="quiet" lineHeight="12px">
            {(KEY_LETTERS[key] ?? '').toUpperCase() || ' '}
          </chakra.span>
        </chakra.button>
      ))}
    </Grid>
  );
}

/** Whoever is offered the call: whether they take it. */
export function Who({
  offer,
  shownName,
  done,
  onAnswer,
  onIs,
  onRing,
}: {
  offer: Line | null;
  shownName: string | null;
  done: Done;
  onAnswer: (line: Line) => void;
  onIs: (what: 'busy' | 'away', id: string) => void;
  onRing: () => void;
}) {
  const lands = offer?.lands;
  if (!offer || !lands || done.answered) return null;
  const takes = ['extension', 'ringGroup', 'queue', 'outside'].includes(lands.kind);
  if (!takes) return null;
  return (
    <Box as="section" aria-label="Who answers" mt="14px">
      <PartTitle>It rings at</PartTitle>
      <Flex gap="8px" align="center" mb="8px">
        <Glyph kind={lands.kind} />
        <b>{lands.label}</b>
        {shownName ? <chakra.span color="quiet">shown with “{shownName}”</chakra.span> : null}
      </Flex>
      <Flex gap="6px" wrap="wrap">
        <Act onClick={() => onAnswer(offer)}>Answers</Act>
        <Act onClick={onRing}>Nobody answers</Act>
        {lands.kind === 'extension' && lands.id ? (
          <>
            <Act onClick={() => onIs('busy', lands.id!)}>Is busy</Act>
            <Act onClick={() => onIs('away', lands.id!)}>Is away</Act>
          </>
        ) : null}
      </Flex>
    </Box>
  );
}
