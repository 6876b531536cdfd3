'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { clockTime } from '@/core/hours/words';
import type { HoursFault } from '@/core/hours/faults';
import { openMinutes } from '@/core/hours/paint';
import { DAY_MINUTES, type Span, type Week } from '@/core/hours/week';

const STEP = 15;
const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
const MARKS = [0, 3, 6, 9, 12, 15, 18, 21, 24];
const ROW = '24px';

interface Point {
  day: number;
  /** minutes after midnight, on a quarter of an hour */
  at: number;
}

/** Days and times between two points, the quarters of both within. */
interface Area {
  days: [number, number];
  from: number;
  to: number;
}

const areaOf = (a: Point, b: Point): Area => ({
  days: [Math.min(a.day, b.day), Math.max(a.day, b.day)],
  from: Math.min(a.at, b.at),
  to: Math.max(a.at, b.at) + STEP,
});

const areaWords = ({ days: [a, b], from, to }: Area) =>
  `${DAYS[a]}${a === b ? '' : ` to ${DAYS[b]}`} ${clockTime(from)} to ${clockTime(to)}`;

/**
 * A week to paint on: with the pointer over one day or several, or with arrow keys, Shift and Enter. What is closed where it begins
 * becomes open, and the other way about. Nothing is asked of the server while it is painted.
 */
export function WeekPainter({
  week,
  faults,
  disabled,
  onPaint,
}: {
  week: Week;
  faults: readonly HoursFault[];
  disabled: boolean;
  /** stretches in minutes from Monday 00:00, and whether they become open */
  onPaint: (stretches: Span[], open: boolean) => void;
}) {
  const tracks = useRef<HTMLDivElement>(null);
  const [anchor, setAnchor] = useState<Point | null>(null);
  const [at, setAt] = useState<Point>({ day: 0, at: 540 });
  const [dragging, setDragging] = useState(false);
  const [focused, setFocused] = useState(false);
  const [said, setSaid] = useState('');
  const open = openMinutes(week);
  const isOpen = ({ day, at: minute }: Point) => {
    const m = day * DAY_MINUTES + minute;
    return open.some((s) => s.from <= m && m < s.to);
  };
  const area = areaOf(anchor ?? at, at);
  const opens = !isOpen(anchor ?? at);

  const pointOf = (e: PointerEvent): Point => {
    const box = tracks.current!.getBoundingClientRect();
    const within = (v: number, most: number) => Math.max(0, Math.min(most, Math.floor(v)));
    const day = within(((e.clientY - box.top) / box.height) * 7, 6);
    return { day, at: within(((e.clientX - box.left) / box.width) * 96, 95) * STEP };
  };
  const paint = (of: Area, becomes: boolean) => {
    const days = Array.from({ length: of.days[1] - of.days[0] + 1 }, (_, i) => of.days[0] + i);
    onPaint(
      days.map((d) => ({ from: d * DAY_MINUTES + of.from, to: d * DAY_MINUTES + of.to })),
      becomes,
    );
    setSaid(`${areaWords(of)} is ${becomes ? 'open' : 'closed'} now`);
    setAnchor(null);
  };
  const onKey = (e: KeyboardEvent) => {
    const move = MOVES[e.key];
    if (move) {
      const next = {
        day: Math.max(0, Math.min(6, at.day + move.day)),
        at: Math.max(0, Math.min(DAY_MINUTES - STEP, at.at + move.minutes)),
      };
      setAnchor(e.shiftKey ? (anchor ?? at) : null);
      setAt(next);
      const now = areaOf(e.shiftKey ? (anchor ?? at) : next, next);
      setSaid(`${areaWords(now)}, ${isOpen(next) ? 'open' : 'closed'}`);
    } else if (e.key === 'Enter' || e.key === ' ') paint(area, opens);
    else if (e.key === 'Escape' && anchor) setAnchor(null);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const shows = dragging || (focused && !disabled);
  return (
    <Box border="1px solid" borderColor="line" rounded="4px" bg="raised" px="12px" py="10px">
      <Flex>
        <Box w="42px" flexShrink={0} pt="18px">
          {DAYS.map((d) => (
            <Box key={d} h={ROW} lineHeight={ROW} fontSize="13px">
              {d.slice(0, 3)}
            </Box>
          ))}
        </Box>
        <Box flex="1" minW={0}>
          <Box position="relative" h="18px" fontSize="11px" color="quiet" aria-hidden>
            {MARKS.map((h) => (
              <Box key={h} position="absolute" left={`${(h / 24) * 100}%`} transform="translateX(-50%)">
                {h}
              </Box>
            ))}
          </Box>
          <Box
            ref={tracks}
            data-testid="week-painter"
            role="application"
            aria-roledescription="week to paint on"
            aria-label="Opening times of the week. Arrow keys move, Shift with them chooses a stretch, Enter opens or closes it."
            tabIndex={disabled ? -1 : 0}
            position="relative"
            cursor={disabled ? 'default' : 'crosshair'}
            touchAction="none"
            userSelect="none"
            outlineOffset="2px"
            onFocus={() => setFocused(true)}
            onBlur={() => {
              setFocused(false);
              setAnchor(null);
            }}
            onKeyDown={disabled ? undefined : onKey}
            onPointerDown={(e) => {
              if (disabled || e.button !== 0) return;
              e.currentTarget.setPointerCapture(e.pointerId);
              const point = pointOf(e);
              setAnchor(point);
              setAt(point);
              setDragging(true);
            }}
            onPointerMove={(e) => {
              if (dragging) setAt(pointOf(e));
            }}
            onPointerUp={(e) => {
              // Where it is let go counts, drawn already or not.
              const point = pointOf(e);
              if (dragging) paint(areaOf(anchor ?? point, point), !isOpen(anchor ?? point));
              setAt(point);
              setDragging(false);
            }}
            onPointerCancel={() => {
              setDragging(false);
              setAnchor(null);
            }}
          >
            {DAYS.map((d, day) => (
              <Box key={d} h={ROW} py="2px">
                <Box position="relative" h="20px" border="1px solid" borderColor="line" rounded="3px" overflow="hidden">
                  {onDay(open, day).map((s) => (
                    <Bar key={s.from} span={s} bg="plum.solid" />
                  ))}
                  {faults
                    .filter((f) => f.day === day && f.from < DAY_MINUTES)
                    .map((f) => (
                      <Bar
                        key={`${f.type} ${f.from}`}
                        span={f}
                        border="2px dashed"
                        borderColor="brick"
                        bg={f.type === 'hole' ? 'brickTint' : 'transparent'}
                      />
                    ))}
                  {MARKS.slice(1, -1).map((h) => (
                    <Box
                      key={h}
                      position="absolute"
                      top={0}
                      bottom={0}
                      left={`${(h / 24) * 100}%`}
                      borderLeft="1px solid"
                      borderColor="line"
                      opacity={0.5}
                    />
                  ))}
                  {shows && area.days[0] <= day && day <= area.days[1] ? (
                    <Bar
                      span={area}
                      border="2px solid"
                      borderColor="saffron"
                      bg={opens ? 'plumTint' : 'raised'}
                      opacity={0.8}
                    />
                  ) : null}
                </Box>
              </Box>
            ))}
          </Box>
        </Box>
      </Flex>
      <Box
        fontSize="13px"
        color="quiet"
        minH="20px"
        mt="6px"
        pl="42px"
        aria-live="polite"
        data-testid="week-painter-said"
      >
        {dragging ? `${opens ? 'opening' : 'closing'} ${areaWords(area)}` : said}
      </Box>
    </Box>
  );
}

const MOVES: Readonly<Record<string, { day: number; minutes: number }>> = {
  ArrowLeft: { day: 0, minutes: -STEP },
  ArrowRight: { day: 0, minutes: STEP },
  ArrowUp: { day: -1, minutes: 0 },
  ArrowDown: { day: 1, minutes: 0 },
  Home: { day: 0, minutes: -DAY_MINUTES },
  End: { day: 0, minutes: DAY_MINUTES },
  PageUp: { day: 0, minutes: -60 },
  PageDown: { day: 0, minutes: 60 },
};

/** The parts of some stretches of the week that lie on a day, in minutes after its midnight. */
const onDay = (spans: readonly Span[], day: number): Span[] =>
  spans
    .map((s) => ({
      from: Math.max(0, s.from - day * DAY_MINUTES),
      to: Math.min(DAY_MINUTES, s.to - day * DAY_MINUTES),
    }))
    .filter((s) => s.from < s.to);

const BarBox = chakra('div', { base: { position: 'absolute', top: 0, bottom: 0 } });

function Bar({ span, ...look }: { span: Span } & React.ComponentProps<typeof BarBox>) {
  return (
    <BarBox
      {...look}
      style={{
        left: `${(span.from / DAY_MINUTES) * 100}%`,
        width: `${((Math.min(span.to, DAY_MINUTES) - span.from) / DAY_MINUTES) * 100}%`,
      }}
    />
  );
}
