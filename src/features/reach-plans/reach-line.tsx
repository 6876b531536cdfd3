'use client';

import { Flex } from '@chakra-ui/react';
import { Glyph } from '@/ui/glyph';
import { TimeLine, type TimeBar } from '@/ui/time-line';
import { nameIn, type FieldsData } from '@/workbench/form-data';
import type { ReachPlanData, StepShown } from './data';

/** Who rings from when to when while somebody is looked for, and what follows. */
export function ReachLine({
  steps,
  end,
  choices,
  options,
}: {
  steps: readonly StepShown[];
  end: string | null;
  choices: ReachPlanData['choices'];
  options: FieldsData['options'];
}) {
  if (steps.length === 0) return null;
  const phone = nameIn(choices.options.extension);
  const outside = nameIn(choices.options.outsideNumber);
  const bars: TimeBar[] = [];
  let [begin, until] = [0, 0];
  for (const { value: s } of steps) {
    if (!s.withPrevious) begin = until;
    const name = s.extension ? (phone(s.extension) ?? 'a phone') : `${outside(s.outside!) ?? 'a number'}, outside`;
    const some = s.hours !== null || s.presences.length > 0;
    const span = { from: begin, until: begin + s.seconds };
    until = Math.max(until, span.until);
    bars.push({
      id: s.id,
      name: some ? `${name}, sometimes` : name,
      says: `${name} rings from second ${span.from} to ${span.until}${some ? ', at some times only' : ''}`,
      spans: [span],
      look: some ? 'offered' : 'rings',
    });
  }
  const then = end === null ? 'released: nobody answers' : (nameIn(options.destination)(end) ?? 'somewhere else');
  return (
    <TimeLine
      label="Who rings when"
      bars={bars}
      whole={until}
      end={
        <Flex gap="7px" align="flex-start">
          <Glyph kind={options.destination?.find((o) => o.id === end)?.kind ?? 'tone'} />
          <span>
            after {until} s {then}
          </span>
        </Flex>
      }
    />
  );
}
