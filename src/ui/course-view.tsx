'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useMemo } from 'react';
import type { Course } from '@/core/course';
import { DETAIL_LENGTH, LABEL_LENGTH, RADIUS, cut, layOut, pathBetween, wordsAt } from '@/core/course/layout';
import { LOOK_FACTS } from './ends';
import { GlyphShape } from './glyph';
import { useKinds } from './kinds';

/** A drawing is made no smaller than this part of its size. */
const SMALLEST = 0.75;

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
          const words = wordsAt(a, b);
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
                  x={words.x}
                  y={words.y}
                  textAnchor={words.centred ? 'middle' : 'start'}
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
              {cut(n.label, LABEL_LENGTH)}
            </chakra.text>
            <chakra.text
              x={n.x}
              y={n.y + RADIUS + 27}
              textAnchor="middle"
              color="quiet"
              fill="currentColor"
              fontSize="11px"
            >
              {cut(n.detail, DETAIL_LENGTH)}
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
