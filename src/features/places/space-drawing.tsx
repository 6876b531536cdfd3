'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useRef, useState, type KeyboardEvent } from 'react';
import type { NumberBlock, NumberSpace } from '@/core/analysis';
import { PartTitle, Wrong } from '@/ui/controls';
import { Digits } from '@/ui/digits';
import { LOOK_FACTS } from '@/ui/ends';
import { useKinds } from '@/ui/kinds';
import { useAsked } from '@/workbench/use-asked';
import { Holder } from './holder';

const DIGITS = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9];

const MOVES: Readonly<Record<string, number>> = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -10, ArrowDown: 10 };

/** A hundred blocks, first digit down and second across: filled as far as they are taken; one opens to what is in it and what is free. */
export function SpaceDrawing({ space, site }: { space: NumberSpace; site: string }) {
  const [at, setAt] = useState<string | null>(null);
  const cells = useRef(new Map<string, HTMLButtonElement>());
  const onKey = (e: KeyboardEvent, block: string) => {
    const to = Number(block) + (MOVES[e.key] ?? 0);
    if (!(e.key in MOVES) || to < 0 || to > 99) return;
    e.preventDefault();
    cells.current.get(String(to).padStart(2, '0'))?.focus();
  };
  return (
    <Box>
      <Grid templateColumns="22px repeat(10, 1fr)" gap="3px" data-testid="number-space">
        <span />
        {DIGITS.map((d) => (
          <Box key={d} textAlign="center" fontSize="12px" color="quiet" fontFamily="mono" aria-hidden>
            {d}
          </Box>
        ))}
        {DIGITS.map((row) => [
          <Box key={`row ${row}`} fontSize="12px" color="quiet" fontFamily="mono" lineHeight="34px" aria-hidden>
            {row}
          </Box>,
          ...DIGITS.map((column) => {
            const block = space.blocks[row * 10 + column]!;
            return (
              <Cell
                key={block.digits}
                block={block}
                open={at === block.digits}
                hold={(e) => {
                  if (e) cells.current.set(block.digits, e);
                }}
                onKey={(e) => onKey(e, block.digits)}
                onOpen={() => setAt(at === block.digits ? null : block.digits)}
              />
            );
          }),
        ])}
      </Grid>
      <Flex gap="14px" wrap="wrap" fontSize="12px" color="quiet" mt="8px">
        <Mark>
          <Box w="14px" h="14px" border="1px solid" borderColor="fieldLine" rounded="2px" /> free
        </Mark>
        <Mark>
          <Box w="14px" h="14px" border="2px solid" borderColor="pine" rounded="2px" /> kept for extensions
        </Mark>
        <Mark>
          <Box w="14px" h="14px" bg="pine" rounded="2px" /> taken
        </Mark>
        <Mark>
          <Box w="14px" h="14px" border="1px solid" borderColor="iris" backgroundImage={HATCH} rounded="2px" /> dials
          outside, or for help
        </Mark>
      </Flex>
      {at === null ? (
        <Box color="quiet" fontSize="13px" mt="8px">
          Choose a block to see what is in it and what is free.
        </Box>
      ) : (
        <Block site={site} block={at} />
      )}
    </Box>
  );
}

const HATCH = 'repeating-linear-gradient(135deg, transparent 0 4px, var(--chakra-colors-iris) 4px 5px)';

const Mark = ({ children }: { children: React.ReactNode }) => (
  <Flex gap="6px" align="center">
    {children}
  </Flex>
);

function Cell({
  block,
  open,
  hold,
  onKey,
  onOpen,
}: {
  block: NumberBlock;
  open: boolean;
  hold: (e: HTMLButtonElement | null) => void;
  onKey: (e: KeyboardEvent) => void;
  onOpen: () => void;
}) {
  const { lookOf, wordOf } = useKinds();
  const count = block.kinds.reduce((n, k) => n + k.count, 0);
  const first = block.kinds[0];
  const colour = first ? LOOK_FACTS[lookOf(first.kind)].colour : 'line';
  const said = [
    `${block.digits} and on`,
    count === 0 ? 'nothing' : block.kinds.map((k) => `${k.count} × ${wordOf(k.kind)}`).join(', '),
    block.kept ? 'kept for extensions' : '',
    block.outside ?? '',
  ]
    .filter(Boolean)
    .join(': ');
  return (
    <chakra.button
      ref={hold}
      type="button"
      aria-label={said}
      title={said}
      aria-expanded={open}
      tabIndex={block.digits === '00' || open ? 0 : -1}
      onKeyDown={onKey}
      onClick={onOpen}
      position="relative"
      h="34px"
      rounded="3px"
      overflow="hidden"
      border={open || block.kept ? '2px solid' : '1px solid'}
      borderColor={open ? 'plum' : block.kept ? 'pine' : block.outside ? 'iris' : 'line'}
      bg="raised"
      backgroundImage={block.outside ? HATCH : undefined}
      cursor="pointer"
    >
      {count > 0 ? (
        <Box
          position="absolute"
          bottom={0}
          left={0}
          right={0}
          bg={colour}
          style={{ height: `${Math.max(14, block.full * 100)}%` }}
          opacity={0.85}
        />
      ) : null}
      {count > 0 ? (
        <chakra.span
          position="relative"
          fontSize="12px"
          fontWeight={700}
          color="ink"
          bg="raised"
          rounded="2px"
          px="3px"
          lineHeight="16px"
        >
          {count}
        </chakra.span>
      ) : null}
    </chakra.button>
  );
}

/** What is in a block, and what is free. */
function Block({ site, block }: { site: string; block: string }) {
  const { value, wrong } = useAsked('numberBlock', { params: { site, block } }, { keep: true });
  if (wrong) return <Wrong>{wrong}</Wrong>;
  if (!value) return <Box minH="120px" />;
  return (
    <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} gap="20px" mt="12px" data-testid="number-block">
      <Box>
        <PartTitle>Taken, {block}…</PartTitle>
        <Box maxH="220px" overflowY="auto">
          {value.taken.length === 0 ? <Box color="quiet">Nothing begins with {block}.</Box> : null}
          {value.taken.map((h) => (
            <Holder key={`${h.kind} ${h.id}`} of={h} />
          ))}
          {value.more > 0 ? <Box color="quiet">and {value.more} more</Box> : null}
        </Box>
      </Box>
      <Box>
        <PartTitle>Free, {block}…</PartTitle>
        <Box maxH="220px" overflowY="auto">
          {value.free.length === 0 ? <Box color="quiet">None of the usual length.</Box> : null}
          {value.free.map((f) => (
            <Flex key={f.from} gap="8px" fontSize="13px" minH="24px">
              <Digits>{f.from === f.to ? f.from : `${f.from}–${f.to}`}</Digits>
              <chakra.span color="quiet">{f.count === 1 ? 'one' : f.count}</chakra.span>
            </Flex>
          ))}
        </Box>
      </Box>
    </Grid>
  );
}
