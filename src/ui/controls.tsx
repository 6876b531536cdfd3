'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import type { ComponentProps, MouseEvent, ReactNode } from 'react';

const ActButton = chakra('button', {
  base: {
    display: 'inline-flex',
    alignItems: 'center',
    justifyContent: 'center',
    flexShrink: 0,
    gap: '8px',
    h: '30px',
    px: '12px',
    border: '1px solid',
    rounded: '4px',
    fontSize: '13px',
    lineHeight: '20px',
    fontWeight: 500,
    whiteSpace: 'nowrap',
    userSelect: 'none',
    cursor: 'pointer',
    '&:disabled': { opacity: 0.5, cursor: 'not-allowed' },
  },
  variants: {
    look: {
      main: {
        fontWeight: 700,
        bg: 'plum.solid',
        color: 'white',
        borderColor: 'plum.solid',
        '&:hover:enabled': { opacity: 0.92 },
      },
      plain: {
        bg: 'raised',
        color: 'ink',
        borderColor: 'line',
        '&:hover:enabled': { borderColor: 'fieldLine' },
        '&[aria-pressed=true]': { bg: 'plumTint', borderColor: 'plum' },
      },
      danger: { bg: 'raised', color: 'brick', borderColor: 'brick', '&:hover:enabled': { bg: 'brickTint' } },
      text: {
        bg: 'transparent',
        color: 'plum',
        borderColor: 'transparent',
        px: '4px',
        '&:hover:enabled': { textDecoration: 'underline' },
      },
    },
  },
});

/** The field keeps the focus while the button that sends is pressed: what leaving it says would move the button from under the hand. */
const SENDS = { onMouseDown: (e: MouseEvent) => e.preventDefault() };

/**
 * The one button of ours: `main` is the act of the screen, `plain` everything else, `danger` what can't be taken back
 * lightly. Made of one small recipe: a list of rows with buttons is drawn on the server many times a minute.
 */
export function Act({ look = 'plain', ...props }: ComponentProps<typeof ActButton>) {
  // A value that is there only sometimes must not wipe out the look's own.
  const given = Object.fromEntries(Object.entries(props).filter(([, value]) => value !== undefined));
  return <ActButton type="button" look={look} {...(props.type === 'submit' ? SENDS : {})} {...given} />;
}

/** A link that looks like a button. */
export const ActLink = chakra('a', {
  base: {
    display: 'inline-flex',
    alignItems: 'center',
    h: '30px',
    px: '12px',
    border: '1px solid',
    borderColor: 'line',
    bg: 'raised',
    rounded: '4px',
    fontSize: '13px',
    fontWeight: 500,
    color: 'ink',
    textDecoration: 'none',
    whiteSpace: 'nowrap',
    _hover: { borderColor: 'fieldLine' },
  },
  variants: {
    look: { main: { bg: 'plum.solid', borderColor: 'plum.solid', color: 'white', fontWeight: 700 }, plain: {} },
  },
});

const fieldBase = {
  h: '32px',
  w: '100%',
  px: '8px',
  bg: 'raised',
  color: 'ink',
  border: '1px solid',
  borderColor: 'fieldLine',
  rounded: '4px',
  fontSize: '14px',
  '&:disabled': { color: 'quiet', borderColor: 'line', bg: 'paper', opacity: 1 },
  '&[aria-invalid=true]': { borderColor: 'brick' },
} as const;

export const TextBox = chakra('input', { base: fieldBase });
export const SelectBox = chakra('select', { base: { ...fieldBase, pr: '4px' } });
export const AreaBox = chakra('textarea', { base: { ...fieldBase, h: '64px', py: '6px', resize: 'vertical' } });
export const TickBox = chakra('input', {
  base: { w: '16px', h: '16px', accentColor: 'var(--chakra-colors-plum-solid)', flexShrink: 0 },
});

/** A name above something, with what is wrong beneath it. */
export function Labelled({
  title,
  htmlFor,
  error,
  children,
  hint,
}: {
  title: ReactNode;
  htmlFor?: string;
  error?: string | null;
  hint?: ReactNode;
  children: ReactNode;
}) {
  return (
    <Box minW={0}>
      {title === '' ? null : (
        <chakra.label htmlFor={htmlFor} display="block" fontSize="12px" color="quiet" mb="3px">
          {title}
        </chakra.label>
      )}
      {children}
      {hint ? (
        <Box fontSize="12px" color="quiet" mt="3px">
          {hint}
        </Box>
      ) : null}
      {error ? (
        <Box role="alert" id={htmlFor && `${htmlFor}-error`} fontSize="13px" color="brick" mt="3px">
          {error}
        </Box>
      ) : null}
    </Box>
  );
}

/** A heading in small capitals above a part of the page. */
export function PartTitle({ children, aside }: { children: ReactNode; aside?: ReactNode }) {
  return (
    <Flex align="baseline" justify="space-between" mb="8px">
      <chakra.h2 fontSize="11px" fontWeight={700} letterSpacing="0.08em" textTransform="uppercase" color="quiet">
        {children}
      </chakra.h2>
      {aside}
    </Flex>
  );
}

/** What this is for, and the first step, where there is nothing yet. */
export function Empty({ children, act }: { children: ReactNode; act?: ReactNode }) {
  return (
    <Flex
      direction="column"
      align="center"
      gap="12px"
      border="1px dashed"
      borderColor="fieldLine"
      rounded="4px"
      py="32px"
      px="24px"
      textAlign="center"
      color="quiet"
    >
      <Box maxW="460px">{children}</Box>
      {act}
    </Flex>
  );
}

/** Something that went wrong, said where it matters. */
export function Wrong({ children }: { children: ReactNode }) {
  return (
    <Box
      role="alert"
      border="1px solid"
      borderColor="brick"
      bg="brickTint"
      color="ink"
      rounded="4px"
      px="12px"
      py="8px"
      fontSize="13px"
    >
      {children}
    </Box>
  );
}
