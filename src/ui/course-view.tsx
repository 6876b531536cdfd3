'use client';

import dagre from '@dagrejs/dagre';
import { Box, chakra } from '@chakra-ui/react';
import { useMemo } from 'react';
import type { Course, CourseNode } from '@/core/course';
import { LOOK_FACTS } from './ends';
import { GlyphShape } from './glyph';
import { useKinds } from './kinds';

const NODE = { width: 150, height: 62 };
const ROW = 78;
const BELOW = 52;
const RADIUS = 14;
/** A drawing is made no smaller than this part of its size. */
const SMALLEST = 0.75;
const TURN = 10;

interface Placed extends CourseNode {
  x: number;
  y: number;
}

/** Places nodes left to right by machine; ends share one column at the right, the walked way stands on top. */
function layOut(course: Course): { nodes: Placed[]; width: number; height: number } {
  const graph = new dagre.graphlib.Graph();
  graph.setGraph({ rankdir: 'LR', nodesep: 14, ranksep: 24, marginx: 10, marginy: 10 });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const n of course.nodes) graph.setNode(n.id, { ...NODE });
  for (const w of course.ways) graph.setEdge(w.from, w.to, { weight: w.walked ? 10 : 1 });
  dagre.layout(graph);
  const right = Math.max(...course.nodes.map((n) => graph.node(n.id).x));
  const walked = new Set(course.ways.filter((w) => w.walked).flatMap((w) => [w.from, w.to]));
  const top = NODE.height / 2 + 8;
  let row = 0;
  const nodes = course.nodes.map((n): Placed => {
    const x = n.end ? right : graph.node(n.id).x;
    const y = walked.has(n.id) ? top : top + ++row * ROW;
    return { ...n, x, y };
  });
  return { nodes, width: right + NODE.width / 2 + 30, height: top + row * ROW + BELOW };
}

/** From left to right in straight runs with rounded turns. */
function pathBetween(a: Placed, b: Placed): string {
  const [x1, x2] = [a.x + RADIUS, b.x - RADIUS];
  if (a.x >= b.x - 1) {
    const x = a.x + 44;
    return `M${a.x + RADIUS} ${a.y} H${x - TURN} Q${x} ${a.y} ${x} ${a.y + TURN} V${b.y - TURN} Q${x} ${b.y} ${x - TURN} ${b.y} H${b.x + RADIUS}`;
  }
  if (a.y === b.y) return `M${x1} ${a.y} H${x2}`;
  const turn = Math.min(a.x + 52, x2 - TURN);
  return `M${x1} ${a.y} H${turn - TURN} Q${turn} ${a.y} ${turn} ${a.y + TURN} V${b.y - TURN} Q${turn} ${b.y} ${turn + TURN} ${b.y} H${x2}`;
}

const cut = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);

/** The course of a call: the walked way thick, the rest thin, every end with its colour, glyph and line. */
export function CourseView({ course }: { course: Course }) {
  const { lookOf } = useKinds();
  const { nodes, width, height } = useMemo(() => layOut(course), [course]);
  const at = (id: string) => nodes.find((n) => n.id === id)!;
  return (
    <Box border="1px solid" borderColor="line" rounded="4px" bg="raised" overflowX="auto" data-testid="course">
      <chakra.svg
        viewBox={`0 0 ${width} ${height}`}
        // Somewhat smaller where there is less room; smaller still nobody could read it, and it moves sideways instead.
        w="100%"
        h="auto"
        minW={`${Math.round(width * SMALLEST)}px`}
        maxW={`${width}px`}
        display="block"
        mx="auto"
        fontSize="12px"
        role="img"
        aria-label={`Course: ${nodes.map((n) => n.label).join(', ')}`}
      >
        {course.ways.map((w, i) => {
          const [a, b] = [at(w.from), at(w.to)];
          const line = LOOK_FACTS[lookOf(b.end ? b.kind : 'rule')];
          const d = pathBetween(a, b);
          const labelX = a.x >= b.x - 1 ? a.x + 50 : a.y === b.y ? (a.x + b.x) / 2 : Math.min(a.x + 52, b.x - 24) + 8;
          return (
            <g key={i}>
              <chakra.path
                d={d}
                fill="none"
                color={line.colour}
                stroke="currentColor"
                strokeWidth={w.walked || line.double ? 4 : 1.6}
                strokeDasharray={line.dash}
              />
              {line.double ? (
                <chakra.path d={d} fill="none" color="raised" stroke="currentColor" strokeWidth={1.4} />
              ) : null}
              {w.when ? (
                <chakra.text
                  x={labelX}
                  y={(a.y === b.y ? a.y : b.y) - 7}
                  textAnchor={a.y === b.y ? 'middle' : 'start'}
                  color={w.walked ? 'ink' : 'quiet'}
                  fill="currentColor"
                  fontWeight={w.walked ? 700 : 400}
                >
                  {w.when}
                </chakra.text>
              ) : null}
            </g>
          );
        })}
        {nodes.map((n) => (
          <g key={n.id}>
            <title>{`${n.label} ${n.detail}`}</title>
            <chakra.circle cx={n.x} cy={n.y} r={RADIUS} color="raised" fill="currentColor" />
            <chakra.circle
              cx={n.x}
              cy={n.y}
              r={RADIUS}
              fill="none"
              color={n.end ? LOOK_FACTS[lookOf(n.kind)].colour : 'ink'}
              stroke="currentColor"
              strokeWidth={n.end ? 1.4 : 2}
            />
            <GlyphShape kind={n.kind} x={n.x} y={n.y} size={16} />
            <chakra.text
              x={n.x}
              y={n.y + RADIUS + 13}
              textAnchor="middle"
              fontWeight={700}
              color="ink"
              fill="currentColor"
            >
              {cut(n.label, 24)}
            </chakra.text>
            <chakra.text
              x={n.x}
              y={n.y + RADIUS + 27}
              textAnchor="middle"
              color="quiet"
              fill="currentColor"
              fontSize="11px"
            >
              {cut(n.detail, 28)}
            </chakra.text>
          </g>
        ))}
      </chakra.svg>
    </Box>
  );
}

/** The place of a course that is on its way. */
export function CourseWaits() {
  return <Box border="1px solid" borderColor="line" rounded="4px" bg="raised" h="171px" aria-busy="true" />;
}
