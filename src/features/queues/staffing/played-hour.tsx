'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Pause, Play } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { busiestSlot } from '@/core/load/sizing';
import { playedQueue } from '@/core/load/simulate';
import { Act, PartTitle } from '@/ui/controls';
import { playedOf, waitingAt, type Played } from './played';
import type { Sizing } from './use-sizing';

const HOUR = 3600;
const WIDTH = 760;
const ROW = 16;
const QUEUE_HEIGHT = 46;
/** Seconds of the queue in a second of watching. */
const SPEED = 60;
const MOST_AGENTS = 40;
const COLOURS = { rings: 'ochre', talks: 'pine', 'wraps up': 'grey' } as const;

/** The busiest hour with enough agents, played back: who rings, who talks, who waits. */
export function PlayedHour({ sizing }: { sizing: Sizing }) {
  const { asked, slots } = sizing;
  const busiest = busiestSlot(asked.arrivals);
  const agents = slots.get(busiest)?.agents ?? 0;
  const [seed, setSeed] = useState(1);
  const [at, setAt] = useState(0);
  const [plays, setPlays] = useState(false);
  const played = useMemo((): Played | null => {
    if (agents < 1 || agents > MOST_AGENTS) return null;
    const rate = asked.arrivals[busiest]!;
    // The hour shown follows one that is not, so that it does not begin with an empty queue.
    const events = playedQueue({ ...asked.law, seed, hours: 2, arrivalsPerHour: [rate], slotMinutes: 60, agents });
    const whole = playedOf(events, agents, asked.law.wrapUpSeconds, 2 * HOUR);
    return shifted(whole, HOUR);
  }, [asked, agents, busiest, seed]);
  useEffect(() => {
    if (!plays) return;
    const tick = setInterval(() => setAt((t) => Math.min(HOUR, t + SPEED / 10)), 100);
    return () => clearInterval(tick);
  }, [plays]);
  if (plays && at >= HOUR) setPlays(false);
  if (agents > MOST_AGENTS)
    return (
      <Box color="quiet">
        An hour is played back for up to {MOST_AGENTS} agents; {agents} are more than can be seen.
      </Box>
    );
  if (!played) return null;
  const most = Math.max(1, ...played.waiters.map((w) => waitingAt(played, w.from)));
  const x = (s: number) => (s / HOUR) * WIDTH;
  const height = QUEUE_HEIGHT + agents * ROW;
  const now = stateAt(played, at);
  return (
    <Box as="section" aria-label="An hour played back" maxW="980px" data-testid="played-hour">
      <PartTitle>An hour like the busiest, with {agents} agents, played back</PartTitle>
      <Flex gap="10px" align="center" mb="8px" wrap="wrap">
        <Act
          aria-label={plays ? 'Pause' : 'Play'}
          onClick={() => {
            if (at >= HOUR) setAt(0);
            setPlays(!plays);
          }}
        >
          {plays ? <Pause size={15} /> : <Play size={15} />}
        </Act>
        <chakra.input
          type="range"
          min={0}
          max={HOUR}
          step={1}
          value={at}
          aria-label="Moment of the hour"
          aria-valuetext={`minute ${Math.floor(at / 60)}`}
          flex="1"
          minW="160px"
          maxW="420px"
          accentColor="plum"
          onChange={(e) => setAt(Number(e.target.value))}
        />
        <Act
          onClick={() => {
            setSeed(seed + 1);
            setAt(0);
          }}
        >
          Another hour
        </Act>
        <Box fontSize="13px" minW="260px" aria-live={plays ? 'off' : 'polite'}>
          minute {Math.floor(at / 60)}: {now.rings} rung, {now.talks} talk, {now.wraps} wrap up, <b>{now.waits} wait</b>
        </Box>
      </Flex>
      <Box border="1px solid" borderColor="line" rounded="4px" bg="raised" p="12px" overflowX="auto">
        <chakra.svg
          viewBox={`-70 0 ${WIDTH + 74} ${height + 16}`}
          w="100%"
          minW="520px"
          h="auto"
          role="img"
          aria-label={`${played.waiters.length} callers in the hour, ${played.waiters.filter((w) => w.how === 'gives up').length} of them gave up, ${most} waited at once at most`}
          fontSize="11px"
        >
          <chakra.text x={-70} y={12} color="quiet" fill="currentColor">
            waiting
          </chakra.text>
          {played.waiters.map((w) => (
            <chakra.rect
              key={w.caller}
              x={x(w.from)}
              width={Math.max(1, x(w.until) - x(w.from))}
              y={laneOf(played, w.caller) * 7}
              height={5}
              color={w.how === 'gives up' || w.how === 'sent on' ? 'brick' : 'lake'}
              fill="currentColor"
            />
          ))}
          {played.agents.map((spans, i) => (
            <g key={i} transform={`translate(0 ${QUEUE_HEIGHT + i * ROW})`}>
              <chakra.text x={-70} y={11} color="quiet" fill="currentColor">
                agent {i + 1}
              </chakra.text>
              <chakra.line x1={0} x2={WIDTH} y1={7} y2={7} color="line" stroke="currentColor" />
              {spans.map((s) => (
                <chakra.rect
                  key={`${s.does} ${s.from}`}
                  x={x(s.from)}
                  width={Math.max(1, x(s.until) - x(s.from))}
                  y={s.does === 'talks' ? 2 : 4}
                  height={s.does === 'talks' ? 10 : 6}
                  color={COLOURS[s.does]}
                  fill="currentColor"
                />
              ))}
            </g>
          ))}
          <chakra.line x1={x(at)} x2={x(at)} y1={0} y2={height} color="plum" stroke="currentColor" strokeWidth="1.5" />
          {[0, 15, 30, 45, 60].map((m) => (
            <chakra.text
              key={m}
              x={x(m * 60)}
              y={height + 13}
              textAnchor={m === 60 ? 'end' : m === 0 ? 'start' : 'middle'}
              color="quiet"
              fill="currentColor"
            >
              {m} min
            </chakra.text>
          ))}
        </chakra.svg>
        <Flex gap="6px 18px" wrap="wrap" fontSize="13px" mt="6px">
          {(
            [
              ['lake', 'waits'],
              ['brick', 'waits and gives up'],
              ['ochre', 'is rung'],
              ['pine', 'talks (thicker)'],
              ['grey', 'wraps up'],
            ] as const
          ).map(([colour, words]) => (
            <Flex key={words} gap="6px" align="center">
              <chakra.span w="16px" h={words.startsWith('talks') ? '10px' : '5px'} bg={colour} />
              {words}
            </Flex>
          ))}
        </Flex>
      </Box>
    </Box>
  );
}

/** What of it lies after a moment, counted from there. */
function shifted(played: Played, from: number): Played {
  const move = <T extends { from: number; until: number }>(list: readonly T[]): T[] =>
    list.filter((s) => s.until > from).map((s) => ({ ...s, from: Math.max(0, s.from - from), until: s.until - from }));
  return { ...played, agents: played.agents.map(move), waiters: move(played.waiters) };
}

/** Lines on which waiting callers are drawn, so that they don't hide one another. */
const LANES = 6;
const laneOf = ({ waiters }: Played, caller: number): number => waiters.findIndex((w) => w.caller === caller) % LANES;

function stateAt(played: Played, at: number) {
  const doing = played.agents.map((spans) => spans.find((s) => s.from <= at && at < s.until)?.does ?? null);
  const count = (what: string) => doing.filter((d) => d === what).length;
  const rings = count('rings');
  // Who rings an agent waits too, until it is answered.
  return { rings, talks: count('talks'), wraps: count('wraps up'), waits: waitingAt(played, at) };
}
