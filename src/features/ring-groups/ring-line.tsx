'use client';

import { Flex } from '@chakra-ui/react';
import { ordinal } from '@/core/digits/symbols';
import { joinsAfter } from '@/core/plan/facts/stages';
import { Glyph } from '@/ui/glyph';
import { TimeLine } from '@/ui/time-line';
import { nameIn, type FieldsData } from '@/workbench/form-data';

/** Members that are drawn one by one; the others are counted. */
const MOST_DRAWN = 12;

interface Group {
  members: string[];
  outside: string[];
  order: 'all at once' | 'in turn' | 'at random' | 'by stages';
  ringSeconds: number;
  stageSeconds: number;
  stageMembers: number;
  noAnswer: string | null;
}

/** What is typed may be no figure yet. */
const figure = (value: unknown): number => (typeof value === 'number' && value > 0 ? value : 1);

/** Whose phone rings from when to when, and what follows when nobody answers. */
export function RingLine({ group, options }: { group: Record<string, unknown>; options: FieldsData['options'] }) {
  const { members, outside, order, noAnswer } = group as unknown as Group;
  const [seconds, stage, joining] = [figure(group.ringSeconds), figure(group.stageSeconds), figure(group.stageMembers)];
  const all = [
    ...members.map((id) => ({ id, name: nameIn(options.extension)(id) ?? 'a phone' })),
    ...outside.map((id) => ({ id, name: `${nameIn(options.outsideNumber)(id) ?? 'a number'}, outside` })),
  ];
  if (all.length === 0) return null;
  const oneByOne = order === 'in turn' || order === 'at random';
  const whole = oneByOne ? seconds * all.length : seconds;
  const spanOf = (nth: number) => {
    if (oneByOne) return { from: nth * seconds, until: (nth + 1) * seconds };
    const stages = { stageSeconds: stage, stageMembers: joining, stages: group.stages as string };
    return { from: order === 'by stages' ? joinsAfter(stages, nth) : 0, until: whole };
  };
  const drawn = all.slice(0, MOST_DRAWN);
  const more = all.length - drawn.length;
  const then = noAnswer ? (nameIn(options.destination)(noAnswer) ?? 'somewhere else') : 'released: nobody answers';
  const bars = drawn.map(({ id, name }, i) => {
    const span = spanOf(i);
    const comes = span.from < span.until;
    // At random nobody knows whose turn it is.
    const shown = order === 'at random' ? `${ordinal(i + 1)} of them, at random` : name;
    return {
      id,
      name: shown,
      says: comes ? `${shown} rings from second ${span.from} to ${span.until}` : `${shown}: its stage never comes`,
      spans: comes ? [span] : [],
      look: 'rings' as const,
    };
  });
  if (more > 0)
    bars.push({
      id: 'more',
      name: `and ${more} more`,
      says: `${more} more ring`,
      spans: [{ from: Math.min(spanOf(drawn.length).from, whole), until: whole }],
      look: 'rings',
    });
  return (
    <TimeLine
      label="Who rings when"
      bars={bars}
      whole={whole}
      end={
        <Flex gap="7px" align="flex-start">
          <Glyph kind={options.destination?.find((o) => o.id === noAnswer)?.kind ?? 'tone'} />
          <span>
            after {whole} s {then}
          </span>
        </Flex>
      }
    />
  );
}
