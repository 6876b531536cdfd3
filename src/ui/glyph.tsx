import { chakra } from '@chakra-ui/react';
import { END_COLOURS, type EndKind } from './ends';

/** Shapes on a 16 × 16 field, drawn in the current colour. */
const SHAPES: Record<EndKind, React.ReactNode> = {
  extension: <circle cx="8" cy="8" r="4.6" fill="currentColor" />,
  mailbox: <path d="M2 9.2h3.6c.3 1.3 1.2 2 2.4 2s2.1-.7 2.4-2H14V13H2z" fill="currentColor" />,
  outside: <path d="M6.5 3H2.8v10h3.7M6 8h7M10.2 5l3 3-3 3" fill="none" stroke="currentColor" strokeWidth="1.7" />,
  tone: <rect x="3.5" y="7" width="9" height="2.4" fill="currentColor" />,
  refused: (
    <path
      d="M8 2.6a5.4 5.4 0 1 1 0 10.8A5.4 5.4 0 0 1 8 2.6zM4.3 11.7l7.4-7.4"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.7"
    />
  ),
  trunk: <path d="M2 5.5h12M2 8h12M2 10.5h12" fill="none" stroke="currentColor" strokeWidth="1.5" />,
  caller: (
    <path
      d="M3 12.8c.5-2.8 2.5-4 5-4s4.500 1.200 5 4M8 7.300a2.400 2.400 0 1 0 0-4.800 2.400 2.400 0 0 0 0 4.800z"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.6"
    />
  ),
  rule: <path d="M3 4h10M3 8h7M3 12h4" fill="none" stroke="currentColor" strokeWidth="1.7" />,
  number: (
    <path
      d="M6.200 2.800 4.800 13.200M11.200 2.800 9.800 13.200M2.800 6h10.800M2.400 10h10.800"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.4"
    />
  ),
};

const WORDS: Record<EndKind, string> = {
  extension: 'phone',
  mailbox: 'mailbox',
  outside: 'outside',
  tone: 'ended',
  refused: 'refused or not routed',
  trunk: 'trunk',
  caller: 'caller',
  rule: 'rule',
  number: 'number',
};

const Svg = chakra('svg');

/** The glyph of an end, with its colour and its word for those who can't see it. */
export function Glyph({ kind, size = 16 }: { kind: EndKind; size?: number }) {
  return (
    <Svg
      viewBox="0 0 16 16"
      width={`${size}px`}
      height={`${size}px`}
      color={END_COLOURS[kind]}
      flexShrink={0}
      role="img"
      aria-label={WORDS[kind]}
    >
      {SHAPES[kind]}
    </Svg>
  );
}

/** The same shape inside another drawing, at a point. */
export function GlyphShape({ kind, x, y, size }: { kind: EndKind; x: number; y: number; size: number }) {
  const scale = size / 16;
  return (
    <chakra.g
      color={END_COLOURS[kind]}
      transform={`translate(${x - size / 2} ${y - size / 2}) scale(${scale})`}
      aria-hidden
    >
      {SHAPES[kind]}
    </chakra.g>
  );
}
