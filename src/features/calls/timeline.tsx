'use client';

import { Box, chakra } from '@chakra-ui/react';
import type { OneCall } from '@/contract/records';
import { LOOK_FACTS } from '@/ui/ends';
import { GlyphShape } from '@/ui/glyph';
import { useKinds } from '@/ui/kinds';
import { duration } from './party';

/* A call in time: where it was from which second on, what was pressed, when it was taken and when it ended. */

const WIDTH = 760;
const LEFT = 14;
const RIGHT = 60;
const ROW = 34;
const TOP = 16;
/** The conversation takes at most this part of the width: what came before it is what one wants to see. */
const TALK_SHARE = 0.35;

interface Stretch {
  kind: string;
  label: string;
  from: number;
  to: number;
}

/** The places of the call with how long it was there; phones that rang together stand in one line. */
function stretchesOf(call: OneCall): Stretch[] {
  const end = call.answeredAt ?? call.endedAt;
  const starts = [...new Set(call.course.map((c) => c.atSeconds))].sort((a, b) => a - b);
  const first = starts[0] ?? end;
  const before: Stretch[] =
    first > 0 || starts.length === 0
      ? [
          {
            kind: call.row.way === 'in' ? 'caller' : 'trunk',
            label: call.row.way === 'in' ? 'arrives' : 'is set up',
            from: 0,
            to: first,
          },
        ]
      : [];
  const places = starts.map((from, i): Stretch => {
    const here = call.course.filter((c) => c.atSeconds === from);
    const head = here[0]!;
    const others = here.length - 1;
    return {
      kind: head.kind,
      label: others > 0 ? `${head.label} and ${others} ${others === 1 ? 'phone' : 'phones'}` : head.label,
      from,
      to: Math.max(from, starts[i + 1] ?? end),
    };
  });
  return [...before, ...places];
}

export function Timeline({ call }: { call: OneCall }) {
  const { lookOf } = useKinds();
  const { answeredAt, endedAt } = call;
  const ringing = answeredAt ?? endedAt;
  const stretches = stretchesOf(call);
  const whole = WIDTH - LEFT - RIGHT;
  // Long talks are drawn shorter than they were; what came before keeps its measure.
  const share = answeredAt === null ? 1 : Math.max(1 - TALK_SHARE, ringing / Math.max(1, endedAt));
  const x = (at: number) =>
    LEFT +
    (at <= ringing
      ? ringing === 0
        ? 0
        : (at / ringing) * share
      : share + ((at - ringing) / (endedAt - ringing)) * (1 - share)) *
      whole;
  const talks = answeredAt !== null && endedAt > answeredAt;
  const rows = stretches.length + (talks ? 1 : 0);
  const height = TOP + rows * ROW + 26;
  const taker = call.row.answeredBy ?? call.row.end;
  const lines: (Stretch & { talk?: boolean })[] = [
    ...stretches,
    ...(talks
      ? [
          {
            kind: taker?.kind ?? 'extension',
            label: taker?.label ?? 'answered',
            from: answeredAt,
            to: endedAt,
            talk: true,
          },
        ]
      : []),
  ];
  const said = lines.map((l) => `${duration(l.from)} ${l.talk ? 'taken by ' : ''}${l.label}`).join(', ');
  return (
    <Box
      border="1px solid"
      borderColor="line"
      rounded="4px"
      bg="raised"
      overflowX="auto"
      mb="16px"
      data-testid="timeline"
    >
      <chakra.svg
        viewBox={`0 0 ${WIDTH} ${height}`}
        w="100%"
        minW="560px"
        maxW={`${WIDTH}px`}
        h="auto"
        display="block"
        fontSize="12px"
        role="img"
        aria-label={`In time: ${said}; over after ${duration(endedAt)}`}
      >
        {lines.map((l, i) => {
          const y = TOP + i * ROW + 12;
          const look = LOOK_FACTS[lookOf(l.kind)];
          const [from, to] = [x(l.from), Math.max(x(l.from) + 3, x(l.to))];
          const roomAfter = WIDTH - to > 240;
          return (
            <g key={i}>
              <chakra.line
                x1={from}
                x2={to}
                y1={y}
                y2={y}
                color={look.colour}
                stroke="currentColor"
                strokeWidth={l.talk ? 8 : 3}
                strokeDasharray={l.talk ? '' : '5 4'}
              />
              <chakra.line
                x1={from}
                x2={from}
                y1={TOP - 6}
                y2={height - 24}
                color="line"
                stroke="currentColor"
                strokeWidth={1}
              />
              <GlyphShape kind={l.kind} x={from} y={y} size={16} />
              <chakra.text
                x={roomAfter ? to + 10 : from + 12}
                y={roomAfter ? y + 4 : y - 9}
                color="ink"
                fill="currentColor"
              >
                {l.talk
                  ? `taken${call.row.answeredBy ? ` by ${l.label}` : ''}, ${duration(l.to - l.from)}`
                  : `${l.label}, ${duration(l.to - l.from)}`}
              </chakra.text>
            </g>
          );
        })}
        {call.keys.map((k, i) => (
          <g key={`k${i}`}>
            <chakra.rect
              x={x(k.atSeconds) - 8}
              y={height - 24}
              width={16}
              height={16}
              rx={3}
              color="plumTint"
              fill="currentColor"
            />
            <chakra.text
              x={x(k.atSeconds)}
              y={height - 12}
              textAnchor="middle"
              fontFamily="mono"
              color="plum"
              fill="currentColor"
            >
              {k.key}
            </chakra.text>
          </g>
        ))}
        <chakra.text x={x(endedAt) + 6} y={height - 11} color="quiet" fill="currentColor">
          {duration(endedAt)}
        </chakra.text>
        <chakra.text x={LEFT} y={height - 11} color="quiet" fill="currentColor">
          0 s
        </chakra.text>
      </chakra.svg>
    </Box>
  );
}
