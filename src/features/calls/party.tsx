'use client';

import { Flex, chakra } from '@chakra-ui/react';
import type { CallParty } from '@/contract/records';
import { Glyph } from '@/ui/glyph';
import { useKinds } from '@/ui/kinds';
import { Link } from '@/ui/link';

const isNumber = (label: string) => /^[+0-9][0-9 ]+$/.test(label);

/** Somebody or something of a call, with its glyph; a link where it has a page. */
export function Party({ party, link = false, glyph = true }: { party: CallParty; link?: boolean; glyph?: boolean }) {
  const { pathOf } = useKinds();
  const href = link && party.id !== null ? pathOf(party.kind, party.id) : null;
  const label = (
    <chakra.span
      {...(isNumber(party.label) ? { fontFamily: 'mono', fontSize: '13px', wordSpacing: '-0.3em' } : {})}
      overflow="hidden"
      textOverflow="ellipsis"
    >
      {party.label}
    </chakra.span>
  );
  return (
    <Flex gap="6px" align="center" minW={0}>
      {glyph ? <Glyph kind={party.kind} /> : null}
      {href ? <Link href={href}>{label}</Link> : label}
    </Flex>
  );
}

/** Seconds as people say them. */
export function duration(seconds: number): string {
  const whole = Math.round(seconds);
  if (whole < 60) return `${whole} s`;
  const minutes = Math.floor(whole / 60);
  const rest = String(whole % 60).padStart(2, '0');
  return minutes < 60
    ? `${minutes}:${rest}`
    : `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}:${rest}`;
}
