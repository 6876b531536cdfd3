'use client';

import { Flex } from '@chakra-ui/react';
import type { NumberHolder } from '@/core/analysis';
import { Digits } from '@/ui/digits';
import { Glyph } from '@/ui/glyph';
import { useKinds } from '@/ui/kinds';
import { Link } from '@/ui/link';

/** Something with digits, leading to its page where it has one. */
export function Holder({ of: h }: { of: NumberHolder }) {
  const { pathOf } = useKinds();
  const path = pathOf(h.kind, h.id);
  const name = h.label.startsWith(`${h.digits} `) ? h.label.slice(h.digits.length + 1) : h.label;
  return (
    <Flex gap="8px" align="center" minH="26px" fontSize="13px">
      <Glyph kind={h.kind} />
      <Digits w="52px">{h.digits}</Digits>
      {path ? <Link href={path}>{name}</Link> : <span>{name}</span>}
    </Flex>
  );
}
