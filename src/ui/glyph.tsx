import { chakra } from '@chakra-ui/react';
import type { Look } from '@/core/plan/facts/look';
import { LOOK_FACTS } from './ends';
import { useKinds } from './kinds';

const LEAVING = (
  <path d="M6.5 3H2.800v10h3.700M6 8h7M10.2 5l3 3-3 3" fill="none" stroke="currentColor" strokeWidth="1.7" />
);
const DOTS = (
  <path
    d="M3 3h2v2H3zM7 3h2v2H7zM11 3h2v2h-2zM3 7h2v2H3zM7 7h2v2H7zM11 7h2v2h-2zM3 11h2v2H3zM7 11h2v2H7zM11 11h2v2h-2z"
    fill="currentColor"
  />
);
const SPEECH = (
  <path d="M2.5 3.500h11v7H7l-3 2.800v-2.800H2.500z" fill="none" stroke="currentColor" strokeWidth="1.5" />
);

/** Shapes on a 16 × 16 field, drawn in the current colour. */
const SHAPES: Record<Look, React.ReactNode> = {
  phone: <circle cx="8" cy="8" r="4.6" fill="currentColor" />,
  tray: (
    <path
      d="M2.300 4.200v8.600h11.400V4.200M2.300 8.500h3.100l1 2.200h3.200l1-2.200h3.100"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.7"
      strokeLinejoin="round"
    />
  ),
  leaving: LEAVING,
  group: (
    <path
      d="M8 2.2a2.3 2.3 0 1 1 0 4.6 2.3 2.3 0 0 1 0-4.6zM4.2 8.800a2.3 2.3 0 1 1 0 4.6 2.3 2.3 0 0 1 0-4.600zM11.8 8.800a2.3 2.3 0 1 1 0 4.6 2.3 2.3 0 0 1 0-4.600z"
      fill="currentColor"
    />
  ),
  bars: <path d="M3 3h2.200v10H3zM6.9 3h2.200v10H6.900zM10.8 3H13v10h-2.200z" fill="currentColor" />,
  keys: DOTS,
  speech: SPEECH,
  sheet: <path d="M4 2.500h5.500L12.5 5.500v8H4zM9.5 2.500v3h3" fill="none" stroke="currentColor" strokeWidth="1.5" />,
  clock: (
    <path
      d="M8 2.600a5.4 5.4 0 1 1 0 10.800A5.4 5.4 0 0 1 8 2.600zM8 8l2.6-2.6"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.7"
    />
  ),
  bar: <rect x="3.5" y="7" width="9" height="2.4" fill="currentColor" />,
  crossed: (
    <path
      d="M8 2.6a5.4 5.4 0 1 1 0 10.8A5.4 5.4 0 0 1 8 2.6zM4.3 11.7l7.4-7.4"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.7"
    />
  ),
  lines: <path d="M2 5.5h12M2 8h12M2 10.5h12" fill="none" stroke="currentColor" strokeWidth="1.5" />,
  caller: (
    <path
      d="M3 12.8c.5-2.8 2.5-4 5-4s4.5 1.2 5 4M8 7.300a2.4 2.4 0 1 0 0-4.8 2.4 2.4 0 0 0 0 4.800z"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.6"
    />
  ),
  rule: <path d="M3 4h10M3 8h7M3 12h4" fill="none" stroke="currentColor" strokeWidth="1.7" />,
  number: (
    <path
      d="M6.2 2.8 4.8 13.200M11.2 2.8 9.8 13.200M2.8 6h10.800M2.4 10h10.8"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.4"
    />
  ),
};

const Svg = chakra('svg');

/** The glyph of a kind of object or of an end, with its colour and its word for those who can't see it. */
export function Glyph({ kind, size = 16 }: { kind: string; size?: number }) {
  const { lookOf, wordOf } = useKinds();
  const look = lookOf(kind);
  const { colour, word } = LOOK_FACTS[look];
  const named = wordOf(kind);
  return (
    <Svg
      viewBox="0 0 16 16"
      width={`${size}px`}
      height={`${size}px`}
      color={colour}
      flexShrink={0}
      role="img"
      aria-label={named === kind && look !== 'rule' ? word : named}
    >
      {SHAPES[look]}
    </Svg>
  );
}

/** The same shape inside another drawing, at a point. */
export function GlyphShape({ kind, x, y, size }: { kind: string; x: number; y: number; size: number }) {
  const look = useKinds().lookOf(kind);
  const scale = size / 16;
  return (
    <chakra.g
      color={LOOK_FACTS[look].colour}
      transform={`translate(${x - size / 2} ${y - size / 2}) scale(${scale})`}
      aria-hidden
    >
      {SHAPES[look]}
    </chakra.g>
  );
}
