import { chakra } from '@chakra-ui/react';
import { END_COLOURS, type EndKind } from './ends';

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
const SHAPES: Record<EndKind, React.ReactNode> = {
  extension: <circle cx="8" cy="8" r="4.6" fill="currentColor" />,
  mailbox: <path d="M2 9.2h3.6c.3 1.3 1.2 2 2.4 2s2.1-.7 2.4-2H14V13H2z" fill="currentColor" />,
  outside: LEAVING,
  ringGroup: (
    <path
      d="M8 2.2a2.3 2.3 0 1 1 0 4.6 2.3 2.3 0 0 1 0-4.6zM4.2 8.800a2.3 2.3 0 1 1 0 4.6 2.3 2.3 0 0 1 0-4.600zM11.8 8.800a2.3 2.3 0 1 1 0 4.6 2.3 2.3 0 0 1 0-4.600z"
      fill="currentColor"
    />
  ),
  queue: <path d="M3 3h2.200v10H3zM6.9 3h2.200v10H6.900zM10.8 3H13v10h-2.200z" fill="currentColor" />,
  attendant: DOTS,
  directory: DOTS,
  outsideNumber: LEAVING,
  announcement: SPEECH,
  conference: SPEECH,
  pageGroup: SPEECH,
  parkPlace: SPEECH,
  fax: <path d="M4 2.500h5.500L12.5 5.500v8H4zM9.5 2.500v3h3" fill="none" stroke="currentColor" strokeWidth="1.5" />,
  webLink: (
    <path
      d="M6.8 9.2 9.2 6.800M7.3 5.200l1.5-1.500a2.5 2.5 0 0 1 3.5 3.500l-1.5 1.500M8.7 10.800l-1.5 1.500a2.5 2.5 0 0 1-3.5-3.500l1.5-1.5"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.5"
    />
  ),
  timeSwitch: (
    <path
      d="M8 2.600a5.4 5.4 0 1 1 0 10.800A5.4 5.4 0 0 1 8 2.600zM8 8l2.6-2.6"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.7"
    />
  ),
  reachPlan: <circle cx="8" cy="8" r="4.6" fill="currentColor" />,
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

const WORDS: Record<EndKind, string> = {
  extension: 'phone',
  mailbox: 'mailbox',
  outside: 'outside',
  ringGroup: 'ring group',
  queue: 'queue',
  attendant: 'attendant',
  directory: 'directory',
  outsideNumber: 'outside',
  announcement: 'announcement',
  conference: 'conference',
  pageGroup: 'page group',
  parkPlace: 'park place',
  fax: 'fax',
  webLink: 'web link',
  timeSwitch: 'time switch',
  reachPlan: 'reach plan',
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
